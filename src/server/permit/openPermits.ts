import { notInArray } from "drizzle-orm";
import type { Db } from "../db/database";
import { permits } from "../db/schema";
import { writesOn } from "../db/statements";
import { permitsNow, type PermitNow } from "./permitFacts";

/** A picture this old is as good as one of now: it takes longer to reach a screen. Whatever changes makes a new one. */
const GOOD_FOR_MS = 1000;

type Look = Readonly<{ at_ms: number; changes: number; permits: readonly PermitNow[] }>;
const looks = new WeakMap<object, Look>();

/**
 * Every permit that is not over as it stands now, in the order of their numbers: what the board, the strip and the register
 * share. For showing only; what is decided is asked anew.
 *
 * Cost: a bounded number of queries, and none while nothing has changed for a second.
 */
export function openPermits(db: Db, now_ms: number): readonly PermitNow[] {
  // All that this process writes; it is the only one that does.
  const changes = writesOn(db.$client);
  const known = looks.get(db.$client);
  if (known && known.changes === changes && now_ms >= known.at_ms && now_ms - known.at_ms < GOOD_FOR_MS) {
    return known.permits;
  }
  const numbers = db
    .select({ number: permits.number })
    .from(permits)
    .where(notInArray(permits.state, ["closed", "cancelled"]))
    .all()
    .map(({ number }) => number);
  const look: Look = { at_ms: now_ms, changes, permits: permitsNow(db, numbers, now_ms) };
  looks.set(db.$client, look);
  return look.permits;
}
