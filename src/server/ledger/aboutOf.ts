import { eq } from "drizzle-orm";
import type { Tx } from "../db/database";
import { isolations, jobIsolations, jobs, permits } from "../db/schema";

/** What an act was about, with the jobs that stand behind it: the pages that show it. */
export function aboutOf(tx: Tx, ...named: readonly unknown[]): string[] {
  const numbers = named.filter((one): one is string => typeof one === "string" && /^[JPSBM]-\d+$/.test(one));
  const behind = numbers.flatMap((number) => {
    if (number.startsWith("P-")) {
      return tx
        .select({ number: jobs.number })
        .from(permits)
        .innerJoin(jobs, eq(jobs.id, permits.jobId))
        .where(eq(permits.number, number))
        .all();
    }
    if (number.startsWith("S-")) {
      return tx
        .select({ number: jobs.number })
        .from(isolations)
        .innerJoin(jobIsolations, eq(jobIsolations.isolationId, isolations.id))
        .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
        .where(eq(isolations.number, number))
        .all();
    }
    return [];
  });
  return [...new Set([...numbers, ...behind.map(({ number }) => number)])];
}
