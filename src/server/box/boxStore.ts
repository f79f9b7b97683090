import { randomUUID } from "node:crypto";
import { and, asc, desc, eq, isNull, ne, sql } from "drizzle-orm";
import { type BoxFacts, type BoxLife, type Key, type StandingLock } from "../../core/box/boxLife";
import type { PersonId } from "../../core/people/roles";
import { isAmong, listed } from "../db/isAmong";
import { question } from "../db/question";
import type { Tx } from "../db/database";
import {
  boxIsolations,
  holds,
  isolations,
  items,
  lockBoxes,
  people,
  permitIsolations,
  permits,
  standingLocks,
} from "../db/schema";
import { namesOf } from "../people/signIn";
import { grouped } from "../runtime/grouped";
import { gearLookUp } from "../gear/gearStore";
import { lockHangs, locksOn } from "./locks";

export type StoredBox = Readonly<{ id: string; life: BoxLife }>;

export function loadBox(tx: Tx, by: Readonly<{ number: string }> | Readonly<{ id: string }>): StoredBox | null {
  return (
    boxesFrom(tx, "id" in by ? boxById(tx).all({ id: by.id }) : boxByNumber(tx).all({ number: by.number }))[0] ?? null
  );
}

/** Boxes that have not been given back, the latest first. Cost: three queries, however many. */
export function boxesOut(tx: Tx): StoredBox[] {
  return boxesFrom(
    tx,
    tx.select().from(lockBoxes).where(ne(lockBoxes.state, "returned")).orderBy(desc(lockBoxes.number)).all(),
  );
}

const boxById = question((tx) =>
  tx
    .select()
    .from(lockBoxes)
    .where(eq(lockBoxes.id, sql.placeholder("id")))
    .prepare(),
);
const boxByNumber = question((tx) =>
  tx
    .select()
    .from(lockBoxes)
    .where(eq(lockBoxes.number, sql.placeholder("number")))
    .prepare(),
);
const keysIn = question((tx) =>
  tx
    .select({
      boxId: boxIsolations.boxId,
      lock: holds.lock,
      point: items.tag,
      at: holds.keyAt,
      keyBy: holds.keyBy,
      lockedBy: holds.lockedBy,
    })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .innerJoin(boxIsolations, eq(boxIsolations.isolationId, holds.isolationId))
    .where(and(isAmong(boxIsolations.boxId, sql.placeholder("ids")), ne(holds.keyAt, "gone")))
    .orderBy(asc(holds.lockedAt))
    .prepare(),
);
const standingOn = question((tx) =>
  tx
    .select()
    .from(standingLocks)
    .where(isAmong(standingLocks.boxId, sql.placeholder("ids")))
    .orderBy(asc(standingLocks.onAt))
    .prepare(),
);

function boxesFrom(tx: Tx, rows: readonly (typeof lockBoxes.$inferSelect)[]): StoredBox[] {
  if (rows.length === 0) return [];
  const ids = listed(rows.map(({ id }) => id));
  const keysOf = grouped(keysIn(tx).all({ ids }), ({ boxId }) => boxId);
  const standingOf = grouped(standingOn(tx).all({ ids }), ({ boxId }) => boxId);
  return rows.map(({ id, number, state }) => ({
    id,
    life: {
      number,
      state,
      keys: keysOf(id).map(({ lock, point, at, keyBy, lockedBy }): Key => ({
        lock,
        point,
        at,
        by: (keyBy ?? lockedBy) as PersonId,
      })),
      standing: standingOf(id).map((lock): StandingLock => ({
        role: lock.role,
        person: lock.personId as PersonId,
        lock: lock.lock,
        on_ms: lock.onAt,
        off_ms: lock.offAt,
      })),
    },
  }));
}

/** Writes what changed between two states of a box. Keys live with the holds that they open. */
export function saveBox(tx: Tx, before: StoredBox, after: BoxLife): void {
  tx.update(lockBoxes).set({ state: after.state }).where(eq(lockBoxes.id, before.id)).run();
  const isolationIds = tx
    .select({ id: boxIsolations.isolationId })
    .from(boxIsolations)
    .where(eq(boxIsolations.boxId, before.id))
    .all()
    .map(({ id }) => id);
  for (const key of after.keys) {
    const was = before.life.keys.find((one) => one.lock === key.lock);
    if (was && was.at === key.at) continue;
    tx.update(holds)
      .set({ keyAt: key.at, keyBy: key.by })
      .where(
        and(
          isAmong(holds.isolationId, isolationIds),
          eq(holds.lock, key.lock),
          // A key that is new here belongs to the lock that hangs; its row says "gone" until the box has taken it in.
          was ? ne(holds.keyAt, "gone") : isNull(holds.liftedAt),
        ),
      )
      .run();
  }
  after.standing.forEach((lock, index) => {
    const was = before.life.standing[index];
    if (was === undefined) {
      tx.insert(standingLocks)
        .values({
          id: randomUUID(),
          boxId: before.id,
          role: lock.role,
          personId: lock.person,
          lock: lock.lock,
          onAt: lock.on_ms,
        })
        .run();
    } else if (was.off_ms === null && lock.off_ms !== null) {
      tx.update(standingLocks)
        .set({ offAt: lock.off_ms })
        .where(and(eq(standingLocks.boxId, before.id), eq(standingLocks.lock, lock.lock), isNull(standingLocks.offAt)))
        .run();
    }
  });
}

export function boxFacts(tx: Tx, boxId: string): BoxFacts {
  const isolationIds = tx
    .select({ id: boxIsolations.isolationId })
    .from(boxIsolations)
    .where(eq(boxIsolations.boxId, boxId))
    .all()
    .map(({ id }) => id);
  const livePermits = tx
    .select({ number: permits.number })
    .from(permitIsolations)
    .innerJoin(permits, eq(permits.id, permitIsolations.permitId))
    .innerJoin(isolations, eq(isolations.id, permitIsolations.isolationId))
    .where(
      and(
        isAmong(permitIsolations.isolationId, isolationIds),
        isAmong(permits.state, ["issued", "live", "suspended", "run out"]),
        // While it is lifted for a test nobody can come on, and the box has to be opened.
        ne(isolations.state, "testing"),
      ),
    )
    .all();
  return {
    peopleOn: [...new Set(locksOn(tx, [boxId]).map((lock) => lock.person))],
    livePermits: [...new Set(livePermits.map(({ number }) => number))],
    lockHangs: lockHangs(tx),
    gear: gearLookUp(tx),
    nameOf: namesOf(tx),
  };
}

/** Names on the standing locks of these boxes. */
export function standingNames(tx: Tx, boxIds: readonly string[]): string[] {
  return boxIds.flatMap(standingByBox(tx, boxIds)).map(({ name }) => name);
}

/** A lock on a box over everybody else's, and whose. */
const standingNow = question((tx) =>
  tx
    .select({
      boxId: standingLocks.boxId,
      name: people.name,
      lock: standingLocks.lock,
      personId: standingLocks.personId,
    })
    .from(standingLocks)
    .innerJoin(people, eq(people.id, standingLocks.personId))
    .where(and(isAmong(standingLocks.boxId, sql.placeholder("ids")), isNull(standingLocks.offAt)))
    .orderBy(asc(standingLocks.onAt))
    .prepare(),
);

export type OverLock = Readonly<{ lock: string; name: string; personId: string }>;

/** The standing locks box by box. Cost: one query, however many. */
export function standingByBox(tx: Tx, boxIds: readonly string[]): (boxId: string) => readonly OverLock[] {
  if (boxIds.length === 0) return () => [];
  const hanging = grouped(standingNow(tx).all({ ids: listed(boxIds) }), ({ boxId }) => boxId);
  return (id) => hanging(id).map(({ name, lock, personId }) => ({ name, lock, personId }));
}
