import { eq } from "drizzle-orm";
import type { IsolationFacts } from "../../core/isolation/isolation";
import { profileOf } from "../../core/requirement/profiles";
import { governsOf, timeOf } from "../../core/schedule/stepTime";
import type { Setup } from "../../core/schedule/setup";
import { workOf } from "../../core/schedule/stepWork";
import type { Tx } from "../db/database";
import { isolations, jobIsolations, jobs } from "../db/schema";
import { plantAt } from "../plant/plantStore";

/** A hose that nobody wrote down may not be there: what cannot be over sooner is what is held against a step. */
const LEAST: Setup = { drainHose_m: 0 };

type Row = Pick<typeof isolations.$inferSelect, "id" | "plan" | "plantRevision" | "ruleProfile">;

/**
 * How long a step of an isolation lasts, as its job's timeline says it: the same sums, on the register that it was planned
 * on and with the job's set-up of now. Cost: nothing before it is asked; then a look at the job.
 */
export function waitOf(tx: Tx, row: Row): IsolationFacts["waitOf"] {
  return (step) => {
    const job = tx
      .select({ setup: jobs.setup })
      .from(jobIsolations)
      .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
      .where(eq(jobIsolations.isolationId, row.id))
      .get();
    const governs = governsOf(profileOf(row.ruleProfile));
    const [work] = workOf([step], row.plan, plantAt(tx, row.plantRevision).graph);
    const times = (work?.waits ?? []).map((wait) => timeOf(wait, { ...LEAST, ...job?.setup }, governs));
    const said = times.flatMap(({ never, because, assumed }) => [
      ...(never === null ? [] : [`No figure: ${never}.`]),
      ...(because === null ? [] : [because]),
      ...assumed.map((one) => `${one}.`),
    ]);
    return {
      least_s: times.reduce((sum, { duration_s }) => sum + duration_s, 0),
      because: said.length === 0 ? null : said.join(" "),
      isAssumed: times.length === 0 || times.some(({ never, assumed }) => never !== null || assumed.length > 0),
    };
  };
}
