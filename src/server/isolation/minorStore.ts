import { and, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import type { MinorNow } from "../../core/permit/record/permitTypes";
import type { PersonId } from "../../core/people/roles";
import { stepLabel } from "../../core/procedure/steps";
import { isAmong } from "../db/isAmong";
import { question } from "../db/question";
import type { Tx } from "../db/database";
import { forcedRemovals, holds, isolations, jobIsolations, jobs, permitIsolations, steps } from "../db/schema";

/** The lock on the one point of each minor isolation, and the steps of it that failed. Cost: two queries, however many. */
export function minorHangs(tx: Tx, isolationIds: readonly string[]): (isolationId: string) => Omit<MinorNow, "crew"> {
  const locks = new Map(
    tx
      .select({ id: holds.isolationId, number: holds.lock, by: holds.lockedBy })
      .from(holds)
      .where(and(isAmong(holds.isolationId, isolationIds), isNull(holds.liftedAt)))
      .all()
      .map(({ id, number, by }) => [id, { number, by: by as PersonId }]),
  );
  const failed = tx
    .select({ id: steps.isolationId, step: steps.step })
    .from(steps)
    .where(and(isAmong(steps.isolationId, isolationIds), isNotNull(steps.failures)))
    .all();
  return (isolationId) => ({
    lock: locks.get(isolationId) ?? null,
    failed: failed.filter(({ id }) => id === isolationId).map(({ step }) => stepLabel(step)),
  });
}

/** A lock that was cut off the point of a minor isolation hangs there no more, and its key opens nothing. */
export function liftCut(
  tx: Tx,
  isolationIds: readonly string[],
  { lock, by, at_ms }: Readonly<{ lock: string; by: PersonId; at_ms: number }>,
): void {
  for (const id of isolationIds.filter((one) => isMinorIsolation(tx, one))) {
    tx.update(holds)
      .set({ liftedBy: by, liftedAt: at_ms, keyAt: "gone", keyBy: by })
      .where(and(eq(holds.isolationId, id), eq(holds.lock, lock), isNull(holds.liftedAt)))
      .run();
  }
}

const aloneStep = question((tx) =>
  tx
    .select({ id: steps.stepId })
    .from(steps)
    .where(
      and(
        eq(steps.isolationId, sql.placeholder("isolationId")),
        eq(sql`json_extract(${steps.step}, '$.alone')`, sql`1`),
      ),
    )
    .limit(1)
    .prepare(),
);

/** Whether an isolation was approved by the short route. Cost: one query. */
export function isMinorIsolation(tx: Tx, isolationId: string): boolean {
  return aloneStep(tx).get({ isolationId }) !== undefined;
}

/** Whether the latest isolation of a job was: one that was given up says nothing of what came after it. */
export function wasMinor(tx: Tx, jobId: string): boolean {
  const latest = tx
    .select({ id: isolations.id })
    .from(jobIsolations)
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(eq(jobIsolations.jobId, jobId))
    .orderBy(desc(isolations.approvedAt), desc(isolations.number))
    .limit(1)
    .get();
  return latest !== undefined && isMinorIsolation(tx, latest.id);
}

/** Who works alone under a minor isolation; null where it is none, or where their lock was taken off without them. */
export function worksAlone(tx: Tx, isolationId: string): PersonId | null {
  if (!isMinorIsolation(tx, isolationId)) return null;
  const cut = tx
    .select({ id: forcedRemovals.id })
    .from(forcedRemovals)
    .innerJoin(permitIsolations, eq(permitIsolations.permitId, forcedRemovals.permitId))
    .where(and(eq(permitIsolations.isolationId, isolationId), isAmong(forcedRemovals.state, ["cut", "told"])))
    .get();
  if (cut !== undefined) return null;
  const job = tx
    .select({ holder: jobs.holderId })
    .from(jobIsolations)
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(eq(jobIsolations.isolationId, isolationId))
    .get();
  return (job?.holder ?? null) as PersonId | null;
}
