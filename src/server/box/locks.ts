import { and, eq, inArray, isNull } from "drizzle-orm";
import type { Tx } from "../db/database";
import { boxIsolations, holds, isolations, items, lockBoxes, people, personalLocks, standingLocks } from "../db/schema";

/** Where a lock hangs now, in words; undefined when it is free. Cost: three indexed look-ups. */
export function lockHangs(tx: Tx): (lock: string) => string | undefined {
  return (lock) => {
    const onPoint = tx
      .select({ tag: items.tag, isolation: isolations.number })
      .from(holds)
      .innerJoin(items, eq(items.id, holds.itemId))
      .innerJoin(isolations, eq(isolations.id, holds.isolationId))
      .where(and(eq(holds.lock, lock), isNull(holds.liftedAt)))
      .get();
    if (onPoint) return `on ${onPoint.tag}, isolation ${onPoint.isolation}`;
    const onBox = tx
      .select({ box: lockBoxes.number, point: personalLocks.point, name: people.name })
      .from(personalLocks)
      .innerJoin(lockBoxes, eq(lockBoxes.id, personalLocks.boxId))
      .innerJoin(people, eq(people.id, personalLocks.personId))
      .where(and(eq(personalLocks.lock, lock), isNull(personalLocks.offAt)))
      .get();
    if (onBox) return `on ${onBox.point || `box ${onBox.box}`}, hung by ${onBox.name}`;
    const standing = tx
      .select({ box: lockBoxes.number, name: people.name })
      .from(standingLocks)
      .innerJoin(lockBoxes, eq(lockBoxes.id, standingLocks.boxId))
      .innerJoin(people, eq(people.id, standingLocks.personId))
      .where(and(eq(standingLocks.lock, lock), isNull(standingLocks.offAt)))
      .get();
    return standing && `on box ${standing.box}, for ${standing.name}`;
  };
}

export function boxesOf(tx: Tx, isolationIds: readonly string[]) {
  if (isolationIds.length === 0) return [];
  return tx
    .select({
      id: lockBoxes.id,
      number: lockBoxes.number,
      state: lockBoxes.state,
      isolationId: boxIsolations.isolationId,
    })
    .from(boxIsolations)
    .innerJoin(lockBoxes, eq(lockBoxes.id, boxIsolations.boxId))
    .where(inArray(boxIsolations.isolationId, [...isolationIds]))
    .all();
}

/** Personal locks that hang on these boxes now, in the order they were hung. */
export function locksOn(tx: Tx, boxIds: readonly string[]) {
  if (boxIds.length === 0) return [];
  return tx
    .select({
      person: people.name,
      personId: personalLocks.personId,
      lock: personalLocks.lock,
      point: personalLocks.point,
      permitId: personalLocks.permitId,
      onAt: personalLocks.onAt,
      boxId: personalLocks.boxId,
    })
    .from(personalLocks)
    .innerJoin(people, eq(people.id, personalLocks.personId))
    .where(and(inArray(personalLocks.boxId, [...boxIds]), isNull(personalLocks.offAt)))
    .orderBy(personalLocks.onAt)
    .all();
}
