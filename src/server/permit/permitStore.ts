import { randomUUID } from "node:crypto";
import { and, asc, eq, isNull } from "drizzle-orm";
import type { PersonId } from "../../core/people/roles";
import type { PermitDetails } from "../../core/permit/kinds/details";
import type { LogEntry } from "../../core/permit/record/permitLog";
import type { PermitLife, SignOn } from "../../core/permit/record/permitTypes";
import type { Tx } from "../db/database";
import { permitIsolations, permitLog, permits, personalLocks } from "../db/schema";
import { enterLock } from "../gear/gearStore";
import { boxesOf } from "../box/locks";

export type StoredPermit = Readonly<{
  row: typeof permits.$inferSelect;
  life: PermitLife;
  isolationIds: readonly string[];
}>;

export function loadPermit(tx: Tx, number: string): StoredPermit | null {
  const row = tx.select().from(permits).where(eq(permits.number, number)).get();
  if (row === undefined) return null;
  const isolationIds = tx
    .select({ id: permitIsolations.isolationId })
    .from(permitIsolations)
    .where(eq(permitIsolations.permitId, row.id))
    .all()
    .map(({ id }) => id);
  // A personal lock hangs on the box of every isolation of the permit, or one on each of their points; together they are
  // one sign-on.
  const signOns = new Map<string, SignOn>();
  const hung = tx
    .select()
    .from(personalLocks)
    .where(eq(personalLocks.permitId, row.id))
    .orderBy(asc(personalLocks.onAt))
    .all();
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
  const log = tx
    .select({ entry: permitLog.entry })
    .from(permitLog)
    .where(eq(permitLog.permitId, row.id))
    .orderBy(asc(permitLog.position))
    .all()
    .map(({ entry }) => JSON.parse(entry) as LogEntry);
  const life: PermitLife = {
    number: row.number,
    details: JSON.parse(row.details) as PermitDetails,
    log,
    state: row.state,
    holder: row.holderId as PersonId,
    issuer: row.issuerId as PersonId | null,
    closedBy: row.closedBy as PersonId | null,
    validFrom_ms: row.validFrom,
    validTo_ms: row.validTo,
    signOns: [...signOns.values()],
  };
  return { row, life, isolationIds };
}

/** Writes what changed between two states of a permit, and hangs or takes the personal locks that go with it. */
export function savePermit(tx: Tx, before: StoredPermit, after: PermitLife): void {
  tx.update(permits)
    .set({ state: after.state, holderId: after.holder, issuerId: after.issuer, closedBy: after.closedBy })
    .where(eq(permits.id, before.row.id))
    .run();
  after.log.slice(before.life.log.length).forEach((entry, i) => {
    tx.insert(permitLog)
      .values({
        permitId: before.row.id,
        position: before.life.log.length + i,
        at: entry.at_ms,
        entry: JSON.stringify(entry),
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
