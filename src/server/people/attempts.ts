import { count, desc, eq, gt, inArray, like, or } from "drizzle-orm";
import type { Tx } from "../db/database";
import { failedAttempts } from "../db/schema";
import { inTurn } from "./inTurn";

/** So many wrong tries within so long, and then none until the oldest of them is that old. */
type Limit = Readonly<{ most: number; within_ms: number }>;
export type Counted = Readonly<{ subject: string; limits: readonly Limit[] }>;

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
/** No limit looks farther back. */
const LOOKED_BACK_MS = 8 * HOUR_MS;

/** Somebody's own secret, at a device that they have used: few, and fewer over a shift. Common practice, no source. */
const OWN: readonly Limit[] = [
  { most: 5, within_ms: 10 * MINUTE_MS },
  { most: 20, within_ms: 8 * HOUR_MS },
];
/** From one address, whoever is named. */
const ADDRESS: readonly Limit[] = [{ most: 30, within_ms: 10 * MINUTE_MS }];
/** By all strangers together: guessing goes no faster from many addresses. */
const STRANGERS: readonly Limit[] = [{ most: 50, within_ms: 6 * HOUR_MS }];

/** A PIN typed by whoever it belongs to, signed in. */
export const ownPin = (person: string): Counted[] => [{ subject: `pin ${person}`, limits: OWN }];

/**
 * A PIN typed into somebody else's field: it counts against who sent it. Others can shut a person's PIN out of other people's
 * devices, and never out of their own.
 */
export const othersPin = (person: string, sender: string): Counted[] => [
  { subject: `pin of others by ${sender}`, limits: OWN },
  { subject: `pin by others ${person}`, limits: STRANGERS },
];

/**
 * A PIN typed at the screen of a crew round, whose leader has signed for being there: it counts by whose it is, so that the
 * fumbling of one keeps nobody else waiting. It shuts nobody out of their own devices.
 */
export const crewPin = (person: string): Counted[] => [
  { subject: `pin at a crew round ${person}`, limits: OWN },
  { subject: `pin by others ${person}`, limits: STRANGERS },
];

/** A password: at a device that this name has signed in from before, only what was tried from there counts. */
export function password(name: string, from: Readonly<{ address: string; device: string | null }>): Counted[] {
  if (from.device !== null) return [{ subject: `password ${name} at ${from.device}`, limits: OWN }];
  return [
    { subject: `password ${name} from ${from.address}`, limits: OWN },
    { subject: `passwords from ${from.address}`, limits: ADDRESS },
    { subject: `password ${name}`, limits: STRANGERS },
  ];
}

/** How long a shut subject stays so, in ms, by when it was tried wrongly, latest first; null where it may be tried. */
function shutFor_ms(wrong_ms: readonly number[], limits: readonly Limit[], now_ms: number): number | null {
  const left = limits.flatMap(({ most, within_ms }) => {
    const oldest = wrong_ms[most - 1];
    return oldest !== undefined && oldest > now_ms - within_ms ? [oldest + within_ms - now_ms] : [];
  });
  return left.length === 0 ? null : Math.max(...left);
}

function wrongTries(tx: Tx, { subject, limits }: Counted): number[] {
  return tx
    .select({ at: failedAttempts.at })
    .from(failedAttempts)
    .where(eq(failedAttempts.subject, subject))
    .orderBy(desc(failedAttempts.at))
    .limit(Math.max(...limits.map(({ most }) => most)))
    .all()
    .map(({ at }) => at);
}

export type Tried = "fits" | "wrong" | "busy" | Readonly<{ shutFor_ms: number }>;

/** Behind this many that wait for the same secret, nobody waits any more. */
const MOST_WAITING = 200;

/**
 * Tries a secret, one try after another for the first subject, so that never more are tested than the limit allows,
 * however many come at once. A wrong one is counted for every subject; those that are shut are not tested.
 */
export async function tryIt(
  tx: Tx,
  counted: readonly Counted[],
  now_ms: number,
  fits: () => Promise<boolean>,
): Promise<Tried> {
  const tried = await inTurn(`try ${counted[0]!.subject}`, MOST_WAITING, async (): Promise<Tried> => {
    const shut = counted.flatMap((one) => shutFor_ms(wrongTries(tx, one), one.limits, now_ms) ?? []);
    if (shut.length > 0) return { shutFor_ms: Math.max(...shut) };
    if (await fits()) return "fits";
    for (const { subject } of counted) tx.insert(failedAttempts).values({ subject, at: now_ms }).run();
    return "wrong";
  });
  return tried ?? "busy";
}

/** Everything that was counted against a person, gone: a coordinator says that it was them, or nobody. */
export function forgive(tx: Tx, person: Readonly<{ id: string; signIn: string }>): number {
  return tx.delete(failedAttempts).where(against(person)).run().changes;
}

/** Which of these people something is shut for now, and for how long. Cost: one query. */
export function shutOut(
  tx: Tx,
  all: readonly Readonly<{ id: string; signIn: string }>[],
  now_ms: number,
): ReadonlyMap<string, number> {
  const rows = tx
    .select({ subject: failedAttempts.subject, at: failedAttempts.at })
    .from(failedAttempts)
    .where(gt(failedAttempts.at, now_ms - LOOKED_BACK_MS))
    .orderBy(desc(failedAttempts.at))
    .all();
  const wrong = new Map<string, number[]>();
  for (const { subject, at } of rows) wrong.set(subject, [...(wrong.get(subject) ?? []), at]);
  const shut = new Map<string, number>();
  for (const { id, signIn } of all) {
    const counted: readonly Counted[] = [
      ...ownPin(id),
      { subject: `pin of others by ${id}`, limits: OWN },
      { subject: `pin at a crew round ${id}`, limits: OWN },
      { subject: `password ${signIn}`, limits: STRANGERS },
    ];
    const left = counted.flatMap((one) => shutFor_ms(wrong.get(one.subject) ?? [], one.limits, now_ms) ?? []);
    if (left.length > 0) shut.set(id, Math.max(...left));
  }
  return shut;
}

function against({ id, signIn }: Readonly<{ id: string; signIn: string }>) {
  const own = [
    `pin ${id}`,
    `pin of others by ${id}`,
    `pin by others ${id}`,
    `pin at a crew round ${id}`,
    `password ${signIn}`,
  ];
  return or(
    inArray(failedAttempts.subject, own),
    like(failedAttempts.subject, `password ${signIn} at %`),
    like(failedAttempts.subject, `password ${signIn} from %`),
  );
}

/** How many wrong tries are kept, for tests. */
export function countedFor(tx: Tx, subject: string): number {
  return tx.select({ n: count() }).from(failedAttempts).where(eq(failedAttempts.subject, subject)).get()?.n ?? 0;
}
