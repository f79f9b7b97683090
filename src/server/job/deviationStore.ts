import { asc, eq } from "drizzle-orm";
import type { Accepted } from "../../core/plan/deviations";
import type { Tx } from "../db/database";
import { deviations } from "../db/schema";
import { namesOf } from "../people/signIn";

export type StoredDeviation = Accepted & Readonly<{ reason: string; by: string; at_ms: number }>;

/** Every deviation accepted for a job, oldest first. */
export function acceptedFor(tx: Tx, jobId: string): StoredDeviation[] {
  const nameOf = namesOf(tx);
  return tx
    .select()
    .from(deviations)
    .where(eq(deviations.jobId, jobId))
    .orderBy(asc(deviations.acceptedAt))
    .all()
    .map((row) => ({
      way: row.way,
      requiredGrade: row.requiredGrade,
      acceptedGrade: row.acceptedGrade,
      acceptedDepth: row.acceptedDepth,
      measures: JSON.parse(row.measures) as string[],
      reason: row.reason,
      by: nameOf(row.acceptedBy),
      at_ms: row.acceptedAt,
    }));
}
