import { asc, desc, eq } from "drizzle-orm";
import { check } from "../../core/plan/check";
import { clashesOf, type Clash } from "../../core/guard/clashes";
import { compare, type Comparison } from "../../core/plan/compare";
import { plan, type Plan } from "../../core/plan/plan";
import { regionChange, type RegionChange } from "../../core/plan/regionChange";
import type { Route } from "../../core/judge/routes";
import type { Lit } from "../../core/judge/singleFailures";
import { jobSchema, type Job, type School } from "../../core/request/jobFile";
import { nextAct, type NextAct } from "../../core/job/nextAct";
import type { IsolationLife } from "../../core/isolation/isolation";
import { reviewDue_ms, type Review } from "../../core/isolation/review";
import { profileOf } from "../../core/requirement/profiles";
import { peopleOn } from "../../core/permit/record/permitTypes";
import {
  lanternLight,
  lanternScene,
  type LanternExtent,
  type LanternLight,
  type LanternScene,
} from "../../core/lantern/lanternScene";
import { database } from "../db/database";
import { isolationReviews, isolations, jobIsolations, jobs, people, permits } from "../db/schema";
import { namesOf } from "../people/signIn";
import { standingNames } from "../box/boxStore";
import { acceptedFor, type StoredDeviation } from "./deviationStore";
import { liveJobs } from "../isolation/liveJobs";
import { boxesOf, locksOn } from "../box/locks";
import { loadIsolation } from "../isolation/isolationStore";
import { permitsNow } from "../permit/permitFacts";
import { staleOf } from "../isolation/proofStore";
import { currentPlant, plantAt, type CurrentPlant } from "../plant/plantStore";

export type PermitSummary = Readonly<{
  number: string;
  kind: string;
  state: string;
  words: string;
  runOut: boolean;
  validFrom_ms: number;
  validTo_ms: number;
  holder: string;
  holderId: string;
  on: number;
}>;

export type ReviewView = Readonly<{
  since_ms: number;
  due_ms: number;
  overdue: boolean;
  most_h: number;
  reviews: readonly (Review & Readonly<{ by: string }>)[];
}>;

export type JobView = Readonly<{
  id: string;
  number: string;
  title: string;
  work: string;
  state: "open" | "closed";
  windowFrom_ms: number;
  windowTo_ms: number;
  holder: string;
  holderId: string;
  crew: readonly string[];
  crewIds: readonly string[];
  askedBy: string;
  askedAt_ms: number;
  job: Job;
  /** The revision that the plan stands on: pinned once approved, today's before. */
  plantRevision: number;
  plantRevisionNow: number;
  /** Faces that the register no longer has: the job must be asked for again. */
  missingFaces: readonly string[];
  isolation: IsolationLife | null;
  /** Tags of the devices that its locks hang on now. */
  held: readonly string[];
  approvedBy: string | null;
  /** Since when the isolation stands, its looks so far, and the next; null where none stands. */
  review: ReviewView | null;
  /** Proofs that must be done again before anybody goes on, and why. */
  stale: readonly string[];
  boxes: readonly {
    /** Names on the locks that are first on and last off. */
    standing: readonly string[];
    number: string;
    state: string;
    locks: readonly { person: string; lock: string; onAt: number }[];
  }[];
  permits: readonly PermitSummary[];
  next: NextAct | null;
  /** Names of everybody who did a step, by id. */
  nameOf: Readonly<Record<string, string>>;
}>;

/** Everything a job's screens share; null when there is no such job. */
export function jobView(number: string, now_ms: number): JobView | null {
  const db = database();
  const row = db.select().from(jobs).where(eq(jobs.number, number)).get();
  const plant = currentPlant(db);
  if (row === undefined || plant === null) return null;
  const nameOf = namesOf(db);
  const standing = db
    .select({
      id: isolations.id,
      number: isolations.number,
      revision: isolations.plantRevision,
      by: isolations.approvedBy,
      approvedAt: isolations.approvedAt,
      profile: isolations.ruleProfile,
      state: isolations.state,
    })
    .from(jobIsolations)
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(eq(jobIsolations.jobId, row.id))
    .orderBy(desc(isolations.approvedAt), desc(isolations.number))
    .limit(1)
    .get();
  const isolation = standing ? (loadIsolation(db, standing.number)?.life ?? null) : null;
  const numbers = db
    .select({ number: permits.number })
    .from(permits)
    .where(eq(permits.jobId, row.id))
    .orderBy(asc(permits.number))
    .all()
    .map((permit) => permit.number);
  const written = permitsNow(db, numbers, now_ms);
  const review = standing ? reviewOf(standing, now_ms, nameOf) : null;
  const boxes = standing ? boxesOf(db, [standing.id]) : [];
  const job = jobSchema.parse(JSON.parse(row.job));
  const { graph } = standing ? plantAt(db, standing.revision) : plant;
  const crewIds = JSON.parse(row.crew) as string[];
  return {
    id: row.id,
    number: row.number,
    title: row.title,
    work: row.work,
    state: row.state,
    windowFrom_ms: row.windowFrom,
    windowTo_ms: row.windowTo,
    holder: nameOf(row.holderId),
    holderId: row.holderId,
    crew: crewIds.map(nameOf),
    crewIds,
    askedBy: nameOf(row.askedBy),
    askedAt_ms: row.askedAt,
    job,
    missingFaces: job.faces.map((face) => face.place).filter((place) => !graph.places.resolveFace(place).ok),
    plantRevision: standing?.revision ?? plant.revision,
    plantRevisionNow: plant.revision,
    isolation,
    held: standing ? (liveJobs(db).find((live) => live.isolation === standing.number)?.holds ?? []) : [],
    approvedBy: standing ? nameOf(standing.by) : null,
    review,
    stale:
      standing && isolation?.state === "proven" ? staleOf(db, loadIsolation(db, standing.number)!.row, now_ms) : [],
    boxes: boxes.map((box) => ({
      number: box.number,
      state: box.state,
      standing: standingNames(db, [box.id]),
      locks: locksOn(db, [box.id]).map(({ person, lock, onAt }) => ({ person, lock, onAt })),
    })),
    permits: written.map(({ now: life, row: permit }) => ({
      number: life.number,
      kind: life.details.kind,
      state: life.state,
      words: permit.words,
      runOut: life.state === "run out",
      validFrom_ms: life.validFrom_ms,
      validTo_ms: life.validTo_ms,
      holder: nameOf(life.holder),
      holderId: life.holder,
      on: peopleOn(life).length,
    })),
    nameOf: Object.fromEntries(
      (isolation?.steps ?? []).flatMap(({ done, stuck }) =>
        [done?.by, stuck?.by].flatMap((id) => (id ? [[id, nameOf(id)]] : [])),
      ),
    ),
    next: nextAct(
      row,
      isolation,
      written.map(({ now }) => now),
      now_ms,
      review?.due_ms ?? null,
    ),
  };
}

function reviewOf(
  standing: Readonly<{ id: string; approvedAt: number; profile: string; state: string }>,
  now_ms: number,
  nameOf: (id: string) => string,
): ReviewView | null {
  const reviews = database()
    .select()
    .from(isolationReviews)
    .where(eq(isolationReviews.isolationId, standing.id))
    .orderBy(desc(isolationReviews.reviewedAt))
    .all()
    .map((row) => ({ at_ms: row.reviewedAt, next_ms: row.nextAt, reason: row.reason, by: nameOf(row.reviewedBy) }));
  const most_h = profileOf(standing.profile).reviewEvery_h;
  const isolation = { approved_ms: standing.approvedAt, isRestored: standing.state === "restored" };
  const due_ms = reviewDue_ms(isolation, reviews, most_h * 3600);
  return due_ms === null ? null : { since_ms: standing.approvedAt, due_ms, overdue: now_ms >= due_ms, most_h, reviews };
}

export function plantOf(view: JobView): CurrentPlant {
  return plantAt(database(), view.plantRevision);
}

/** The plan as approved, or what it would be under a school. */
export function planOf(view: JobView, school: School): Plan {
  if (view.isolation) return approvedPlan(view.isolation.number);
  const job = { ...view.job, school };
  const key = `${view.plantRevision} ${JSON.stringify(job)}`;
  const known = plansMade.get(key);
  if (known) return known;
  const made = plan(plantOf(view).graph, job);
  if (!made.ok) throw new Error(`job ${view.number} no longer fits the plant: ${made.problems[0]?.message}`);
  plansMade.set(key, made.value);
  if (plansMade.size > PLANS_KEPT) plansMade.delete(plansMade.keys().next().value!);
  return made.value;
}

/** A plan is a pure function of the plant revision and the job, so the screens may share it. */
const plansMade = new Map<string, Plan>();
const PLANS_KEPT = 60;

function approvedPlan(isolation: string): Plan {
  const row = database()
    .select({ plan: isolations.plan })
    .from(isolations)
    .where(eq(isolations.number, isolation))
    .get();
  if (row === undefined) throw new Error(`isolation ${isolation} is gone`);
  return JSON.parse(row.plan) as Plan;
}

export type LanternView = Readonly<{
  scene: LanternScene;
  /** The light before the first point and after each. */
  frames: readonly (LanternLight & { label: string; isolated: readonly string[] })[];
  /** Frame that stands now on the plant. */
  now: number;
}>;

/** The lantern of a job: one frame for each point, in the order of the walk. */
export function lanternOf(view: JobView, made: Plan, extent?: LanternExtent): LanternView {
  const { graph } = plantOf(view);
  const scene = lanternScene(graph, made, extent);
  const walked = view.isolation?.steps.filter((step) => step.kind === "lock") ?? [];
  const order = view.isolation ? walked.map((step) => step.subject) : made.points.map((point) => point.device);
  const frames = [{ label: "nothing isolated", isolated: [] as string[], ...lanternLight(graph, scene, []) }];
  order.forEach((tag, index) => {
    const isolated = order.slice(0, index + 1);
    frames.push({ label: `${tag} isolated`, isolated, ...lanternLight(graph, scene, isolated) });
  });
  const locked = order.filter((tag) => view.held.includes(tag));
  if (view.isolation && !order.slice(0, locked.length).every((tag) => locked.includes(tag))) {
    // Worked by several people at once, or half restored: what stands now is a frame of its own.
    frames.push({ label: "as it stands now", isolated: locked, ...lanternLight(graph, scene, locked) });
    return { scene, frames, now: frames.length - 1 };
  }
  return { scene, frames, now: view.isolation ? locked.length : 0 };
}

/** The plans to choose from, laid side by side. Kept like a plan is. */
export function comparisonOf(view: JobView): { comparison: Comparison; plans: readonly Plan[] } {
  const key = `${view.plantRevision} ${JSON.stringify(view.job)}`;
  const known = comparisonsMade.get(key);
  if (known) return known;
  const made = compare(plantOf(view).graph, view.job);
  if (!made.ok) throw new Error(`job ${view.number} no longer fits the plant: ${made.problems[0]?.message}`);
  comparisonsMade.set(key, made.value);
  if (comparisonsMade.size > PLANS_KEPT) comparisonsMade.delete(comparisonsMade.keys().next().value!);
  return made.value;
}

const comparisonsMade = new Map<string, { comparison: Comparison; plans: readonly Plan[] }>();

/** How a standing plan fares on today's register: what changed near it, and what its points would no longer hold. */
export type Staleness = Readonly<{ change: RegionChange; lit: readonly Lit[]; short: readonly Route[] }>;

/** Null when the register is the one that the plan was made on, or nothing near it has changed. */
export function stalenessOf(view: JobView, made: Plan): Staleness | null {
  const today = currentPlant(database());
  if (today === null || today.revision === view.plantRevision) return null;
  const named = [
    ...made.points.map((point) => point.device),
    ...made.routes.flatMap((route) => [route.face, ...route.via]),
    ...made.darkZone.places,
  ];
  const change = regionChange(plantOf(view).graph, today.graph, named);
  if (change.added.length + change.removed.length + change.changed.length === 0) return null;
  const devices = made.points.map((point) => point.device);
  const known = devices.filter((tag) => today.graph.itemByTag.has(tag));
  const checked = check(today.graph, { ...view.job, isolated: known });
  if (!checked.ok) return { change, lit: [], short: [] };
  const before = new Map(made.routes.map((route) => [`${route.source} ${route.carrier} ${route.face}`, route.depth]));
  return {
    change,
    lit: checked.value.lit,
    short: checked.value.routes.filter(
      (route) => route.depth < (before.get(`${route.source} ${route.carrier} ${route.face}`) ?? route.required),
    ),
  };
}

/** Deviations accepted for a job, oldest first. */
export function deviationsOf(view: JobView): readonly StoredDeviation[] {
  return acceptedFor(database(), view.id);
}

/** Devices that one job stops and another needs passing, this job among them. */
export function clashesFor(view: JobView, made: Plan): readonly Clash[] {
  const others = liveJobs(database())
    .filter(({ number }) => number !== view.number)
    .map(({ number, job, holds }) => ({ number, points: holds, mustPass: job.mustPass }));
  const own = { number: view.number, points: made.points.map((point) => point.device), mustPass: view.job.mustPass };
  return clashesOf([own, ...others]).filter((clash) => [clash.stoppedBy, clash.neededBy].includes(view.number));
}

/** Other jobs that hold devices of this plan: a shared lock comes off only when the last job has released it. */
export function sharedWith(view: JobView, made: Plan): { device: string; jobs: readonly string[] }[] {
  const live = liveJobs(database()).filter(({ number }) => number !== view.number);
  return made.points.flatMap(({ device }) => {
    const jobs = live.filter(({ holds }) => holds.includes(device)).map(({ number }) => number);
    return jobs.length > 0 ? [{ device, jobs }] : [];
  });
}

/** Names for choosing a holder and a crew. */
export function peopleToChoose() {
  return database()
    .select({ id: people.id, name: people.name, roles: people.roles })
    .from(people)
    .where(eq(people.active, true))
    .orderBy(asc(people.name))
    .all()
    .map(({ id, name, roles }) => ({ id, name, roles: JSON.parse(roles) as string[] }));
}
