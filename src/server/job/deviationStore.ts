import { asc, sql } from "drizzle-orm";
import { standInsOf, type Accepted, type StandIn } from "../../core/plan/deviations";
import type { Plan } from "../../core/plan/plan";
import { profileOf } from "../../core/requirement/profiles";
import { isAmong, listed } from "../db/isAmong";
import type { Tx } from "../db/database";
import { deviations } from "../db/schema";
import { question } from "../db/question";
import { grouped } from "../runtime/grouped";
import { namesOf } from "../people/signIn";

export type StoredDeviation = Accepted & Readonly<{ reason: string; by: string; at_ms: number; until_ms: number }>;

/** Every deviation accepted for a job, oldest first. */
export function acceptedFor(tx: Tx, jobId: string): readonly StoredDeviation[] {
  return acceptedForAll(tx, [jobId])(jobId);
}

/** What was accepted in place of the barriers that this plan lacks, as work. */
export function standInsFor(tx: Tx, jobId: string, plan: Pick<Plan, "shortfalls" | "profile">): StandIn[] {
  return standInsOf(plan, acceptedFor(tx, jobId), profileOf(plan.profile));
}

const deviationsOf = question((tx) =>
  tx
    .select()
    .from(deviations)
    .where(isAmong(deviations.jobId, sql.placeholder("jobs")))
    .orderBy(asc(deviations.acceptedAt))
    .prepare(),
);

/** The same for many jobs at once. Cost: two queries, however many. */
export function acceptedForAll(tx: Tx, jobIds: readonly string[]): (jobId: string) => readonly StoredDeviation[] {
  if (jobIds.length === 0) return () => [];
  const nameOf = namesOf(tx);
  const rows = deviationsOf(tx)
    .all({ jobs: listed(jobIds) })
    .map((row) => ({
      jobId: row.jobId,
      way: row.way,
      requiredGrade: row.requiredGrade,
      acceptedGrade: row.acceptedGrade,
      acceptedDepth: row.acceptedDepth,
      measures: row.measures,
      reason: row.reason,
      by: nameOf(row.acceptedBy),
      at_ms: row.acceptedAt,
      until_ms: row.until,
    }));
  return grouped(rows, ({ jobId }) => jobId);
}
