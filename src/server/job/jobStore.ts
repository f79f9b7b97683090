import { eq } from "drizzle-orm";
import type { Tx } from "../db/database";
import { jobIsolations, jobs } from "../db/schema";
import type { StoredIsolation } from "../isolation/isolationStore";

/** The job that an isolation serves. */
export function jobOf(tx: Tx, stored: StoredIsolation) {
  const found = tx
    .select({ job: jobs })
    .from(jobIsolations)
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(eq(jobIsolations.isolationId, stored.row.id))
    .get();
  if (found === undefined) throw new Error(`isolation ${stored.row.number} serves no job`);
  return found.job;
}

/** A device that no plan of the job may count on, or may again. */
export function strike(tx: Tx, stored: StoredIsolation, device: string, out: boolean): void {
  const row = jobOf(tx, stored);
  const { struck, pinned } = row.job;
  const changed = {
    ...row.job,
    struck: out ? [...new Set([...struck, device])] : struck.filter((tag) => tag !== device),
    pinned: pinned.filter((tag) => tag !== device),
  };
  tx.update(jobs).set({ job: changed }).where(eq(jobs.id, row.id)).run();
}
