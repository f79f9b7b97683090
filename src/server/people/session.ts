import "server-only";
import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { database } from "../db/database";
import { personOfSession, type Person } from "./signIn";

export const SESSION_COOKIE = "lantern_session";

export async function sessionToken(): Promise<string | undefined> {
  return (await cookies()).get(SESSION_COOKIE)?.value;
}

/** Who is signed in, or null. */
export async function currentPerson(): Promise<Person | null> {
  return personOfSession(database(), await sessionToken(), Date.now());
}

/** Who is signed in; everybody else is sent to the sign-in page. */
export async function requirePerson(): Promise<Person> {
  return (await currentPerson()) ?? redirect("/sign-in");
}

export function isDemo(): boolean {
  return process.env.LANTERN_DEMO === "1";
}

export async function setSessionCookie(token: string, expiresAt_ms: number): Promise<void> {
  (await cookies()).set(SESSION_COOKIE, token, {
    httpOnly: true,
    sameSite: "strict",
    secure: process.env.LANTERN_HTTPS === "1",
    path: "/",
    expires: new Date(expiresAt_ms),
  });
}
