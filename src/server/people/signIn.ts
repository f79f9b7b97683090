import { createHash, randomBytes } from "node:crypto";
import { and, count, eq, gt } from "drizzle-orm";
import { type Competence, type PersonId, type Role } from "../../core/people/roles";
import type { UnitSystem } from "../../core/units/units";
import type { Db } from "../db/database";
import { failedAttempts, people, sessions } from "../db/schema";
import { whileUnchanged } from "../db/whileUnchanged";
import { secretFits } from "./secrets";

/** A person as the server knows them: never with their hashes. */
export type Person = Readonly<{
  id: PersonId;
  name: string;
  signIn: string;
  roles: readonly Role[];
  competences: readonly Competence[];
  units: UnitSystem;
  /** A contractor's firm; empty for the site's own people. */
  firm: string;
}>;

const SESSION_MS = 14 * 3_600_000; // a long shift with handover, then sign in again
const ATTEMPT_WINDOW_MS = 10 * 60_000;
const ATTEMPTS_ALLOWED = 5;

export type SignInAnswer =
  { ok: true; token: string; expiresAt_ms: number; person: Person } | { ok: false; sentence: string };

/** Signs in by password. The same sentence for an unknown name and a wrong password, after the same work. */
export async function signInByPassword(
  db: Db,
  input: { signIn: string; password: string },
  now_ms: number,
): Promise<SignInAnswer> {
  const subject = `password ${input.signIn.toLowerCase()}`;
  if (tooManyAttempts(db, subject, now_ms)) return { ok: false, sentence: TOO_MANY };
  const row = db.select().from(people).where(eq(people.signIn, input.signIn.toLowerCase())).get();
  const fits = await secretFits(row?.active ? row.passwordHash : null, input.password);
  if (!row || !fits) {
    noteFailure(db, subject, now_ms);
    return { ok: false, sentence: "The name or the password is not right. Try again." };
  }
  return { ok: true, ...openSession(db, row.id, now_ms), person: toPerson(row) };
}

const TOO_MANY = "Too many wrong tries. Wait ten minutes, or ask the coordinator.";

/** For the demo's one-click sign-in only; the caller makes sure that it is the demo. */
export function openSession(db: Db, personId: string, now_ms: number): { token: string; expiresAt_ms: number } {
  const token = randomBytes(32).toString("base64url");
  const expiresAt_ms = now_ms + SESSION_MS;
  db.insert(sessions)
    .values({ tokenHash: tokenHash(token), personId, createdAt: now_ms, expiresAt: expiresAt_ms })
    .run();
  return { token, expiresAt_ms };
}

export function personOfSession(db: Db, token: string | undefined, now_ms: number): Person | null {
  if (!token) return null;
  const row = db
    .select({ person: people })
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.personId))
    .where(and(eq(sessions.tokenHash, tokenHash(token)), gt(sessions.expiresAt, now_ms), eq(people.active, true)))
    .get();
  return row ? toPerson(row.person) : null;
}

export function closeSession(db: Db, token: string): void {
  db.delete(sessions)
    .where(eq(sessions.tokenHash, tokenHash(token)))
    .run();
}

/** Null when the PIN fits, else the sentence to show. */
export async function pinFault(db: Db, person: Person, pin: string, now_ms: number): Promise<string | null> {
  const subject = `pin ${person.id}`;
  if (tooManyAttempts(db, subject, now_ms)) return TOO_MANY;
  const row = db.select({ pinHash: people.pinHash }).from(people).where(eq(people.id, person.id)).get();
  if (await secretFits(row?.pinHash ?? null, pin)) return null;
  noteFailure(db, subject, now_ms);
  return "The PIN is not right. Nothing was changed.";
}

/** What is wrong with a second person's signature at the same device; null when it is theirs. */
export async function signerFault(
  db: Db,
  signer: Readonly<{ person: string; pin: string }>,
  now_ms: number,
): Promise<string | null> {
  const row = db.select().from(people).where(eq(people.id, signer.person)).get();
  if (row === undefined || !row.active) return "There is no such person any more. Choose another.";
  const fault = await pinFault(db, toPerson(row), signer.pin, now_ms);
  return fault === null ? null : `${row.name}: ${fault}`;
}

function tooManyAttempts(db: Db, subject: string, now_ms: number): boolean {
  const recent = and(eq(failedAttempts.subject, subject), gt(failedAttempts.at, now_ms - ATTEMPT_WINDOW_MS));
  const found = db.select({ n: count() }).from(failedAttempts).where(recent).get();
  return (found?.n ?? 0) >= ATTEMPTS_ALLOWED;
}

function noteFailure(db: Db, subject: string, now_ms: number): void {
  db.insert(failedAttempts).values({ subject, at: now_ms }).run();
}

function tokenHash(token: string): string {
  return createHash("sha256").update(token).digest("hex");
}

export function toPerson(row: typeof people.$inferSelect): Person {
  return {
    id: row.id as PersonId,
    name: row.name,
    signIn: row.signIn,
    roles: row.roles,
    competences: row.competences,
    units: row.units,
    firm: row.firm,
  };
}

/** Names by id, for sentences and screens. */
export const namesOf = whileUnchanged((tx): ((id: string) => string) => {
  const names = new Map(
    tx
      .select({ id: people.id, name: people.name })
      .from(people)
      .all()
      .map((row) => [row.id, row.name]),
  );
  return (id) => names.get(id) ?? "somebody unknown";
});
