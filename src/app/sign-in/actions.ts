"use server";

import { eq } from "drizzle-orm";
import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { database } from "@/server/db/database";
import { people } from "@/server/db/schema";
import { log } from "@/server/runtime/log";
import {
  clientAddress,
  deviceToken,
  isDemo,
  SESSION_COOKIE,
  sessionToken,
  setDeviceCookie,
  setSessionCookie,
} from "@/server/people/session";
import { closeSession, openSession, personOfSession, signInByPassword } from "@/server/people/signIn";
import { stillOn } from "@/server/box/tiesOf";
import { numbersIn, STILL_ON } from "./stillOnNumbers";

export async function signIn(_: string | null, form: FormData): Promise<string | null> {
  const name = String(form.get("name") ?? "").slice(0, 100);
  const password = String(form.get("password") ?? "").slice(0, 500);
  if (name === "" || password === "") return "Enter your sign-in name and your password.";
  const from = { address: await clientAddress(), device: await deviceToken() };
  const answer = await signInByPassword(database(), { signIn: name, password }, Date.now(), from);
  if (!answer.ok) {
    log().warn({ from: from.address }, "sign-in refused");
    return answer.sentence;
  }
  log().info({ who: answer.person.id, from: from.address }, "signed in");
  await setDeviceCookie(answer.device);
  await setSessionCookie(answer.token, answer.expiresAt_ms);
  redirect("/");
}

/** One click, in the demo only. */
export async function signInToDemo(form: FormData): Promise<void> {
  if (!isDemo()) redirect("/sign-in");
  const row = database()
    .select({ id: people.id })
    .from(people)
    .where(eq(people.signIn, String(form.get("name") ?? "")))
    .get();
  if (row === undefined) redirect("/sign-in");
  const session = openSession(database(), row.id, Date.now());
  await setSessionCookie(session.token, session.expiresAt_ms);
  redirect("/");
}

export async function signOut(): Promise<void> {
  const token = await sessionToken();
  const person = personOfSession(database(), token, Date.now(), false);
  if (token) closeSession(database(), token);
  (await cookies()).delete(SESSION_COOKIE);
  // A screen at a box is its leader's, who signs out of it and goes on working.
  const still = person === null || person.crewRound !== undefined ? [] : stillOn(database(), person.id);
  redirect(still.length === 0 ? "/sign-in" : `/sign-in?${STILL_ON}=${numbersIn(still.join(" ")).join("+") || "box"}`);
}
