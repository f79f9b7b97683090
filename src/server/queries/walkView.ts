import { desc } from "drizzle-orm";
import { shortfallsNotAccepted } from "../../core/isolation/deviations";
import { profileOf } from "../../core/rules/profiles";
import { nextPlan } from "../acts/replanActs";
import { database } from "../db/database";
import { isolations } from "../db/schema";
import { namesOf } from "../signIn";
import { acceptedFor } from "../store/deviationStore";
import { loadIsolation } from "../store/isolationStore";
import { liveJobs } from "../store/liveJobs";
import { currentPlant } from "../store/plantStore";
import { temporariesOf } from "../store/temporaryStore";
import type { JobView } from "./jobView";

/** The plan that an isolation with a stuck step would go on with, against what hangs now. */
export type ReplanView = Readonly<{
  plantRevision: number;
  /** Why there is no plan; null when there is one. */
  fault: string | null;
  kept: readonly string[];
  added: readonly string[];
  /** They hang and the new plan does not want them: they stay until the return. */
  spare: readonly string[];
  short: readonly Readonly<{ way: string; source: string; face: string; required: string; grade: string }>[];
  objective: string;
  school: string;
  measures: readonly Readonly<{ id: string; words: string }>[];
}>;

/** Null while no step is stuck. */
export function replanView(view: JobView): ReplanView | null {
  const db = database();
  const stored = view.isolation && loadIsolation(db, view.isolation.number);
  const plant = currentPlant(db);
  if (!stored || !plant || !stored.life.steps.some((step) => step.stuck)) return null;
  const next = nextPlan(db, stored, plant);
  const empty = { kept: [], added: [], spare: [], short: [], objective: "effort", school: "work", measures: [] };
  if (!next.ok) return { plantRevision: plant.revision, fault: next.why, ...empty };
  const points = next.plan.points.map(({ device }) => device);
  return {
    plantRevision: plant.revision,
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

export type TemporaryView = Readonly<{
  number: string;
  state: "asked" | "running" | "ended" | "called off";
  purpose: string;
  lift: readonly string[];
  askedBy: string;
  askedAt_ms: number;
  endedAt_ms: number | null;
  affected: readonly Readonly<{
    job: string;
    agreedBy: string | null;
    agreedAt_ms: number | null;
    peopleOn: readonly string[];
    mayAgree: readonly string[];
  }>[];
}>;

/** Temporary restores of the job's isolation, and those of others that reach this job. */
export function temporaryView(view: JobView): TemporaryView[] {
  const db = database();
  if (view.isolation === null) return [];
  const nameOf = namesOf(db);
  const live = liveJobs(db);
  const rows = db
    .select({ id: isolations.id })
    .from(isolations)
    .orderBy(desc(isolations.approvedAt))
    .all()
    .flatMap(({ id }) => temporariesOf(db, id))
    .filter((one) => one.isolation === view.isolation!.number || one.affected.some(({ job }) => job === view.number));
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
