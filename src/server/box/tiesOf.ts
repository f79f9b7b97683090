import { and, eq, isNull, notInArray } from "drizzle-orm";
import type { PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { permits, personalLocks, standingLocks } from "../db/schema";
import { watchesNow } from "../isolation/watching";

/** Locks of theirs that hang, what they are on, watch or are inside: what somebody sees to before they leave the site. */
export function stillOn(tx: Tx, person: string): string[] {
  const own = tx
    .select({ lock: personalLocks.lock, permit: permits.number })
    .from(personalLocks)
    .innerJoin(permits, eq(permits.id, personalLocks.permitId))
    .where(and(eq(personalLocks.personId, person), isNull(personalLocks.offAt)))
    .all()
    .map(({ lock, permit }) => `lock ${lock} on permit ${permit}`);
  const standing = tx
    .select({ lock: standingLocks.lock })
    .from(standingLocks)
    .where(and(eq(standingLocks.personId, person), isNull(standingLocks.offAt)))
    .all()
    .map(({ lock }) => `lock ${lock} on a box`);
  const on = watchesNow(tx, person as PersonId);
  return [...new Set([...own, ...standing, ...(on !== null && own.length === 0 ? [on] : [])])];
}

/** The same, and permits that they lead: what has to be over before somebody is no more of this site. */
export function tiesOf(tx: Tx, person: string): string[] {
  const leads = tx
    .select({ number: permits.number })
    .from(permits)
    .where(and(eq(permits.holderId, person), notInArray(permits.state, ["closed", "cancelled"])))
    .all()
    .map(({ number }) => `permit ${number}, which they lead`);
  return [...stillOn(tx, person), ...leads];
}
