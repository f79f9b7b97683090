import { and, asc, eq, isNull, ne, notInArray } from "drizzle-orm";
import { guardRelease } from "../../core/guard/guardRelease";
import { gearNumber, isBumped, isDated } from "../../core/gear/gear";
import { standingOn, type BoxLife } from "../../core/box/boxLife";
import { standingFault } from "../../core/isolation/heldNow";
import type { NotHeld } from "../../core/refusal/notHeld";
import { isAmong } from "../db/isAmong";
import { database, type Tx } from "../db/database";
import {
  boxIsolations,
  exchanges,
  holds,
  isolations,
  items,
  jobIsolations,
  jobs,
  lockBoxes,
  people,
  permitIsolations,
  permits,
  personalLocks,
  standingLocks,
} from "../db/schema";
import { namesOf } from "../people/signIn";
import { now_ms } from "../runtime/clock";
import { grouped } from "../runtime/grouped";
import { boxesOut, loadBox, type StoredBox } from "./boxStore";
import { allGear, earthsStanding, gearLookUp } from "../gear/gearStore";
import { staleOfAll } from "../isolation/proofStore";
import { asNow, isCountedOn, revisionToday } from "../isolation/verdictStore";
import { liveJobs } from "../isolation/liveJobs";
import { lockHangs, locksHanging } from "./locks";
import { currentPlant } from "../plant/plantStore";

export type BoxView = Readonly<{
  life: BoxLife;
  jobs: readonly Readonly<{
    number: string;
    title: string;
    isolation: string;
    state: string;
    /** Why nobody may count on its plan on the register of today; null where they may. */
    planFault: NotHeld | null;
    /** Proofs that are done again before anybody goes on, and why. */
    stale: readonly string[];
  }>[];
  permits: readonly Readonly<{ number: string; state: string; lead: string }>[];
  standing: readonly Readonly<{ role: string; lock: string; person: string; personId: string; since_ms: number }>[];
  /** Everybody's own locks in the order they were hung. */
  on: readonly Readonly<{ lock: string; point: string; person: string; permit: string; since_ms: number }>[];
  keys: readonly Readonly<{ lock: string; point: string; at: string; by: string }>[];
}>;

export function boxView(number: string, at_ms = now_ms()): BoxView | null {
  const db = database();
  const box = loadBox(db, { number });
  return box === null ? null : (boxViews(db, [box], at_ms)[0] ?? null);
}

/** Boxes in use, the latest first. Cost: twelve queries, however many. */
export function boxesInUse(at_ms = now_ms()): BoxView[] {
  const db = database();
  return boxViews(db, boxesOut(db), at_ms);
}

function boxViews(db: Tx, boxes: readonly StoredBox[], at_ms: number): BoxView[] {
  if (boxes.length === 0) return [];
  const nameOf = namesOf(db);
  const ids = boxes.map(({ id }) => id);
  const served = db
    .select({
      boxId: boxIsolations.boxId,
      number: jobs.number,
      title: jobs.title,
      isolation: isolations.number,
      state: isolations.state,
      plantRevision: isolations.plantRevision,
      verdict: isolations.verdict,
      lockCheck: isolations.lockCheck,
      id: isolations.id,
      approvedAt: isolations.approvedAt,
      ruleProfile: isolations.ruleProfile,
    })
    .from(boxIsolations)
    .innerJoin(isolations, eq(isolations.id, boxIsolations.isolationId))
    .innerJoin(jobIsolations, eq(jobIsolations.isolationId, isolations.id))
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(isAmong(boxIsolations.boxId, ids))
    .all();
  const today = revisionToday(db);
  const proven = new Map(served.flatMap((one) => (one.state === "proven" ? [[one.id, one] as const] : [])));
  const stale = staleOfAll(db, [...proven.values()], at_ms);
  const servedBy = grouped(served, ({ boxId }) => boxId);
  const permitsOf = grouped(
    db
      .select({
        isolationId: permitIsolations.isolationId,
        number: permits.number,
        state: permits.state,
        holder: permits.holderId,
      })
      .from(permitIsolations)
      .innerJoin(permits, eq(permits.id, permitIsolations.permitId))
      .where(
        and(
          isAmong(permitIsolations.isolationId, [...new Set(served.map(({ id }) => id))]),
          notInArray(permits.state, ["closed", "cancelled"]),
        ),
      )
      .orderBy(asc(permits.number))
      .all(),
    ({ isolationId }) => isolationId,
  );
  const onBox = grouped(
    db
      .select({
        boxId: personalLocks.boxId,
        lock: personalLocks.lock,
        point: personalLocks.point,
        person: personalLocks.personId,
        permit: permits.number,
        since_ms: personalLocks.onAt,
      })
      .from(personalLocks)
      .innerJoin(permits, eq(permits.id, personalLocks.permitId))
      .where(and(isAmong(personalLocks.boxId, ids), isNull(personalLocks.offAt)))
      .orderBy(asc(personalLocks.onAt))
      .all(),
    ({ boxId }) => boxId,
  );
  return boxes.map(({ id, life }) => {
    const jobsServed = servedBy(id);
    const isolationIds = [...new Set(jobsServed.map((one) => one.id))];
    return {
      life,
      jobs: jobsServed.map(
        ({ id: isolationId, number, title, isolation, state, plantRevision, verdict, lockCheck }) => ({
          number,
          title,
          isolation,
          state,
          planFault: isCountedOn(state)
            ? standingFault(asNow({ number: isolation, state, plantRevision, verdict, lockCheck }, 0, today))
            : null,
          stale: proven.has(isolationId) ? stale(isolationId) : [],
        }),
      ),
      permits: isolationIds
        .flatMap((one) => permitsOf(one))
        .map(({ number, state, holder }) => ({ number, state, lead: nameOf(holder) })),
      standing: standingOn(life).map((lock) => ({
        role: lock.role,
        lock: lock.lock,
        person: nameOf(lock.person),
        personId: lock.person,
        since_ms: lock.on_ms,
      })),
      on: onBox(id).map(({ boxId: _, ...one }) => ({ ...one, person: nameOf(one.person) })),
      keys: life.keys.map((key) => ({ lock: key.lock, point: key.point, at: key.at, by: nameOf(key.by) })),
    };
  });
}

export type LockAnswer = Readonly<{
  number: string;
  /** Where it hangs now, in words; null when it hangs nowhere. */
  hangs: string | null;
  owner: string | null;
  by: string | null;
  since_ms: number | null;
  why: string | null;
  job: string | null;
  key: string | null;
  /** What would happen if it came off, in sentences. */
  ifOff: readonly string[];
}>;

/** Whose lock it is, where it hangs, why and since when, and what would happen if it came off. */
export function lockAnswer(asked: string): LockAnswer {
  const db = database();
  const number = gearNumber(asked);
  const nameOf = namesOf(db);
  const entry = gearLookUp(db)("lock", number);
  const base = {
    number,
    hangs: lockHangs(db)(asked.trim()) ?? lockHangs(db)(number) ?? null,
    owner: entry === undefined ? null : entry.owner === null ? "the site" : nameOf(entry.owner),
    by: null,
    since_ms: null,
    why: null,
    job: null,
    key: null,
    ifOff: [],
  };
  const point = db
    .select({
      tag: items.tag,
      by: holds.lockedBy,
      at: holds.lockedAt,
      keyAt: holds.keyAt,
      keyBy: holds.keyBy,
      isolation: isolations.number,
      job: jobs.number,
      title: jobs.title,
      lock: holds.lock,
    })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .innerJoin(isolations, eq(isolations.id, holds.isolationId))
    .innerJoin(jobIsolations, eq(jobIsolations.isolationId, isolations.id))
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(isNull(holds.liftedAt))
    .all()
    .find(({ lock }) => gearNumber(lock) === number);
  if (point) {
    return {
      ...base,
      by: nameOf(point.by),
      since_ms: point.at,
      why: `${point.title}, isolation ${point.isolation}`,
      job: point.job,
      key: point.keyAt === "box" ? "in the box" : `with ${nameOf(point.keyBy ?? point.by)}`,
      ifOff: harmsOf(point.job, point.tag),
    };
  }
  const own = db
    .select({
      lock: personalLocks.lock,
      by: personalLocks.personId,
      at: personalLocks.onAt,
      permit: permits.number,
      job: jobs.number,
    })
    .from(personalLocks)
    .innerJoin(permits, eq(permits.id, personalLocks.permitId))
    .innerJoin(jobs, eq(jobs.id, permits.jobId))
    .where(isNull(personalLocks.offAt))
    .all()
    .find(({ lock }) => gearNumber(lock) === number);
  if (own) {
    const who = nameOf(own.by);
    return {
      ...base,
      by: who,
      since_ms: own.at,
      why: `${who} is signed on to permit ${own.permit}`,
      job: own.job,
      ifOff: [`Nothing would say that ${who} is still there. Only ${who} takes it off.`],
    };
  }
  const standing = db
    .select({ lock: standingLocks.lock, by: standingLocks.personId, at: standingLocks.onAt, box: lockBoxes.number })
    .from(standingLocks)
    .innerJoin(lockBoxes, eq(lockBoxes.id, standingLocks.boxId))
    .where(isNull(standingLocks.offAt))
    .all()
    .find(({ lock }) => gearNumber(lock) === number);
  if (!standing) return base;
  return {
    ...base,
    by: nameOf(standing.by),
    since_ms: standing.at,
    why: `First on and last off at box ${standing.box}`,
    ifOff: [`Box ${standing.box} could be opened once every personal lock is off it.`],
  };
}

/** What lifting one point of one job would do, asked of the plant as it is today. */
function harmsOf(job: string, device: string): string[] {
  const db = database();
  const plant = currentPlant(db);
  if (plant === null) return [];
  const live = liveJobs(db);
  const harms = guardRelease(plant.graph, live, [{ job, device }]);
  const others = live.filter(({ number, holds: held }) => number !== job && held.includes(device));
  const shared = others.map(({ number }) => `Job ${number} has a lock of its own there; it would stay isolated.`);
  if (harms.length === 0) {
    return shared.length > 0 ? shared : ["No work would be lit, nor lose a barrier that it counts on."];
  }
  return harms.map(({ job: number, face, source, depth, grade, people: there }) => {
    const who = there.length > 0 ? `, where ${there.join(", ")} ${there.length === 1 ? "is" : "are"} on` : "";
    return depth === 0
      ? `${source} would reach ${face} of job ${number}${who}.`
      : `${face} of job ${number} would be left with ${depth} ${depth === 1 ? "barrier" : "barriers"}${grade === null ? "" : `, ${grade},`} against ${source}${who}.`;
  });
}

export type GearRow = Readonly<{
  kind: string;
  number: string;
  owner: string;
  key: string | null;
  until_ms: number | null;
  rating_V: number | null;
  error: number | null;
  state: "fit" | "out of date" | "no date" | "to bump" | "withdrawn";
  where: string | null;
}>;

/** The register, each thing with whether it may be used now and where it is. */
export function gearRegister(now_ms: number): GearRow[] {
  const db = database();
  const nameOf = namesOf(db);
  const hangs = locksHanging(db);
  const stands = earthsStanding(db);
  return allGear(db).map((one) => ({
    kind: one.kind,
    number: one.number,
    owner: one.owner === null ? "" : nameOf(one.owner),
    key: one.key,
    until_ms: one.inDateUntil_ms,
    rating_V: one.rating_V,
    error: one.error,
    state: one.withdrawn
      ? "withdrawn"
      : isDated(one.kind) && one.inDateUntil_ms === null
        ? "no date"
        : isDated(one.kind) && one.inDateUntil_ms! <= now_ms
          ? "out of date"
          : one.kind === "gas instrument" && !isBumped(one, now_ms)
            ? "to bump"
            : "fit",
    where:
      (one.kind === "lock"
        ? hangs.get(one.number)
        : one.kind === "portable earth"
          ? stands.get(one.number)
          : undefined) ?? (one.withJob === null ? null : `handed out for ${one.withJob}`),
  }));
}

/** Open jobs, for handing things out. */
export function openJobNumbers(): string[] {
  return database()
    .select({ number: jobs.number })
    .from(jobs)
    .where(eq(jobs.state, "open"))
    .orderBy(asc(jobs.number))
    .all()
    .map(({ number }) => number);
}

/** Contractors among a job's people, and whether procedures were exchanged with their firm. */
export function exchangesOf(jobNumber: string) {
  const db = database();
  const job = db.select().from(jobs).where(eq(jobs.number, jobNumber)).get();
  if (job === undefined) return [];
  const nameOf = namesOf(db);
  const crew = job.crew;
  const contractors = db
    .select({ id: people.id, name: people.name, firm: people.firm })
    .from(people)
    .where(and(ne(people.firm, ""), isAmong(people.id, [...crew, job.holderId])))
    .all();
  const done = db.select().from(exchanges).where(eq(exchanges.jobId, job.id)).all();
  return [...new Set(contractors.map(({ firm }) => firm))].map((firm) => {
    const found = done.find((one) => one.firm === firm);
    return {
      firm,
      people: contractors.filter((one) => one.firm === firm).map(({ id, name }) => ({ id, name })),
      exchanged: found
        ? { ours: found.ours, theirs: found.theirs, lead: nameOf(found.leadId), by: nameOf(found.by), at_ms: found.at }
        : null,
    };
  });
}
