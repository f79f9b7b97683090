import { and, desc, eq, ne, or } from "drizzle-orm";
import type { Calculation } from "../../core/calc/calculation";
import type { Plan } from "../../core/plan/plan";
import { stepsOf } from "../../core/procedure/sequence";
import type { PlannedStep } from "../../core/procedure/steps";
import { pickList, type PickLine } from "../../core/kit/pickList";
import { profileOf } from "../../core/requirement/profiles";
import type { Setup } from "../../core/schedule/setup";
import { setupSchema } from "../../core/schedule/setupSchema";
import { timeOf, type WaitTime } from "../../core/schedule/stepTime";
import type { TimelineModel } from "../../core/schedule/timeline";
import { timelineModel } from "../../core/schedule/timelineModel";
import { database } from "../db/database";
import { figures, isolations, jobIsolations, jobs, permits, steps as stepsTable, stock } from "../db/schema";
import { shiftChanges } from "../runtime/siteTime";
import { namesOf } from "../people/signIn";
import { plantAt } from "../plant/plantStore";
import { acceptedFor, standInsFor } from "../job/deviationStore";
import { type JobView } from "../job/jobView";
import { plantOf } from "../job/plans";

/** A job's set-up as stored. */
export function setupOf(view: JobView): Setup {
  const row = database().select({ setup: jobs.setup }).from(jobs).where(eq(jobs.id, view.id)).get();
  return setupSchema.parse(row?.setup ?? {});
}

/** The steps of a job: those being walked, or those its plan would have. */
export function stepsFor(view: JobView, plan: Plan): readonly PlannedStep[] {
  return (
    view.isolation?.steps ?? stepsOf(plan, plantOf(view).graph, view.job.faces, standInsFor(database(), view.id, plan))
  );
}

/** What the job's timeline is made of, steps that are done left out. */
export function timelineModelOf(view: JobView, plan: Plan): TimelineModel {
  return timelineModel({
    graph: plantOf(view).graph,
    plan,
    job: view.job,
    profile: profileOf(view.job.profile),
    steps: stepsFor(view, plan),
    window: { from_ms: view.windowFrom_ms, to_ms: view.windowTo_ms },
    accepted: acceptedFor(database(), view.id),
    isRestoring: view.isolation?.state === "restoring" || view.isolation?.state === "restored",
    shifts_ms: shiftChanges(view.windowFrom_ms - AROUND_MS, view.windowTo_ms + AROUND_MS),
  });
}

/** What one step takes, for whoever is about to do it. */
export type StepTakes = Readonly<{ hands_s: number; waits: readonly WaitTime[] }>;

export function stepTimes(view: JobView, plan: Plan): ReadonlyMap<string, StepTakes> {
  const model = timelineModelOf(view, plan);
  const setup = setupOf(view);
  return new Map(
    [...model.isolate, ...model.restore].map(({ id, work }) => [
      id,
      { hands_s: work.hands_s, waits: work.waits.map((wait) => timeOf(wait, setup, model.governs)) },
    ]),
  );
}

/** A start that is dragged, or a window that is too short, reaches this far outside the window. */
const AROUND_MS = 3 * 86_400_000;

/** A line of the pick list with what the store has of it, and what other isolations that stand have taken. */
export type KitLine = PickLine &
  Readonly<{
    /** Null: nobody has counted it. */
    inStore: number | null;
    inUse: number;
    usedBy: readonly string[];
    /** How many are missing; null when nobody has counted them. */
    short: number | null;
  }>;

/** Cost: a pick list for each isolation that stands. */
export function kitOf(view: JobView, plan: Plan, setup: Setup): KitLine[] {
  const own = pickList(plan, stepsFor(view, plan), plantOf(view).graph, setup);
  const counted = new Map(
    database()
      .select()
      .from(stock)
      .all()
      .map((row) => [keyOf(row), row.count]),
  );
  const elsewhere = takenElsewhere(view.isolation?.number ?? null);
  return own.map((line) => {
    const inStore = counted.get(keyOf(line)) ?? null;
    const used = elsewhere.get(keyOf(line)) ?? { count: 0, by: [] };
    const short = inStore === null ? null : Math.max(0, line.count - (inStore - used.count));
    return { ...line, inStore, inUse: used.count, usedBy: used.by, short };
  });
}

const keyOf = ({ thing, size }: Readonly<{ thing: string; size: string }>) => `${thing}|${size}`;

/** What the other isolations that are not restored have out, by thing and size, with their jobs. */
function takenElsewhere(own: string | null): ReadonlyMap<string, { count: number; by: string[] }> {
  const db = database();
  const standing = db
    .select({
      isolation: isolations.number,
      id: isolations.id,
      plan: isolations.plan,
      revision: isolations.plantRevision,
      job: jobs.number,
      setup: jobs.setup,
    })
    .from(isolations)
    .innerJoin(jobIsolations, eq(jobIsolations.isolationId, isolations.id))
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(and(ne(isolations.state, "restored"), own === null ? undefined : ne(isolations.number, own)))
    .all();
  const taken = new Map<string, { count: number; by: string[] }>();
  // Two jobs on one isolation take its things once.
  for (const row of new Map(standing.map((one) => [one.isolation, one])).values()) {
    const walked = db
      .select({ step: stepsTable.step })
      .from(stepsTable)
      .where(eq(stepsTable.isolationId, row.id))
      .all()
      .map(({ step }) => step);
    const { graph } = plantAt(db, row.revision);
    const lines = pickList(row.plan, walked, graph, row.setup);
    for (const line of lines) {
      const sum = taken.get(keyOf(line)) ?? { count: 0, by: [] };
      taken.set(keyOf(line), { count: sum.count + line.count, by: [...sum.by, row.job] });
    }
  }
  return taken;
}

/** Everything in the store, as last counted. */
export function storeLines() {
  const db = database();
  const nameOf = namesOf(db);
  return db
    .select()
    .from(stock)
    .orderBy(stock.thing, stock.size)
    .all()
    .map(({ countedBy, ...row }) => ({ ...row, countedBy: nameOf(countedBy) }));
}

export type AttachedFigure = Readonly<{
  id: string;
  calculator: string;
  inputs: Readonly<Record<string, unknown>>;
  calculation: Calculation;
  note: string;
  by: string;
  at_ms: number;
}>;

/** Figures attached to a job or to one of its permits, or to one permit alone; the newest first. */
export function figuresFor(of: { jobId: string } | { permit: string }): AttachedFigure[] {
  const db = database();
  const nameOf = namesOf(db);
  const which =
    "jobId" in of ? or(eq(figures.jobId, of.jobId), eq(permits.jobId, of.jobId)) : eq(permits.number, of.permit);
  return db
    .select({ figure: figures })
    .from(figures)
    .leftJoin(permits, eq(permits.id, figures.permitId))
    .where(which)
    .orderBy(desc(figures.attachedAt))
    .all()
    .map(({ figure }) => ({
      id: figure.id,
      calculator: figure.calculator,
      inputs: figure.inputs,
      calculation: figure.calculation,
      note: figure.note,
      by: nameOf(figure.attachedBy),
      at_ms: figure.attachedAt,
    }));
}

/** Open jobs and permits, to choose from when a figure is attached. */
export function attachTargets(): readonly { number: string; words: string }[] {
  const db = database();
  const open = db.select({ number: jobs.number, words: jobs.title }).from(jobs).where(eq(jobs.state, "open")).all();
  const live = db
    .select({ number: permits.number, words: permits.words })
    .from(permits)
    .where(and(ne(permits.state, "closed"), ne(permits.state, "cancelled")))
    .all();
  return [...open, ...live];
}
