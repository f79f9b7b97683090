import { eq } from "drizzle-orm";
import { isMinor } from "../../core/minor/minorSteps";
import { shortfallsNotAccepted } from "../../core/plan/deviations";
import { profileOf } from "../../core/requirement/profiles";
import { planned } from "../job/planned";
import { nextJob, wantsNewPlan, whyNoPlan } from "./nextJob";
import { database } from "../db/database";
import { isolations } from "../db/schema";
import { namesOf } from "../people/signIn";
import { acceptedFor } from "../job/deviationStore";
import { worksAlone } from "./minorStore";
import { heldByOthers, loadIsolation } from "./isolationStore";
import { liveJobs } from "./liveJobs";
import { currentPlant } from "../plant/plantStore";
import { temporariesReaching } from "./temporaryStore";
import type { JobView } from "../job/jobView";

/**
 * The plan that an isolation would go on with where a step is stuck or its plan fell, against what hangs now: `spare` hangs
 * and is wanted no more. Null where neither is so.
 */
export async function replanView(view: JobView) {
  const db = database();
  const stored = view.isolation && loadIsolation(db, view.isolation.number);
  const plant = currentPlant(db);
  if (!stored || !plant || !wantsNewPlan(stored, plant.revision)) return null;
  // What is more than one lock is given up and planned in full, see core/isolation.
  if (isMinor(stored.life.steps)) return null;
  const fell = view.planFault?.code === "plan fell";
  const { job, jobId } = nextJob(db, stored);
  const made = await planned(db, plant.revision, job);
  const empty = { kept: [], added: [], spare: [], short: [], objective: "effort", school: "work", measures: [] };
  if (!made.ok) return { plantRevision: plant.revision, fell, fault: whyNoPlan(made), ...empty };
  const next = { plan: made.value, job, jobId };
  const points = next.plan.points.map(({ device }) => device);
  return {
    plantRevision: plant.revision,
    fell,
    fault: null,
    kept: points.filter((tag) => view.held.includes(tag)),
    added: points.filter((tag) => !view.held.includes(tag)),
    spare: view.held.filter((tag) => !points.includes(tag)),
    short: shortfallsNotAccepted(next.plan, acceptedFor(db, next.jobId)).map((one) => ({
      way: `${one.source} ${one.carrier} ${one.face}`,
      source: one.source,
      face: one.face,
      required: one.requiredGrade ?? `${one.required} barriers`,
      grade: one.grade,
    })),
    objective: next.job.objective,
    school: next.job.school,
    measures: profileOf(next.job.profile).measures.map(({ id, words }) => ({ id, words })),
  };
}

/** Numbers of the other isolations that hold a point now, by its tag. */
export function heldElsewhere(isolation: string): (tag: string) => readonly string[] {
  const db = database();
  const stored = loadIsolation(db, isolation);
  return stored === null ? () => [] : heldByOthers(db, stored.row.id);
}

/** Who works alone under a minor isolation; null where others may do its steps. */
export function aloneUnder(isolation: string): string | null {
  const db = database();
  const stored = loadIsolation(db, isolation);
  return stored === null ? null : worksAlone(db, stored.row.id);
}

/** Temporary de-isolations of the job's isolation, and those of others that reach this job. */
export function temporaryView(view: JobView) {
  const db = database();
  if (view.isolation === null) return [];
  const nameOf = namesOf(db);
  const live = liveJobs(db);
  const own = db
    .select({ id: isolations.id })
    .from(isolations)
    .where(eq(isolations.number, view.isolation.number))
    .get();
  const rows = own ? temporariesReaching(db, own.id, view.number) : [];
  return rows.map((one) => ({
    number: one.number,
    state: one.state,
    purpose: one.purpose,
    lift: one.lift,
    askedBy: nameOf(one.askedBy),
    askedAt_ms: one.askedAt_ms,
    endedAt_ms: one.endedAt_ms,
    affected: one.affected.map(({ job, agreedBy, agreedAt_ms }) => ({
      job,
      agreedBy: agreedBy === null ? null : nameOf(agreedBy),
      agreedAt_ms,
      peopleOn: live.filter(({ number }) => number === job).flatMap(({ people }) => people),
      mayAgree: job === view.number ? [view.holderId, ...view.permits.map(({ holderId }) => holderId)] : [],
    })),
  }));
}
