import { and, desc, eq, inArray, ne } from "drizzle-orm";
import type { Tx } from "../db/database";
import { isolations, jobIsolations, jobs, temporaryRestores } from "../db/schema";

/** A job that a temporary restore would light or leave with fewer barriers, and who agreed for it. */
export type Affected = Readonly<{ job: string; agreedBy: string | null; agreedAt_ms: number | null }>;

export type TemporaryRestore = Readonly<{
  id: string;
  number: string;
  isolationId: string;
  isolation: string;
  state: "asked" | "running" | "ended" | "called off";
  purpose: string;
  lift: readonly string[];
  affected: readonly Affected[];
  askedBy: string;
  askedAt_ms: number;
  startedAt_ms: number | null;
  endedAt_ms: number | null;
}>;

function rows(tx: Tx) {
  return tx
    .select({ row: temporaryRestores, isolation: isolations.number })
    .from(temporaryRestores)
    .innerJoin(isolations, eq(isolations.id, temporaryRestores.isolationId))
    .orderBy(desc(temporaryRestores.askedAt));
}

function toTemporary({ row, isolation }: { row: typeof temporaryRestores.$inferSelect; isolation: string }) {
  return {
    id: row.id,
    number: row.number,
    isolationId: row.isolationId,
    isolation,
    state: row.state,
    purpose: row.purpose,
    lift: JSON.parse(row.lift) as string[],
    affected: JSON.parse(row.affected) as Affected[],
    askedBy: row.askedBy,
    askedAt_ms: row.askedAt,
    startedAt_ms: row.startedAt,
    endedAt_ms: row.endedAt,
  } satisfies TemporaryRestore;
}

export function temporaryByNumber(tx: Tx, number: string): TemporaryRestore | null {
  const found = rows(tx)
    .all()
    .find(({ row }) => row.number === number);
  return found ? toTemporary(found) : null;
}

/** All of an isolation, the newest first. */
export function temporariesOf(tx: Tx, isolationId: string): TemporaryRestore[] {
  return rows(tx)
    .all()
    .filter(({ row }) => row.isolationId === isolationId)
    .map(toTemporary);
}

export function saveTemporary(tx: Tx, one: TemporaryRestore): void {
  tx.update(temporaryRestores)
    .set({
      state: one.state,
      affected: JSON.stringify(one.affected),
      startedAt: one.startedAt_ms,
      endedAt: one.endedAt_ms,
    })
    .where(eq(temporaryRestores.id, one.id))
    .run();
}

/** The isolation whose running test may light this job's work; null when none does. */
export function litBy(tx: Tx, job: string): string | null {
  const running = rows(tx)
    .all()
    .map(toTemporary)
    .find((one) => one.state === "running" && one.affected.some((affected) => affected.job === job));
  return running?.isolation ?? null;
}

/** When points that hold the work of this isolation were last locked again after a test; null when they never were. */
export function litUntil_ms(tx: Tx, isolation: Readonly<{ id: string }>): number | null {
  const own = tx
    .select({ number: jobs.number })
    .from(jobIsolations)
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(eq(jobIsolations.isolationId, isolation.id))
    .all()
    .map(({ number }) => number);
  const tests = tx
    .select()
    .from(temporaryRestores)
    .where(and(ne(temporaryRestores.isolationId, isolation.id), inArray(temporaryRestores.state, ["ended"])))
    .all()
    .filter((row) => (JSON.parse(row.affected) as Affected[]).some(({ job }) => own.includes(job)));
  const ends = tests.flatMap((row) => row.endedAt ?? []);
  return ends.length > 0 ? Math.max(...ends) : null;
}
