import { and, asc, eq, isNotNull, isNull } from "drizzle-orm";
import { isNoneOf } from "../db/isAmong";
import { stepLabel } from "../../core/procedure/steps";
import type { PersonId } from "../../core/people/roles";
import { inside } from "../../core/permit/people/entries";
import { onPost } from "../../core/permit/people/posts";
import type { Tx } from "../db/database";
import { isolations, people, permitLog, permits, personalLocks, steps } from "../db/schema";

/** The emptying that a person watches now, in words; null when none. Cost: one query. */
export function drainWatchedBy(tx: Tx, person: PersonId): string | null {
  const found = tx
    .select({ number: isolations.number, step: steps.step, begun: steps.begun })
    .from(steps)
    .innerJoin(isolations, eq(isolations.id, steps.isolationId))
    .where(and(isNotNull(steps.begun), isNull(steps.doneBy)))
    .all()
    .find(({ begun }) => begun?.watcher === person);
  return found === undefined ? null : `${stepLabel(found.step)} of ${found.number}, which they watch`;
}

/** What keeps a person from watching: another drain, a permit that they are signed on to, a post, a space they are in. */
export function watchesNow(tx: Tx, person: PersonId): string | null {
  const drain = drainWatchedBy(tx, person);
  if (drain !== null) return drain;
  const on = tx
    .select({ number: permits.number })
    .from(personalLocks)
    .innerJoin(permits, eq(permits.id, personalLocks.permitId))
    .where(and(eq(personalLocks.personId, person), isNull(personalLocks.offAt)))
    .get();
  if (on !== undefined) return `permit ${on.number}`;
  const entries = tx
    .select({ number: permits.number, entry: permitLog.entry })
    .from(permitLog)
    .innerJoin(permits, eq(permits.id, permitLog.permitId))
    .where(isNoneOf(permits.state, ["closed", "cancelled", "draft"]))
    .orderBy(asc(permits.number), asc(permitLog.position))
    .all();
  for (const number of new Set(entries.map((row) => row.number))) {
    const log = entries.flatMap((row) => (row.number === number ? [row.entry] : []));
    if ([...onPost(log), ...inside(log)].some((one) => one.person === person)) return `permit ${number}`;
  }
  return null;
}

/** Somebody of the site whose work here is not over. */
export function isActive(tx: Tx, person: string): boolean {
  return tx.select({ active: people.active }).from(people).where(eq(people.id, person)).get()?.active === true;
}
