import { randomUUID } from "node:crypto";
import { and, asc, eq, isNull, notInArray } from "drizzle-orm";
import type { PlannedStep } from "../../core/isolation/steps";
import type { IsolationFacts, IsolationLife, WalkStep } from "../../core/locks/isolationLife";
import type { PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { holds, isolations, items, lockBoxes, permitIsolations, permits, steps } from "../db/schema";
import { namesOf } from "../signIn";
import { boxesOf, lockHangs, locksOn } from "./locks";

export type StoredIsolation = Readonly<{ row: typeof isolations.$inferSelect; life: IsolationLife }>;

export function loadIsolation(tx: Tx, number: string): StoredIsolation | null {
  const row = tx.select().from(isolations).where(eq(isolations.number, number)).get();
  if (row === undefined) return null;
  const walk = tx
    .select()
    .from(steps)
    .where(eq(steps.isolationId, row.id))
    .orderBy(asc(steps.position))
    .all()
    .map((step): WalkStep => {
      const planned = JSON.parse(step.step) as PlannedStep;
      const done =
        step.doneBy === null || step.doneAt === null
          ? null
          : {
              by: step.doneBy as PersonId,
              at_ms: step.doneAt,
              lock: step.lock,
              reading: step.reading === null ? null : Number(step.reading),
              skipped: step.skipped,
            };
      return { ...planned, done };
    });
  return { row, life: { number: row.number, state: row.state, steps: walk } };
}

/** Writes what changed between two states of an isolation: its steps, its holds, its box. */
export function saveIsolation(tx: Tx, before: StoredIsolation, after: IsolationLife, now_ms: number): void {
  const isolationId = before.row.id;
  after.steps.forEach((step, index) => {
    const was = before.life.steps[index];
    if (step.done === null || was?.done) return;
    const { by, at_ms, lock, reading, skipped } = step.done;
    tx.update(steps)
      .set({
        doneBy: by,
        doneAt: at_ms,
        recordedAt: now_ms,
        lock,
        reading: reading === null ? null : String(reading),
        skipped,
      })
      .where(and(eq(steps.isolationId, isolationId), eq(steps.stepId, step.id)))
      .run();
    if (step.kind === "lock" && lock !== null) {
      const item = tx.select({ id: items.id }).from(items).where(eq(items.tag, step.subject)).get();
      if (item === undefined) throw new Error(`${step.subject} is not in the register`);
      tx.insert(holds)
        .values({ id: randomUUID(), isolationId, itemId: item.id, lock, lockedBy: by, lockedAt: at_ms })
        .run();
    }
    if (step.kind === "unlock" && !skipped) {
      const lockedStep = before.life.steps.find((other) => other.kind === "lock" && other.subject === step.subject);
      tx.update(holds)
        .set({ liftedBy: by, liftedAt: at_ms })
        .where(
          and(eq(holds.isolationId, isolationId), eq(holds.lock, lockedStep?.done?.lock ?? ""), isNull(holds.liftedAt)),
        )
        .run();
    }
    if (step.kind === "close box") setBox(tx, isolationId, "closed");
  });
  if (after.state === "restoring" && before.life.state !== "restoring") setBox(tx, isolationId, "open");
  if (after.state === "restored") setBox(tx, isolationId, "returned");
  tx.update(isolations).set({ state: after.state }).where(eq(isolations.id, isolationId)).run();
}

function setBox(tx: Tx, isolationId: string, state: "open" | "closed" | "returned"): void {
  for (const box of boxesOf(tx, [isolationId]))
    tx.update(lockBoxes).set({ state }).where(eq(lockBoxes.id, box.id)).run();
}

/** What the server knows around an isolation, for the core to decide on. */
export function isolationFacts(tx: Tx, isolationId: string): IsolationFacts {
  const boxes = boxesOf(tx, [isolationId]);
  const openPermits = tx
    .select({ number: permits.number })
    .from(permitIsolations)
    .innerJoin(permits, eq(permits.id, permitIsolations.permitId))
    .where(and(eq(permitIsolations.isolationId, isolationId), notInArray(permits.state, ["closed", "cancelled"])))
    .all();
  return {
    lockHangs: lockHangs(tx),
    peopleOn: locksOn(
      tx,
      boxes.map((box) => box.id),
    ).map((lock) => lock.person),
    openPermits: openPermits.map((permit) => permit.number),
    nameOf: namesOf(tx),
  };
}
