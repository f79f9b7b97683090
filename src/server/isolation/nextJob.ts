import type { Problem } from "../../core/plant/problem";
import { planFault } from "../../core/isolation/heldNow";
import { asNow } from "./verdictStore";
import { lockedPoints } from "../../core/isolation/lockedPoints";
import { type Job } from "../../core/request/jobFile";
import type { Tx } from "../db/database";
import { jobOf } from "../job/jobStore";
import type { StoredIsolation } from "./isolationStore";

/** What an isolation with a stuck step is planned for anew: the struck devices out, what hangs pinned in if it can be. */
export function nextJob(tx: Tx, stored: StoredIsolation): Readonly<{ jobId: string; jobNumber: string; job: Job }> {
  const row = jobOf(tx, stored);
  const asked = row.job;
  const inputs = stored.row.inputs;
  const held = lockedPoints(stored.life).map((step) => step.subject);
  const pinned = [...new Set([...asked.pinned, ...held])].filter((tag) => !asked.struck.includes(tag));
  return {
    jobId: row.id,
    jobNumber: row.number,
    job: { ...asked, school: inputs.school, objective: inputs.objective, pinned },
  };
}

/** A step cannot be done, or the plan does not hold on the register of today. */
export function wantsNewPlan({ life, row }: StoredIsolation, today: number): boolean {
  return life.steps.some((step) => step.stuck) || planFault(asNow(row, 0, today))?.code === "plan fell";
}

export function whyNoPlan({ problems }: Readonly<{ problems: readonly Problem[] }>): string {
  return problems[0]?.message ?? "the job no longer fits the plant";
}
