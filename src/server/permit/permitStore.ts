import { randomUUID } from "node:crypto";
import { and, asc, eq, isNull, sql } from "drizzle-orm";
import type { PersonId } from "../../core/people/roles";
import { inRightTime } from "../../core/permit/record/clockSet";
import type { LogEntry } from "../../core/permit/record/permitLog";
import type { PermitLife, SignOn } from "../../core/permit/record/permitTypes";
import { isAmong, listed } from "../db/isAmong";
import { question } from "../db/question";
import type { Tx } from "../db/database";
import { permitIsolations, permitLog, permits, personalLocks } from "../db/schema";
import { enterLock } from "../gear/gearStore";
import { grouped } from "../runtime/grouped";
import { boxesOf } from "../box/locks";

export type StoredPermit = Readonly<{
  row: typeof permits.$inferSelect;
  life: PermitLife;
  isolationIds: readonly string[];
}>;

export function loadPermit(tx: Tx, number: string): StoredPermit | null {
  return loadPermits(tx, [number])[0] ?? null;
}

/** Permits by number, in the order of their numbers; unknown ones are left out. Cost: four queries, however many. */
export function loadPermits(tx: Tx, numbers: readonly string[]): StoredPermit[] {
  if (numbers.length === 0) return [];
  const rows = byNumber(tx).all({ numbers: listed(numbers) });
  const ids = listed(rows.map(({ id }) => id));
  const isolationsOf = grouped(isolationsUnder(tx).all({ ids }), ({ permitId }) => permitId);
  const locksOf = grouped(locksUnder(tx).all({ ids }), ({ permitId }) => permitId);
  const logOf = grouped(logsOf(tx).all({ ids }), ({ permitId }) => permitId);
  return rows.map((row) => ({
    row,
    isolationIds: isolationsOf(row.id).map(({ isolationId }) => isolationId),
    life: lifeOf(
      row,
      signOnsOf(locksOf(row.id)),
      logOf(row.id).map(({ entry }) => entry),
    ),
  }));
}

const byNumber = question((tx) =>
  tx
    .select()
    .from(permits)
    .where(isAmong(permits.number, sql.placeholder("numbers")))
    .orderBy(asc(permits.number))
    .prepare(),
);
const isolationsUnder = question((tx) =>
  tx
    .select()
    .from(permitIsolations)
    .where(isAmong(permitIsolations.permitId, sql.placeholder("ids")))
    .prepare(),
);
const locksUnder = question((tx) =>
  tx
    .select()
    .from(personalLocks)
    .where(isAmong(personalLocks.permitId, sql.placeholder("ids")))
    .orderBy(asc(personalLocks.onAt))
    .prepare(),
);
const logsOf = question((tx) =>
  tx
    .select({ permitId: permitLog.permitId, entry: permitLog.entry })
    .from(permitLog)
    .where(isAmong(permitLog.permitId, sql.placeholder("ids")))
    .orderBy(asc(permitLog.permitId), asc(permitLog.position))
    .prepare(),
);

export function lifeOf(row: StoredPermit["row"], signOns: readonly SignOn[], log: readonly LogEntry[]): PermitLife {
  return {
    number: row.number,
    details: row.details,
    log: inRightTime(log),
    state: row.state,
    holder: row.holderId as PersonId,
    issuer: row.issuerId as PersonId | null,
    closedBy: row.closedBy as PersonId | null,
    validFrom_ms: row.validFrom,
    validTo_ms: row.validTo,
    signOns,
  };
}

/**
 * A personal lock hangs on the box of every isolation of the permit, or one on each of their points; together they are one
 * sign-on.
 */
function signOnsOf(hung: readonly (typeof personalLocks.$inferSelect)[]): SignOn[] {
  const signOns = new Map<string, SignOn>();
  for (const lock of hung) {
    const key = `${lock.personId} ${lock.onAt}`;
    const known = signOns.get(key);
    signOns.set(key, {
      person: lock.personId as PersonId,
      lock: known?.lock ?? lock.lock,
      points: lock.point === "" ? (known?.points ?? {}) : { ...known?.points, [lock.point]: lock.lock },
      on_ms: lock.onAt,
      off_ms: lock.offAt,
    });
  }
  return [...signOns.values()];
}

/** Writes what changed between two states of a permit, and hangs or takes the personal locks that go with it. */
export function savePermit(tx: Tx, before: StoredPermit, after: PermitLife): void {
  tx.update(permits)
    .set({
      state: after.state,
      holderId: after.holder,
      issuerId: after.issuer,
      closedBy: after.closedBy,
      details: after.details,
      validFrom: after.validFrom_ms,
      validTo: after.validTo_ms,
    })
    .where(eq(permits.id, before.row.id))
    .run();
  after.log.slice(before.life.log.length).forEach((entry, i) => {
    tx.insert(permitLog)
      .values({
        permitId: before.row.id,
        position: before.life.log.length + i,
        at: entry.at_ms,
        entry,
      })
      .run();
  });
  after.signOns.forEach((signOn, index) => {
    const was = before.life.signOns[index];
    if (was === undefined) {
      const atPoints = Object.entries(signOn.points);
      for (const box of boxesOf(tx, before.isolationIds)) {
        for (const [point, lock] of atPoints.length > 0 ? atPoints : [["", signOn.lock] as const]) {
          enterLock(tx, lock, signOn.person);
          tx.insert(personalLocks)
            .values({
              id: randomUUID(),
              boxId: box.id,
              permitId: before.row.id,
              personId: signOn.person,
              lock,
              point,
              onAt: signOn.on_ms,
              offAt: null,
            })
            .run();
        }
      }
    } else if (was.off_ms === null && signOn.off_ms !== null) {
      const own = [eq(personalLocks.permitId, before.row.id), eq(personalLocks.personId, signOn.person)];
      tx.update(personalLocks)
        .set({ offAt: signOn.off_ms })
        .where(and(...own, isNull(personalLocks.offAt)))
        .run();
    }
  });
}
