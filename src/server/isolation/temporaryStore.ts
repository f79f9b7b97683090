import { and, desc, eq, gte, like, or } from "drizzle-orm";
import { isAmong } from "../db/isAmong";
import type { Temporary } from "../../core/isolation/temporary";
import type { Tx } from "../db/database";
import { grouped } from "../runtime/grouped";
import { once } from "../runtime/lazily";
import { isolations, jobIsolations, jobs, temporaryRestores } from "../db/schema";

export type TemporaryRestore = Temporary &
  Readonly<{
    id: string;
    isolationId: string;
    isolation: string;
    purpose: string;
    askedBy: string;
    askedAt_ms: number;
  }>;

function rows(tx: Tx) {
  return tx
    .select({ row: temporaryRestores, isolation: isolations.number })
    .from(temporaryRestores)
    .innerJoin(isolations, eq(isolations.id, temporaryRestores.isolationId))
    .orderBy(desc(temporaryRestores.askedAt))
    .$dynamic();
}

function toTemporary({ row, isolation }: { row: typeof temporaryRestores.$inferSelect; isolation: string }) {
  return {
    id: row.id,
    number: row.number,
    isolationId: row.isolationId,
    isolation,
    state: row.state,
    purpose: row.purpose,
    lift: row.lift,
    affected: row.affected,
    askedBy: row.askedBy,
    askedAt_ms: row.askedAt,
    startedAt_ms: row.startedAt,
    endedAt_ms: row.endedAt,
  } satisfies TemporaryRestore;
}

export function temporaryByNumber(tx: Tx, number: string): TemporaryRestore | null {
  const found = rows(tx).where(eq(temporaryRestores.number, number)).get();
  return found ? toTemporary(found) : null;
}

/** All of an isolation, the newest first. */
export function temporariesOf(tx: Tx, isolationId: string): TemporaryRestore[] {
  return rows(tx).where(eq(temporaryRestores.isolationId, isolationId)).all().map(toTemporary);
}

export function saveTemporary(tx: Tx, one: TemporaryRestore): void {
  tx.update(temporaryRestores)
    .set({
      state: one.state,
      affected: one.affected,
      startedAt: one.startedAt_ms,
      endedAt: one.endedAt_ms,
    })
    .where(eq(temporaryRestores.id, one.id))
    .run();
}

/** Temporary de-isolations that are running now. */
export function runningTests(tx: Tx): TemporaryRestore[] {
  return rows(tx).where(eq(temporaryRestores.state, "running")).all().map(toTemporary);
}

/** Those that reach a job: of its own isolation, or of another's that would light it. The newest first. */
export function temporariesReaching(tx: Tx, isolationId: string, job: string): TemporaryRestore[] {
  return rows(tx)
    .where(or(eq(temporaryRestores.isolationId, isolationId), like(temporaryRestores.affected, `%"${job}"%`)))
    .all()
    .map(toTemporary)
    .filter((one) => one.isolationId === isolationId || one.affected.some((affected) => affected.job === job));
}

/** The isolation whose running test may light a job's work; null when none does. Cost: one query, when first asked. */
export function litBy(tx: Tx): (job: string) => string | null {
  const running = once(() => runningTests(tx));
  return (job) => running().find((one) => one.affected.some((affected) => affected.job === job))?.isolation ?? null;
}

/**
 * When points that hold the work of an isolation were last locked again after a test of another; null when they never
 * were. Cost: two queries, however many isolations.
 */
export function litUntil_ms(
  tx: Tx,
  of: readonly Readonly<{ id: string; approvedAt: number }>[],
): (isolationId: string) => number | null {
  const ids = of.map(({ id }) => id);
  const jobsOf = grouped(
    tx
      .select({ id: jobIsolations.isolationId, number: jobs.number })
      .from(jobIsolations)
      .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
      .where(isAmong(jobIsolations.isolationId, ids))
      .all(),
    ({ id }) => id,
  );
  // What ended before the first of them was approved lit none of their proofs.
  const since_ms = Math.min(...of.map(({ approvedAt }) => approvedAt));
  const ended = tx
    .select()
    .from(temporaryRestores)
    .where(and(eq(temporaryRestores.state, "ended"), gte(temporaryRestores.endedAt, since_ms)))
    .all()
    .map((row) => ({ ...row, jobs: row.affected.map(({ job }) => job) }));
  return (isolationId) => {
    const own = jobsOf(isolationId).map(({ number }) => number);
    const ends = ended
      .filter((row) => row.isolationId !== isolationId && row.jobs.some((job) => own.includes(job)))
      .flatMap((row) => row.endedAt ?? []);
    return ends.length > 0 ? Math.max(...ends) : null;
  };
}
