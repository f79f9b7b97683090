import { desc, eq } from "drizzle-orm";
import type { OnNewPlant } from "../../core/plan/onNewPlant";
import { database } from "../db/database";
import { isolations, jobIsolations, jobs } from "../db/schema";
import { plantKey } from "../plant/plantStore";
import { heavy } from "../runtime/workers";
import type { JobView } from "./jobView";

export type LastTime = Readonly<{
  job: string;
  isolation: string;
  /** What was isolated then. */
  points: readonly string[];
  /** The same points on the plant of today, for the work as it is asked for today. */
  today: OnNewPlant;
}>;

/**
 * The isolation of the job that this one repeats, judged anew: on today's register and for today's work, whatever was proved
 * then. Null where it repeats none, the other was never isolated, or this one is planned already. Cost: a check, in a thread.
 */
export async function lastTimeOf(view: JobView): Promise<LastTime | null> {
  if (view.like === null || view.isolation !== null) return null;
  const db = database();
  const row = db
    .select({ number: isolations.number, plan: isolations.plan, revision: isolations.plantRevision })
    .from(isolations)
    .innerJoin(jobIsolations, eq(jobIsolations.isolationId, isolations.id))
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(eq(jobs.number, view.like))
    .orderBy(desc(isolations.approvedAt))
    .limit(1)
    .get();
  if (row === undefined) return null;
  const file = db.$client.name;
  const [today] = await heavy("judge standing", [
    {
      isolation: row.number,
      job: view.job,
      before: plantKey(db, file, row.revision),
      after: plantKey(db, file, view.plantRevisionNow),
      held: null,
    },
  ]);
  return { job: view.like, isolation: row.number, points: row.plan.points.map(({ device }) => device), today: today! };
}
