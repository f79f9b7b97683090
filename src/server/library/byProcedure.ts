import { eq } from "drizzle-orm";
import type { HazardDecision, JobHazards } from "../../core/hazard/jobHazards";
import { NO_HAZARDS } from "../../core/hazard/jobHazards";
import { differencesOf, type Differences } from "../../core/library/differences";
import type { Plan } from "../../core/plan/plan";
import type { Job } from "../../core/request/jobFile";
import { database, type Db } from "../db/database";
import type { JobView } from "../job/jobView";
import { isolations, jobs } from "../db/schema";
import { hazardsOn } from "../hazard/hazardStore";
import { plantAt, plantKey, type CurrentPlant } from "../plant/plantStore";
import { heavy } from "../runtime/workers";
import { loadVersion, type StoredVersion } from "./procedureStore";

type JobRow = Parameters<typeof hazardsOn>[0];

/** How a job fares by its procedure on a register: the version, and what is otherwise. */
export type ByProcedure = Readonly<{ version: StoredVersion; differences: Differences }>;

/**
 * The procedure by which a job was asked for, judged on a register for the plan that is shown; null where it was asked for by
 * none. Cost: a check, in a thread.
 */
export async function byProcedure(
  db: Db,
  row: JobRow,
  p: Readonly<{ revision: number; job: Job; plan: Plan }>,
): Promise<ByProcedure | null> {
  if (row.procedure === null || row.procedureVersion === null) return null;
  const version = loadVersion(db, row.procedure, row.procedureVersion);
  const plant = plantAt(db, p.revision);
  if (version === null || plant === null) return null;
  const from = db
    .select({ revision: isolations.plantRevision })
    .from(isolations)
    .where(eq(isolations.number, version.content.isolation))
    .get();
  if (from === undefined) return null;
  const file = db.$client.name;
  const [today] = await heavy("judge standing", [
    {
      isolation: version.content.isolation,
      job: p.job,
      before: plantKey(db, file, from.revision),
      after: plantKey(db, file, p.revision),
      held: [...version.content.points],
    },
  ]);
  const now = hazardsOn(row, plant);
  const points = p.plan.points.map(({ device }) => device);
  return {
    version,
    differences: differencesOf(version.content, {
      today: today!,
      points,
      proposed: now.proposed,
      required: now.required,
      job: p.job,
    }),
  };
}

/** The same for a job's page, on the newest register; null where it was asked for by no procedure. */
export async function procedureToday(view: JobView, plan: Plan): Promise<ByProcedure | null> {
  const db = database();
  const row = db.select().from(jobs).where(eq(jobs.number, view.number)).get();
  return row === undefined ? null : byProcedure(db, row, { revision: view.plantRevisionNow, job: view.job, plan });
}

/** The points of a procedure that the register still has as devices: they are included in today's plan. */
export function pointsToInclude({ graph }: CurrentPlant, version: StoredVersion): string[] {
  return version.content.points.filter(
    (tag) => graph.plant.items[graph.itemByTag.get(tag) ?? -1]?.device !== undefined,
  );
}

/**
 * What was decided in a procedure of the hazards that are proposed today in the same words, as decisions of whoever asks by
 * it. What is new stays open, and weather is asked each day.
 */
export function decidedBy(
  row: JobRow,
  plant: CurrentPlant,
  version: StoredVersion,
  said: Readonly<{ by: string; at_ms: number }>,
): JobHazards {
  const { proposed } = hazardsOn(row, plant);
  const source = `${version.life.number} version ${version.life.version}`;
  const asNow = (one: HazardDecision): HazardDecision => ({
    ...one,
    ...said,
    reason: [one.reason, `as ${source}`].filter(Boolean).join("; "),
  });
  const isProposed = (one: HazardDecision) => proposed.some(({ id, hazard }) => id === one.id && hazard === one.hazard);
  const taken = version.content.hazards.filter((one) => one.verdict === "added" || isProposed(one));
  return { ...NO_HAZARDS, decisions: taken.map(asNow) };
}
