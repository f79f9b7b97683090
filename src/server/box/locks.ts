import { gearNumber } from "../../core/gear/gearNumber";
import { and, desc, eq, isNull, notExists, sql } from "drizzle-orm";
import { isAmong, listed } from "../db/isAmong";
import { question } from "../db/question";
import type { Tx } from "../db/database";
import { grouped } from "../runtime/grouped";
import {
  boxIsolations,
  gear,
  holds,
  isolations,
  items,
  lockBoxes,
  people,
  personalLocks,
  standingLocks,
} from "../db/schema";

/** Where a lock hangs now, in words; undefined when it is free. Cost: three indexed look-ups. */
export function lockHangs(tx: Tx): (lock: string) => string | undefined {
  return (lock) => hangingPlaces(tx, gearNumber(lock)).get(gearNumber(lock));
}

/** Every lock that hangs now and where, in words. Cost: three queries. */
export function locksHanging(tx: Tx): ReadonlyMap<string, string> {
  return hangingPlaces(tx, null);
}

function hangingPlaces(tx: Tx, lock: string | null): Map<string, string> {
  const one = (column: typeof holds.lock | typeof personalLocks.lock | typeof standingLocks.lock) =>
    lock === null ? undefined : eq(column, lock);
  const standing = tx
    .select({ lock: standingLocks.lock, box: lockBoxes.number, name: people.name })
    .from(standingLocks)
    .innerJoin(lockBoxes, eq(lockBoxes.id, standingLocks.boxId))
    .innerJoin(people, eq(people.id, standingLocks.personId))
    .where(and(one(standingLocks.lock), isNull(standingLocks.offAt)))
    .all();
  const onBoxes = tx
    .select({ lock: personalLocks.lock, box: lockBoxes.number, point: personalLocks.point, name: people.name })
    .from(personalLocks)
    .innerJoin(lockBoxes, eq(lockBoxes.id, personalLocks.boxId))
    .innerJoin(people, eq(people.id, personalLocks.personId))
    .where(and(one(personalLocks.lock), isNull(personalLocks.offAt)))
    .all();
  const onPoints = tx
    .select({ lock: holds.lock, tag: items.tag, isolation: isolations.number })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .innerJoin(isolations, eq(isolations.id, holds.isolationId))
    .where(and(one(holds.lock), isNull(holds.liftedAt)))
    .all();
  return new Map([
    ...standing.map((row) => [row.lock, `on box ${row.box}, for ${row.name}`] as const),
    ...onBoxes.map((row) => [row.lock, `on ${row.point || `box ${row.box}`}, hung by ${row.name}`] as const),
    ...onPoints.map((row) => [row.lock, `on ${row.tag}, isolation ${row.isolation}`] as const),
  ]);
}

/** A person's own locks that hang nowhere, at most a handful, the last entered first. Cost: one query. */
export function ownFreeLocks(tx: Tx, person: string): readonly string[] {
  return freeLocks(tx, [person])(person);
}

/** The same of many people. Cost: one query. */
export function freeLocks(tx: Tx, of: readonly string[]): (person: string) => readonly string[] {
  const hangs = (table: typeof personalLocks | typeof standingLocks) =>
    notExists(
      tx
        .select({ one: sql`1` })
        .from(table)
        .where(and(eq(table.lock, gear.number), isNull(table.offAt))),
    );
  const rows = tx
    .select({ number: gear.number, owner: gear.ownerId })
    .from(gear)
    .where(
      and(
        eq(gear.kind, "lock"),
        isAmong(gear.ownerId, of),
        eq(gear.withdrawn, false),
        hangs(personalLocks),
        hangs(standingLocks),
        notExists(
          tx
            .select({ one: sql`1` })
            .from(holds)
            .where(and(eq(holds.lock, gear.number), isNull(holds.liftedAt))),
        ),
      ),
    )
    .orderBy(desc(sql`${gear}.rowid`))
    .all();
  const owned = grouped(rows, ({ owner }) => owner ?? "");
  return (person) =>
    owned(person)
      .slice(0, OWN_LOCKS)
      .map(({ number }) => number);
}
const OWN_LOCKS = 4;

export function boxesOf(tx: Tx, isolationIds: readonly string[]) {
  if (isolationIds.length === 0) return [];
  return boxesUnder(tx).all({ ids: listed(isolationIds) });
}

const boxesUnder = question((tx) =>
  tx
    .select({
      id: lockBoxes.id,
      number: lockBoxes.number,
      state: lockBoxes.state,
      isolationId: boxIsolations.isolationId,
    })
    .from(boxIsolations)
    .innerJoin(lockBoxes, eq(lockBoxes.id, boxIsolations.boxId))
    .where(isAmong(boxIsolations.isolationId, sql.placeholder("ids")))
    .prepare(),
);

/** Personal locks that hang on these boxes now, in the order they were hung. */
export function locksOn(tx: Tx, boxIds: readonly string[]) {
  if (boxIds.length === 0) return [];
  return hangingOn(tx).all({ ids: listed(boxIds) });
}

const hangingOn = question((tx) =>
  tx
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
    .where(and(isAmong(personalLocks.boxId, sql.placeholder("ids")), isNull(personalLocks.offAt)))
    .orderBy(personalLocks.onAt)
    .prepare(),
);
