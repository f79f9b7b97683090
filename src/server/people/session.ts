import "server-only";
import { cookies, headers } from "next/headers";
import { redirect } from "next/navigation";
import { database } from "../db/database";
import { drawnAfter } from "../runtime/events";
import { permitAtBox } from "./boxScreen";
import { DEVICE_MS, personOfSession, type Person } from "./signIn";

export const SESSION_COOKIE = "lantern_session";

export async function sessionToken(): Promise<string | undefined> {
  return (await cookies()).get(SESSION_COOKIE)?.value;
}

/** Who is signed in, or null. */
export async function currentPerson(): Promise<Person | null> {
  // Every page asks this before it reads anything else.
  drawnAfter();
  return personOfSession(database(), await sessionToken(), Date.now());
}

/**
 * Who is signed in; everybody else is sent to the sign-in page, and from a screen that stands at a box back to it, wherever
 * they meant to go.
 */
export async function requirePerson(at?: Readonly<{ box: string }>): Promise<Person> {
  const person = (await currentPerson()) ?? redirect("/sign-in");
  if (person.crewRound === undefined) return person;
  const permit = permitAtBox(database(), person.crewRound);
  if (permit !== null && permit !== at?.box) redirect(`/permits/${permit}/crew`);
  return person;
}

export function isDemo(): boolean {
  return process.env.LANTERN_DEMO === "1";
}

const DEVICE_COOKIE = "lantern_device";

export async function deviceToken(): Promise<string | undefined> {
  return (await cookies()).get(DEVICE_COOKIE)?.value;
}

/** It signs nobody in: it only says that somebody has signed in here before. */
export async function setDeviceCookie(token: string): Promise<void> {
  (await cookies()).set(DEVICE_COOKIE, token, { ...COOKIE(), expires: new Date(Date.now() + DEVICE_MS) });
}

/** The last address before this server, as far as it is told; a client may say another, and gains little by it. */
export async function clientAddress(): Promise<string> {
  const said = (await headers()).get("x-forwarded-for") ?? "";
  return (said.split(",").at(-1) ?? "").trim().slice(0, 60);
}

const COOKIE = () =>
  ({ httpOnly: true, sameSite: "strict", secure: process.env.LANTERN_HTTPS === "1", path: "/" }) as const;

export async function setSessionCookie(token: string, expiresAt_ms: number): Promise<void> {
  (await cookies()).set(SESSION_COOKIE, token, { ...COOKIE(), expires: new Date(expiresAt_ms) });
}
