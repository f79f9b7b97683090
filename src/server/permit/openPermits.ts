import { isNoneOf } from "../db/isAmong";
import { inOneGo } from "../../core/inOneGo";
import type { Db } from "../db/database";
import { permits } from "../db/schema";
import { writesOn } from "../db/statements";
import { permitsNowSteps, type PermitNow } from "./permitFacts";

/** A picture this old is as good as one of now: it takes longer to reach a screen. Whatever changes makes a new one. */
const GOOD_FOR_MS = 1000;

/** The open permits as they stood at a moment, and how many writes there were by then. */
export type Look = Readonly<{ at_ms: number; changes: number; permits: readonly PermitNow[] }>;

/** Kept with the connection, so that the clock's look and those of all pages, which are bundled apart, are one. */
const LOOK = Symbol.for("heavy-lantern.look");
type Looked = Db["$client"] & { [LOOK]?: Look };

/**
 * Every permit that is not over as it stands now, in the order of their numbers: what the board, the strip and the register
 * share. For showing only; what is decided is asked anew.
 *
 * Cost: a bounded number of queries, and none while nothing has changed for a second.
 */
export function openPermits(db: Db, now_ms: number): readonly PermitNow[] {
  return recentLook(db, now_ms).permits;
}

/** The last look where nothing has changed since and it is not older than a second, else a new one. */
export function recentLook(db: Db, now_ms: number): Look {
  return lookOfJustNow(db, now_ms) ?? freshLook(db, now_ms);
}

/** The last look, if it is as good as one of now. */
export function lookOfJustNow(db: Db, now_ms: number): Look | null {
  const known = (db.$client as Looked)[LOOK];
  const isGood = known?.changes === writesOn(db.$client) && now_ms >= known.at_ms && now_ms - known.at_ms < GOOD_FOR_MS;
  return isGood ? known : null;
}

/** Looked at anew. What it finds is there for whoever shows them next. */
export function freshLook(db: Db, now_ms: number): Look {
  return inOneGo(freshLookSteps(db, now_ms));
}

/** The same, bit by bit. */
export function* freshLookSteps(db: Db, now_ms: number): Generator<void, Look> {
  const changes = writesOn(db.$client);
  const numbers = db
    .select({ number: permits.number })
    .from(permits)
    .where(isNoneOf(permits.state, ["closed", "cancelled"]))
    .all()
    .map(({ number }) => number);
  const look: Look = { at_ms: now_ms, changes, permits: yield* permitsNowSteps(db, numbers, now_ms) };
  // What was written within a transaction may be taken back; what was written meanwhile some of them did not see.
  if (!db.$client.inTransaction && writesOn(db.$client) === changes) (db.$client as Looked)[LOOK] = look;
  return look;
}
