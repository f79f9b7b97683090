import { randomUUID } from "node:crypto";
import { and, asc, eq, isNull, or, sql } from "drizzle-orm";
import { gearNumber, type Gear, type GearKind } from "../../core/gear/gear";
import type { PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { earthsOn, gear, isolations } from "../db/schema";
import { question } from "../db/question";
import { whileUnchanged } from "../db/whileUnchanged";

type Row = typeof gear.$inferSelect;

export function toGear(row: Row): Gear {
  return {
    kind: row.kind as GearKind,
    number: row.number,
    owner: row.ownerId as PersonId | null,
    key: row.key,
    inDateUntil_ms: row.inDateUntil,
    rating_V: row.ratingV,
    error: row.error,
    withdrawn: row.withdrawn,
    withdrawnBy: row.withdrawnBy as PersonId | null,
    bumpedAt_ms: row.bumpedAt,
    zeroedAt_ms: row.zeroedAt,
    sheet: row.sheet,
    withJob: row.withJob,
  };
}

/** One thing of the register, by kind and number. Cost: one indexed look-up. */
export function gearLookUp(tx: Tx): (kind: GearKind, number: string) => Gear | undefined {
  return (kind, number) => {
    const row = tx
      .select()
      .from(gear)
      .where(and(eq(gear.kind, kind), eq(gear.number, gearNumber(number))))
      .get();
    return row && toGear(row);
  };
}

/** What an entry may clash with: the thing itself, and locks that its key opens. Cost: one query, whatever the register holds. */
export function gearBeside(tx: Tx, { kind, number, key }: Pick<Gear, "kind" | "number" | "key">): Gear[] {
  const itself = and(eq(gear.kind, kind), eq(gear.number, gearNumber(number)));
  const opened = key === null ? undefined : and(eq(gear.kind, "lock"), eq(gear.key, gearNumber(key)));
  return tx.select().from(gear).where(or(itself, opened)).orderBy(asc(gear.kind), asc(gear.number)).all().map(toGear);
}

export function allGear(tx: Tx): Gear[] {
  return tx.select().from(gear).orderBy(asc(gear.kind), asc(gear.number)).all().map(toGear);
}

export const gasInstruments = whileUnchanged((tx): readonly Gear[] =>
  tx.select().from(gear).where(eq(gear.kind, "gas instrument")).orderBy(asc(gear.number)).all().map(toGear),
);

/** Enters or changes a thing. */
export function saveGear(tx: Tx, one: Gear): void {
  const values = {
    kind: one.kind,
    number: gearNumber(one.number),
    ownerId: one.owner,
    key: one.key === null ? null : gearNumber(one.key),
    inDateUntil: one.inDateUntil_ms,
    ratingV: one.rating_V,
    error: one.error,
    withdrawn: one.withdrawn,
    withdrawnBy: one.withdrawnBy,
    bumpedAt: one.bumpedAt_ms,
    zeroedAt: one.zeroedAt_ms,
    sheet: one.sheet,
    withJob: one.withJob,
  };
  tx.insert(gear)
    .values({ id: randomUUID(), ...values })
    .onConflictDoUpdate({ target: [gear.kind, gear.number], set: values })
    .run();
}

/** A lock that is hung and nobody had entered: from now on it has an owner, the person or the site. */
export function enterLock(tx: Tx, number: string, owner: PersonId | null): void {
  if (gearLookUp(tx)("lock", number)) return;
  saveGear(tx, {
    kind: "lock",
    number,
    owner,
    key: null,
    inDateUntil_ms: null,
    rating_V: null,
    error: null,
    withdrawn: false,
    withdrawnBy: null,
    bumpedAt_ms: null,
    zeroedAt_ms: null,
    sheet: null,
    withJob: null,
  });
}

/** Where an earth stands now, in words; undefined when it is free. */
export function earthStands(tx: Tx): (number: string) => string | undefined {
  return (number) => {
    const row = tx
      .select({ place: earthsOn.place, isolation: isolations.number })
      .from(earthsOn)
      .innerJoin(isolations, eq(isolations.id, earthsOn.isolationId))
      .where(and(eq(earthsOn.number, gearNumber(number)), isNull(earthsOn.offAt)))
      .get();
    return row && `at ${row.place}, isolation ${row.isolation}`;
  };
}

/** Every earth that stands now and where, in words. Cost: one query. */
export function earthsStanding(tx: Tx): ReadonlyMap<string, string> {
  return new Map(
    tx
      .select({ number: earthsOn.number, place: earthsOn.place, isolation: isolations.number })
      .from(earthsOn)
      .innerJoin(isolations, eq(isolations.id, earthsOn.isolationId))
      .where(isNull(earthsOn.offAt))
      .all()
      .map(({ number, place, isolation }) => [number, `at ${place}, isolation ${isolation}`]),
  );
}

/** Earths of an isolation that stand now. */
export function earthsOf(tx: Tx, isolationId: string) {
  return earthsStandingOn(tx).all({ isolationId });
}

const earthsStandingOn = question((tx) =>
  tx
    .select()
    .from(earthsOn)
    .where(and(eq(earthsOn.isolationId, sql.placeholder("isolationId")), isNull(earthsOn.offAt)))
    .prepare(),
);
