import { randomUUID } from "node:crypto";
import { and, asc, eq, isNotNull, isNull, ne, or, sql } from "drizzle-orm";
import { gearNumber } from "../../core/gear/gear";
import { planFault } from "../../core/isolation/heldNow";
import type { IsolationFacts, IsolationLife, WalkStep } from "../../core/isolation/isolation";
import type { PersonId } from "../../core/people/roles";
import { profileOf } from "../../core/requirement/profiles";
import { isAmong, listed } from "../db/isAmong";
import { question } from "../db/question";
import type { Tx } from "../db/database";
import {
  earthsOn,
  holds,
  isolations,
  items,
  jobIsolations,
  jobs,
  permitIsolations,
  permits,
  personalLocks,
  steps,
} from "../db/schema";
import { once } from "../runtime/lazily";
import { siteTime } from "../runtime/siteTime";
import { grouped } from "../runtime/grouped";
import { namesOf } from "../people/signIn";
import { standingNames } from "../box/boxStore";
import { earthsOf, earthStands, enterLock, gearLookUp } from "../gear/gearStore";
import { worksAlone } from "./minorStore";
import { waitOf } from "./stepWaits";
import { watchesNow } from "./watching";
import { asNow, revisionToday } from "./verdictStore";
import { leftToDo } from "../../core/permit/record/leftToDo";
import { loadPermits } from "../permit/permitStore";
import { boxesOf, lockHangs, locksOn } from "../box/locks";

export type StoredIsolation = Readonly<{ row: typeof isolations.$inferSelect; life: IsolationLife }>;

export function loadIsolation(tx: Tx, number: string): StoredIsolation | null {
  return loadIsolations(tx, [number])[0] ?? null;
}

/** Isolations by number, in the order of their numbers; unknown ones are left out. Cost: two queries, however many. */
export function loadIsolations(tx: Tx, numbers: readonly string[]): StoredIsolation[] {
  if (numbers.length === 0) return [];
  const rows = byNumber(tx).all({ numbers: listed(numbers) });
  const walkOf = walks(
    tx,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => ({ row, life: { number: row.number, state: row.state, steps: walkOf(row.id) } }));
}

const byNumber = question((tx) =>
  tx
    .select()
    .from(isolations)
    .where(isAmong(isolations.number, sql.placeholder("numbers")))
    .orderBy(asc(isolations.number))
    .prepare(),
);

/** The steps of isolations, each in their order. Cost: one query, however many. */
export function walks(tx: Tx, isolationIds: readonly string[]): (isolationId: string) => readonly WalkStep[] {
  return walksFrom(stepsOf(tx).all({ ids: listed(isolationIds) }));
}

const stepsOf = question((tx) =>
  tx
    .select()
    .from(steps)
    .where(isAmong(steps.isolationId, sql.placeholder("ids")))
    .orderBy(asc(steps.isolationId), asc(steps.position))
    .prepare(),
);

const UNDER_WAY: readonly StoredIsolation["row"]["state"][] = ["isolating", "testing", "restoring"];

/** Only what says what is next: the steps of isolations that are being worked on, and those that are stuck. */
export function walksUnderWay(
  tx: Tx,
  isolationIds: readonly string[],
  /** Their states, where they were read already. */
  known: readonly Readonly<{ id: string; state: StoredIsolation["row"]["state"] }>[] | null = null,
): (isolationId: string) => readonly WalkStep[] {
  const states =
    known ??
    tx
      .select({ id: isolations.id, state: isolations.state })
      .from(isolations)
      .where(isAmong(isolations.id, isolationIds))
      .all();
  const underWay = states.filter(({ state }) => UNDER_WAY.includes(state));
  return walksFrom(
    stepsUnderWay(tx).all({ underWay: listed(underWay.map(({ id }) => id)), all: listed(isolationIds) }),
  );
}

const stepsUnderWay = question((tx) =>
  tx
    .select()
    .from(steps)
    .where(
      or(
        isAmong(steps.isolationId, sql.placeholder("underWay")),
        and(isAmong(steps.isolationId, sql.placeholder("all")), isNotNull(steps.stuck)),
      ),
    )
    .orderBy(asc(steps.isolationId), asc(steps.position))
    .prepare(),
);

/** How many points each isolation has. Cost: one query, however many. */
export function pointCounts(tx: Tx, numbers: readonly string[]): (isolation: string) => number {
  const counts = new Map(
    tx
      .select({
        isolation: isolations.number,
        n: sql<number>`count(DISTINCT json_extract(${steps.step}, '$.subject'))`,
      })
      .from(steps)
      .innerJoin(isolations, eq(isolations.id, steps.isolationId))
      .where(and(isAmong(isolations.number, numbers), eq(sql`json_extract(${steps.step}, '$.kind')`, "unlock")))
      .groupBy(isolations.number)
      .all()
      .map(({ isolation, n }) => [isolation, n]),
  );
  return (isolation) => counts.get(isolation) ?? 0;
}

function walksFrom(rows: readonly (typeof steps.$inferSelect)[]): (isolationId: string) => readonly WalkStep[] {
  const of = grouped(rows, ({ isolationId }) => isolationId);
  return (id) => of(id).map(walkStep);
}

function walkStep(step: typeof steps.$inferSelect): WalkStep {
  const planned = step.step;
  const done =
    step.doneBy === null || step.doneAt === null
      ? null
      : {
          by: step.doneBy as PersonId,
          at_ms: step.doneAt,
          lock: step.lock,
          reading: step.reading === null ? null : Number(step.reading),
          skipped: step.skipped,
          evidence: step.evidence === null ? null : step.evidence,
        };
  const { stuck, failures, begun } = step;
  return {
    ...planned,
    done,
    stuck,
    ...(begun === null ? {} : { begun }),
    ...(failures === null ? {} : { failures }),
  };
}

/** Writes what changed between two states of an isolation: its steps, its holds, its earths. Keys are the box's. */
export function saveIsolation(tx: Tx, before: StoredIsolation, after: IsolationLife, now_ms: number): void {
  const isolationId = before.row.id;
  const were = new Map(before.life.steps.map((step, position) => [step.id, { step, position }]));
  const stay = new Set(after.steps.map(({ id }) => id));
  for (const { id } of before.life.steps) {
    if (stay.has(id)) continue;
    tx.delete(steps)
      .where(and(eq(steps.isolationId, isolationId), eq(steps.stepId, id)))
      .run();
  }
  after.steps.forEach((step, position) => {
    const was = were.get(step.id);
    const row = rowOf(isolationId, step, position, now_ms);
    if (was === undefined) tx.insert(steps).values(row).run();
    else if (was.step !== step || was.position !== position) {
      const { stepId, recordedAt, ...changed } = row;
      tx.update(steps)
        // When it was written down stays, unless it was done anew.
        .set(was.step.done === step.done ? changed : { ...changed, recordedAt })
        .where(and(eq(steps.isolationId, isolationId), eq(steps.stepId, stepId)))
        .run();
    }
  });
  for (const step of newlyDone(before.life, after)) recordHolds(tx, isolationId, step);
  // Every lock was hung, and looked at where that is asked, on the way to being proven: they are read again from then on.
  const isNew = before.life.state === "isolating" && after.state === "proven";
  const { lockCheck } = before.row;
  const read = { faults: [], right_ms: null, crew: [], ...lockCheck, checked_ms: now_ms };
  tx.update(isolations)
    .set({ state: after.state, ...(isNew ? { lockCheck: read } : {}) })
    .where(eq(isolations.id, isolationId))
    .run();
}

/** Steps that were done between two states, the passed over ones left out. */
export function newlyDone(before: IsolationLife, after: IsolationLife): WalkStep[] {
  const doneAt = new Map(before.steps.map((step) => [step.id, step.done?.at_ms]));
  const carried = new Set(before.steps.flatMap((step) => (step.done ? [step.done] : [])));
  return after.steps.filter(
    (step) => step.done && !step.done.skipped && !carried.has(step.done) && doneAt.get(step.id) !== step.done.at_ms,
  );
}

function rowOf(isolationId: string, step: WalkStep, position: number, now_ms: number) {
  const { done, stuck, begun, failures, ...planned } = step;
  return {
    isolationId,
    stepId: step.id,
    position,
    step: planned,
    doneBy: done?.by ?? null,
    doneAt: done?.at_ms ?? null,
    recordedAt: done ? now_ms : null,
    lock: done?.lock ?? null,
    reading: done?.reading == null ? null : String(done.reading),
    skipped: done?.skipped ?? false,
    evidence: done?.evidence ?? null,
    stuck,
    begun: begun ?? null,
    failures: failures ?? null,
  };
}

/** The times of a step, and what else is said of them: nothing else of it, and no hold. */
export function saveStepTimes(tx: Tx, isolationId: string, step: WalkStep): void {
  const { doneAt, evidence, stuck, begun, failures } = rowOf(isolationId, step, 0, 0);
  tx.update(steps)
    .set({ doneAt, evidence, stuck, begun, failures })
    .where(and(eq(steps.isolationId, isolationId), eq(steps.stepId, step.id)))
    .run();
}

/** A lock hung or lifted, an earth on or off. */
function recordHolds(tx: Tx, isolationId: string, step: WalkStep): void {
  const { by, at_ms, lock, evidence } = step.done!;
  if (step.kind === "lock" && lock !== null) {
    // Their own, where they work alone.
    if (step.alone === true) enterLock(tx, lock, by);
    hangLock(tx, { isolationId, tag: step.subject, lock, by, at_ms });
  }
  if (step.kind === "unlock") {
    // Every lock of this isolation there, a second one that came by a conflict among them.
    tx.update(holds)
      .set({ liftedBy: by, liftedAt: at_ms })
      .where(
        and(eq(holds.isolationId, isolationId), eq(holds.itemId, itemIdOf(tx, step.subject)), isNull(holds.liftedAt)),
      )
      .run();
  }
  if (step.kind === "earth") {
    for (const [number, place] of Object.entries(evidence?.earths ?? {})) {
      tx.insert(earthsOn)
        .values({ id: randomUUID(), isolationId, number: gearNumber(number), face: step.subject, place, onAt: at_ms })
        .run();
    }
  }
  if (step.kind === "remove earth") {
    tx.update(earthsOn)
      .set({ offAt: at_ms })
      .where(and(eq(earthsOn.isolationId, isolationId), eq(earthsOn.face, step.subject), isNull(earthsOn.offAt)))
      .run();
  }
}

/** One lock on one point, and its number in the register. Its key is the box's to place: `take key` comes next. */
export function hangLock(
  tx: Tx,
  hung: Readonly<{ isolationId: string; tag: string; lock: string; by: PersonId; at_ms: number }>,
): void {
  enterLock(tx, hung.lock, null);
  tx.insert(holds)
    .values({
      id: randomUUID(),
      isolationId: hung.isolationId,
      itemId: itemIdOf(tx, hung.tag),
      lock: hung.lock,
      lockedBy: hung.by,
      lockedAt: hung.at_ms,
      keyAt: "gone",
    })
    .run();
}

/** Numbers of the other isolations that hold a point, by its tag. Cost: one query, when it is first asked. */
export function heldByOthers(tx: Tx, isolationId: string): (tag: string) => readonly string[] {
  const found = once(() => grouped(otherHolds(tx).all({ isolationId }), ({ tag }) => tag));
  return (tag) => [...new Set(found()(tag).map(({ number }) => number))];
}

const otherHolds = question((tx) =>
  tx
    .select({ tag: items.tag, number: isolations.number })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .innerJoin(isolations, eq(isolations.id, holds.isolationId))
    .where(and(ne(holds.isolationId, sql.placeholder("isolationId")), isNull(holds.liftedAt)))
    .orderBy(asc(isolations.number))
    .prepare(),
);

function itemIdOf(tx: Tx, tag: string): string {
  const item = tx.select({ id: items.id }).from(items).where(eq(items.tag, tag)).get();
  if (item === undefined) throw new Error(`${tag} is not in the register`);
  return item.id;
}

const permitsUnder = question((tx) =>
  tx
    .select({ id: permits.id, number: permits.number, state: permits.state })
    .from(permitIsolations)
    .innerJoin(permits, eq(permits.id, permitIsolations.permitId))
    .where(eq(permitIsolations.isolationId, sql.placeholder("isolationId")))
    .prepare(),
);
const jobUnder = question((tx) =>
  tx
    .select({ number: jobs.number })
    .from(jobIsolations)
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(eq(jobIsolations.isolationId, sql.placeholder("isolationId")))
    .prepare(),
);
const everOn = question((tx) =>
  tx
    .select({ person: personalLocks.personId })
    .from(personalLocks)
    .where(isAmong(personalLocks.permitId, sql.placeholder("permits")))
    .prepare(),
);

/** What the server knows around an isolation, for the core to decide on. */
export function isolationFacts(tx: Tx, row: StoredIsolation["row"]): IsolationFacts {
  const isolationId = row.id;
  const boxIds = boxesOf(tx, [isolationId]).map((box) => box.id);
  const ofPermits = permitsUnder(tx).all({ isolationId });
  const job = jobUnder(tx).get({ isolationId });
  const worked = everOn(tx).all({ permits: listed(ofPermits.map(({ id }) => id)) });
  const earths = earthsOf(tx, isolationId);
  return {
    lockHangs: lockHangs(tx),
    peopleOn: [...new Set(locksOn(tx, boxIds).map((lock) => lock.person))],
    standingOn: standingNames(tx, boxIds),
    openPermits: ofPermits
      .filter(({ state }) => state !== "closed" && state !== "cancelled")
      .map(({ number }) => number),
    workLeft: leftToDo(
      loadPermits(
        tx,
        ofPermits.map(({ number }) => number),
      ).map(({ life }) => life),
    ),
    heldByOthers: heldByOthers(tx, isolationId),
    approvedAt_ms: row.approvedAt,
    timeOf: siteTime,
    waitOf: waitOf(tx, row),
    watches: (person) => watchesNow(tx, person),
    planFell: planFault(asNow(row, 0, revisionToday(tx)))?.code === "plan fell",
    alone: worksAlone(tx, isolationId),
    nameOf: namesOf(tx),
    gear: gearLookUp(tx),
    earthStands: earthStands(tx),
    job: job?.number ?? null,
    earthsAt: (face) => earths.filter((earth) => earth.face === face).map(({ number }) => number),
    crewSize: new Set(worked.map(({ person }) => person)).size,
    leakTest_min: profileOf(row.ruleProfile).leakTest_min,
  };
}
