import { randomUUID } from "node:crypto";
import { and, asc, eq, isNull } from "drizzle-orm";
import type { PermitFacts, PermitLife, SignOn } from "../../core/permit/permitLife";
import type { PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { isolations, permitIsolations, permits, personalLocks, steps } from "../db/schema";
import { namesOf } from "../signIn";
import { boxesOf, lockHangs } from "./locks";

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
  // A personal lock hangs on the box of every isolation of the permit; one of them stands for the sign-on.
  const signOns = new Map<string, SignOn>();
  const hung = tx
    .select()
    .from(personalLocks)
    .where(eq(personalLocks.permitId, row.id))
    .orderBy(asc(personalLocks.onAt))
    .all();
  for (const lock of hung) {
    const signOn = { person: lock.personId as PersonId, lock: lock.lock, on_ms: lock.onAt, off_ms: lock.offAt };
    signOns.set(`${lock.personId} ${lock.onAt}`, signOn);
  }
  const life: PermitLife = {
    number: row.number,
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
    .set({ state: after.state, issuerId: after.issuer, closedBy: after.closedBy })
    .where(eq(permits.id, before.row.id))
    .run();
  after.signOns.forEach((signOn, index) => {
    const was = before.life.signOns[index];
    if (was === undefined) {
      for (const box of boxesOf(tx, before.isolationIds)) {
        tx.insert(personalLocks)
          .values({
            id: randomUUID(),
            boxId: box.id,
            permitId: before.row.id,
            personId: signOn.person,
            lock: signOn.lock,
            onAt: signOn.on_ms,
            offAt: null,
          })
          .run();
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

export function permitFacts(tx: Tx, isolationIds: readonly string[], timeOf: (at_ms: number) => string): PermitFacts {
  return {
    isolations: isolationIds.map((id) => {
      const row = tx.select().from(isolations).where(eq(isolations.id, id)).get();
      if (row === undefined) throw new Error(`isolation ${id} is gone`);
      const open = tx
        .select({ step: steps.step })
        .from(steps)
        .where(and(eq(steps.isolationId, id), isNull(steps.doneBy)))
        .all()
        .filter(({ step }) => (JSON.parse(step) as { phase: string }).phase === "isolate").length;
      return { number: row.number, state: row.state, openSteps: open };
    }),
    lockHangs: lockHangs(tx),
    nameOf: namesOf(tx),
    timeOf,
  };
}
