import { inForce } from "../../core/accounts/appointments";
import { createHash, randomBytes } from "node:crypto";
import { and, eq, gt, lt } from "drizzle-orm";
import { type Competence, type PersonId, type Role } from "../../core/people/roles";
import { duration } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";
import type { Db } from "../db/database";
import { knownDevices, people, sessions } from "../db/schema";
import { question } from "../db/question";
import { whileUnchanged } from "../db/whileUnchanged";
import { isReader, tellSessionSeen } from "../runtime/reader";
import { saysFull } from "../runtime/reserve";
import { IDLE_MINUTES } from "../runtime/settings";
import { Busy } from "../runtime/workers";
import { crewPin, othersPin, ownPin, password, tryIt, type Counted, type Tried } from "./attempts";
import { inTurn } from "./inTurn";
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
  /** Which session asks, by the hash of its token; missing where none does, as in the record played again. */
  session?: string;
  /** The crew round for which the screen of this session stands at the box. */
  crewRound?: string;
}>;

const SESSION_MS = 14 * 3_600_000; // a long shift with handover, then sign in again
/** A device is known for half a year. */
export const DEVICE_MS = 180 * 86_400_000;

/** Sign-ins hash one at a time, so that a crowd at the door leaves the other thread to those who sign. */
const SIGN_INS_WAITING = 20;

export type SignInAnswer =
  { ok: true; token: string; expiresAt_ms: number; person: Person; device: string } | { ok: false; sentence: string };

/** From where somebody signs in: the address, and the token of a device that they may have used before. */
export type From = Readonly<{ address: string; device: string | undefined }>;

/**
 * Signs in by password. The same sentence for an unknown name and a wrong password, after the same work. Wrong tries are
 * counted by name and address; at a device that the person has used before only those from there, so that no stranger
 * shuts them out. Answers a token for the device besides.
 */
export async function signInByPassword(
  db: Db,
  input: { signIn: string; password: string },
  now_ms: number,
  from: From = { address: "", device: undefined },
): Promise<SignInAnswer> {
  const name = input.signIn.toLowerCase();
  const row = db.select().from(people).where(eq(people.signIn, name)).get();
  const device = row === undefined ? null : knownDevice(db, from.device, row.id);
  const counted = password(name, { address: from.address, device });
  const tried = await tryIt(db, counted, now_ms, async () => {
    const test = () => secretFits(row?.active ? row.passwordHash : null, input.password);
    const fits = await inTurn("sign-ins", SIGN_INS_WAITING, test);
    if (fits === null) throw new Busy("queue");
    return fits;
  }).catch((error: unknown): Tried => {
    if (error instanceof Busy) return "busy";
    throw error;
  });
  if (tried === "fits" && row) {
    const token = device !== null ? from.device! : rememberDevice(db, row.id, now_ms);
    return { ok: true, ...openSession(db, row.id, now_ms), person: toPerson(row, now_ms), device: token };
  }
  return { ok: false, sentence: tryWords(tried, "The name or the password is not right. Try again.") };
}

function tryWords(tried: Tried, wrong: string): string {
  if (tried === "busy") return "Too many sign in at the moment. Try again in a minute.";
  if (typeof tried === "string") return wrong;
  return `Too many wrong tries. Wait ${duration(tried.shutFor_ms / 1000)}, or ask a coordinator to let you in again.`;
}

/** The hash of a device's token, where this person has signed in with it before. */
function knownDevice(db: Db, token: string | undefined, personId: string): string | null {
  if (!token) return null;
  const hash = tokenHash(token);
  const row = db
    .select()
    .from(knownDevices)
    .where(and(eq(knownDevices.tokenHash, hash), eq(knownDevices.personId, personId)))
    .get();
  return row === undefined ? null : hash.slice(0, 16);
}

function rememberDevice(db: Db, personId: string, now_ms: number): string {
  const token = randomBytes(32).toString("base64url");
  db.delete(knownDevices)
    .where(lt(knownDevices.at, now_ms - DEVICE_MS))
    .run();
  db.insert(knownDevices)
    .values({ tokenHash: tokenHash(token), personId, at: now_ms })
    .run();
  return token;
}

/** For the demo's one-click sign-in only; the caller makes sure that it is the demo. */
export function openSession(db: Db, personId: string, now_ms: number): { token: string; expiresAt_ms: number } {
  const token = randomBytes(32).toString("base64url");
  const expiresAt_ms = now_ms + SESSION_MS;
  db.insert(sessions)
    .values({ tokenHash: tokenHash(token), personId, createdAt: now_ms, expiresAt: expiresAt_ms, seenAt: now_ms })
    .run();
  return { token, expiresAt_ms };
}

/** That a session was used is written down no more often than this: it costs a write. */
const SEEN_EVERY_MS = 5 * 60_000;

/** Without anything asked for this long a session ends by itself, in ms: `LANTERN_IDLE_MINUTES`. */
export function idle_ms(): number {
  return (Number(process.env.LANTERN_IDLE_MINUTES) || IDLE_MINUTES) * 60_000;
}

/**
 * Who asks, or null where the session is over: signed out, its hours up, or nothing asked in it for too long. `isUse` false
 * only looks, as a line that stands open does: that keeps no session alive.
 */
export function personOfSession(db: Db, token: string | undefined, now_ms: number, isUse = true): Person | null {
  if (!token) return null;
  const row = db
    .select({ person: people, seen_ms: sessions.seenAt, crewRound: sessions.crewRound })
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.personId))
    .where(
      and(
        eq(sessions.tokenHash, tokenHash(token)),
        gt(sessions.expiresAt, now_ms),
        gt(sessions.seenAt, now_ms - idle_ms()),
        eq(people.active, true),
      ),
    )
    .get();
  if (row === undefined) return null;
  if (isUse && now_ms - row.seen_ms > SEEN_EVERY_MS) seen(db, tokenHash(token), now_ms);
  const person = { ...toPerson(row.person, now_ms), session: tokenHash(token) };
  return row.crewRound === null ? person : { ...person, crewRound: row.crewRound };
}

/** A session was used: it does not end by itself for a while. In a reader it is left to the process that writes. */
export function seen(db: Db, session: string, now_ms: number): void {
  if (isReader()) return tellSessionSeen(session);
  try {
    db.update(sessions).set({ seenAt: now_ms }).where(eq(sessions.tokenHash, session)).run();
  } catch (error) {
    // On a full disk nobody is shut out for it, but whoever asks nothing for hours.
    if (!saysFull(error)) throw error;
  }
}

export function closeSession(db: Db, token: string): void {
  db.delete(sessions)
    .where(eq(sessions.tokenHash, tokenHash(token)))
    .run();
}

/** Null when the PIN fits, else the sentence to show. */
export function pinFault(
  db: Db,
  person: Pick<Person, "id" | "crewRound">,
  pin: string,
  now_ms: number,
): Promise<string | null> {
  // At the box anybody may stand: what is tried there shuts the leader out of no device of their own.
  const counted = person.crewRound === undefined ? ownPin(person.id) : crewPin(person.id);
  return testPin(db, person.id, pin, now_ms, counted);
}

/**
 * What is wrong with a second person's signature at the same device; null when it is theirs. `atCrewRound`: in one that is
 * open, with its leader beside it, wrong tries count by whose PIN it is.
 */
export async function signerFault(
  db: Db,
  signer: Readonly<{ person: string; pin: string }>,
  sender: Pick<Person, "id">,
  now_ms: number,
  atCrewRound = false,
): Promise<string | null> {
  const row = db.select().from(people).where(eq(people.id, signer.person)).get();
  if (row === undefined || !row.active) return "There is no such person any more. Choose another.";
  const counted = atCrewRound ? crewPin(row.id) : row.id === sender.id ? ownPin(row.id) : othersPin(row.id, sender.id);
  const fault = await testPin(db, row.id, signer.pin, now_ms, counted);
  return fault === null ? null : `${row.name}: ${fault}`;
}

async function testPin(
  db: Db,
  person: string,
  pin: string,
  now_ms: number,
  counted: readonly Counted[],
): Promise<string | null> {
  const row = db.select({ pinHash: people.pinHash }).from(people).where(eq(people.id, person)).get();
  const tried = await tryIt(db, counted, now_ms, () => secretFits(row?.pinHash ?? null, pin));
  return tried === "fits" ? null : tryWords(tried, "The PIN is not right. Nothing was changed.");
}

function tokenHash(token: string): string {
  return createHash("sha256").update(token).digest("hex");
}

/** Who they are at this moment: with the competences that still count. */
export function toPerson(row: typeof people.$inferSelect, now_ms: number): Person {
  return {
    id: row.id as PersonId,
    name: row.name,
    signIn: row.signIn,
    roles: row.roles,
    competences: inForce(row, now_ms),
    units: row.units,
    firm: row.firm,
  };
}

/** Names by id, for sentences and screens. */
export const namesOf = whileUnchanged((tx): ((id: string) => string) => {
  const names = new Map(
    everybody(tx)
      .all()
      .map((row) => [row.id, row.name]),
  );
  return (id) => names.get(id) ?? "somebody unknown";
});
const everybody = question((tx) => tx.select({ id: people.id, name: people.name }).from(people).prepare());
