import type { JobState } from "../../core/job/jobLife";
import { asc, eq } from "drizzle-orm";
import type { Clash } from "../../core/guard/clashes";
import { clashesHere } from "./clashesHere";
import type { Plan } from "../../core/plan/plan";
import { type Job } from "../../core/request/jobFile";
import { nextAct, type NextAct } from "../../core/job/nextAct";
import type { IsolationLife } from "../../core/isolation/isolation";
import { leftToDo, type LeftToDo } from "../../core/permit/record/leftToDo";
import { peopleOn } from "../../core/permit/record/permitTypes";
import { standingFault } from "../../core/isolation/heldNow";
import type { NotHeld } from "../../core/refusal/notHeld";
import { isAmong } from "../db/isAmong";
import { database } from "../db/database";
import { jobs, people } from "../db/schema";
import { namesOf } from "../people/signIn";
import { standingByBox, type OverLock } from "../box/boxStore";
import { heldTags } from "../box/heldTags";
import { acceptedFor, type StoredDeviation } from "./deviationStore";
import { liveJobs } from "../isolation/liveJobs";
import { boxesOf, locksOn } from "../box/locks";
import { asNow, isCountedOn } from "../isolation/verdictStore";
import { walks } from "../isolation/isolationStore";
import { grouped } from "../runtime/grouped";
import { staleOfAll } from "../isolation/proofStore";
import { currentPlant, plantAt, plantsAt } from "../plant/plantStore";
import { locksDueOf, looksAt, permitsOf, reviewOf, standingIsolations, type ReviewView } from "./jobParts";

export type { ReviewView };

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

export type JobView = Readonly<{
  id: string;
  number: string;
  title: string;
  work: string;
  state: JobState;
  windowFrom_ms: number;
  windowTo_ms: number;
  holder: string;
  holderId: string;
  crew: readonly string[];
  crewIds: readonly string[];
  askedBy: string;
  askedAt_ms: number;
  /** The number of the job whose request it repeats; null where it was written afresh. */
  like: string | null;
  /** The isolation procedure by which it was asked for. */
  procedure: Readonly<{ number: string; version: number }> | null;
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
  /** Why its plan may not be counted on, on the register of today; null where it may, and where none stands. */
  planFault: NotHeld | null;
  /** Proofs that must be done again before anybody goes on, and why. */
  stale: readonly string[];
  boxes: readonly {
    /** The locks that are first on and last off. */
    standing: readonly OverLock[];
    number: string;
    state: string;
    locks: readonly { person: string; lock: string; onAt: number }[];
  }[];
  permits: readonly PermitSummary[];
  next: NextAct | null;
  /** The locks of its isolation: when they are read again, when they last were, and where one was not found. */
  locks: Readonly<{
    due_ms: number | null;
    checked_ms: number | null;
    missing: readonly string[];
    /** Who of the crew read them all at their points. */
    crew: readonly Readonly<{ name: string; at_ms: number }>[];
  }> | null;
  /** Work that was handed back part done, and what of it is left. */
  left: readonly LeftToDo[];
  /** Names of everybody who did a step, by id. */
  nameOf: Readonly<Record<string, string>>;
}>;

/** Everything a job's screens share; null when there is no such job. */
export function jobView(number: string, now_ms: number): JobView | null {
  return jobViews([number], now_ms)[0] ?? null;
}

/**
 * The same for many jobs, in the order of their numbers; `stepsOf` says which steps of their isolations are wanted, where
 * not all. Cost: a bounded number of queries, however many.
 */
export function jobViews(numbers: readonly string[], now_ms: number, stepsOf = walks): JobView[] {
  const db = database();
  const plant = currentPlant(db);
  if (plant === null || numbers.length === 0) return [];
  const rows = db.select().from(jobs).where(isAmong(jobs.number, numbers)).orderBy(asc(jobs.number)).all();
  const nameOf = namesOf(db);
  const jobIds = rows.map(({ id }) => id);
  const standing = standingIsolations(db, jobIds);
  const isolationIds = [...new Set([...standing.values()].map(({ id }) => id))];
  const walkOf = stepsOf(db, isolationIds);
  const written = permitsOf(db, jobIds, now_ms);
  const reviewsOf = looksAt(db, isolationIds);
  const boxes = boxesOf(db, isolationIds);
  const boxOf = grouped(boxes, ({ isolationId }) => isolationId);
  const boxIds = [...new Set(boxes.map(({ id }) => id))];
  const standingOn = standingByBox(db, boxIds);
  const locksAt = grouped(locksOn(db, boxIds), ({ boxId }) => boxId);
  const held = heldTags(db, isolationIds);
  const proven = [...standing.values()].filter(({ state }) => state === "proven");
  const stale = staleOfAll(db, proven, now_ms);
  const planned = plantsAt(db, plant);
  return rows.map((row): JobView => {
    const stands = standing.get(row.id);
    const isolation: IsolationLife | null = stands
      ? { number: stands.number, state: stands.state, steps: walkOf(stands.id) }
      : null;
    const own = written(row.id);
    const review = stands ? reviewOf(stands, reviewsOf(stands.id), now_ms, nameOf) : null;
    const job = row.job;
    const { graph } = planned(stands?.plantRevision ?? plant.revision);
    const crewIds = row.crew;
    const fault = stands && isCountedOn(stands.state) ? standingFault(asNow(stands, 0, plant.revision)) : null;
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
      like: row.like,
      procedure:
        row.procedure === null || row.procedureVersion === null
          ? null
          : { number: row.procedure, version: row.procedureVersion },
      job,
      missingFaces: job.faces.map((face) => face.place).filter((place) => !graph.places.resolveFace(place).ok),
      plantRevision: stands?.plantRevision ?? plant.revision,
      plantRevisionNow: plant.revision,
      isolation,
      held: stands ? held(stands.id) : [],
      approvedBy: stands ? nameOf(stands.approvedBy) : null,
      review,
      planFault: fault,
      stale: stands?.state === "proven" ? stale(stands.id) : [],
      boxes: (stands ? boxOf(stands.id) : []).map((box) => ({
        number: box.number,
        state: box.state,
        standing: standingOn(box.id),
        locks: locksAt(box.id).map(({ person, lock, onAt }) => ({ person, lock, onAt })),
      })),
      permits: own.map(({ life, words }) => ({
        number: life.number,
        kind: life.details.kind,
        state: life.state,
        words,
        runOut: life.state === "run out",
        validFrom_ms: life.validFrom_ms,
        validTo_ms: life.validTo_ms,
        holder: nameOf(life.holder),
        holderId: life.holder,
        on: peopleOn(life).length,
      })),
      nameOf: Object.fromEntries(
        (isolation?.steps ?? []).flatMap(({ done, stuck, failures = [] }) =>
          [done?.by, stuck?.by, ...failures.flatMap(({ by, inError }) => [by, inError?.by])].flatMap((id) =>
            id ? [[id, nameOf(id)]] : [],
          ),
        ),
      ),
      locks: stands
        ? {
            due_ms: locksDueOf(stands),
            checked_ms: stands.lockCheck?.checked_ms ?? null,
            missing: stands.lockCheck?.faults.map(({ point }) => point) ?? [],
            crew: stands.lockCheck?.crew.map(({ person, at_ms }) => ({ name: nameOf(person), at_ms })) ?? [],
          }
        : null,
      left: leftToDo(own.map(({ life }) => life)),
      next: nextAct(
        row,
        isolation,
        own.map(({ life }) => life),
        now_ms,
        review?.due_ms ?? null,
        fault,
        stands ? locksDueOf(stands) : null,
      ),
    };
  });
}

/** Deviations accepted for a job, oldest first. */
export function deviationsOf(view: JobView): readonly StoredDeviation[] {
  return acceptedFor(database(), view.id);
}

/** Devices that one job stops and another needs passing, this job among them. */
export function clashesFor(view: JobView, made: Plan): readonly Clash[] {
  const db = database();
  return clashesHere(
    db,
    { number: view.number, mustPass: view.job.mustPass },
    made,
    plantAt(db, view.plantRevision).graph,
  );
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
    .map(({ id, name, roles }) => ({ id, name, roles: roles }));
}
