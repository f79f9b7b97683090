import { randomUUID } from "node:crypto";
import { and, asc, eq, inArray, isNull } from "drizzle-orm";
import { personalLockFault } from "../../core/locks/gear";
import type { PersonId, Role } from "../../core/people/roles";
import type { PermitFacts, PermitLife, SignOn } from "../../core/permit/permitLife";
import { profileOf } from "../../core/rules/profiles";
import { settled, setupSchema } from "../../core/schedule/setup";
import type { Tx } from "../db/database";
import {
  exchanges,
  holds,
  isolations,
  items,
  jobs,
  people,
  permitIsolations,
  permits,
  personalLocks,
  steps,
} from "../db/schema";
import { namesOf } from "../signIn";
import { siteTime } from "../siteTime";
import { standingNames } from "./boxStore";
import { enterLock, gearLookUp } from "./gearStore";
import { boxesOf, lockHangs } from "./locks";
import { staleOf } from "./proofStore";
import { litBy } from "./temporaryStore";

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
    .set({ state: after.state, holderId: after.holder, issuerId: after.issuer, closedBy: after.closedBy })
    .where(eq(permits.id, before.row.id))
    .run();
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

export function permitFacts(tx: Tx, stored: StoredPermit, now_ms: number): PermitFacts {
  const { isolationIds, row } = stored;
  const rows = isolationIds.map((id) => {
    const isolation = tx.select().from(isolations).where(eq(isolations.id, id)).get();
    if (isolation === undefined) throw new Error(`isolation ${id} is gone`);
    return isolation;
  });
  const job = tx.select().from(jobs).where(eq(jobs.id, row.jobId)).get();
  if (job === undefined) throw new Error(`the job of permit ${row.number} is gone`);
  const profile = profileOf(row.ruleProfile);
  const boxIds = boxesOf(tx, isolationIds).map((box) => box.id);
  const setup = setupSchema.parse(JSON.parse(job.setup));
  const crew = JSON.parse(job.crew) as string[];
  const look = gearLookUp(tx);
  const nameOf = namesOf(tx);
  const person = (id: string) => tx.select().from(people).where(eq(people.id, id)).get();
  return {
    isolations: rows.map(({ id, number, state }) => {
      const open = tx
        .select({ step: steps.step })
        .from(steps)
        .where(and(eq(steps.isolationId, id), isNull(steps.doneBy)))
        .all()
        .filter(({ step }) => (JSON.parse(step) as { phase: string }).phase !== "restore").length;
      return { number, state, openSteps: open };
    }),
    lockHangs: lockHangs(tx),
    personalLock: (id, lock) => personalLockFault(look("lock", lock), id, lock, nameOf),
    firstOn: profile.firstOn,
    standingHangs: boxIds.every((id) => standingNames(tx, [id]).length > 0),
    stale: rows.flatMap((isolation) => staleOf(tx, isolation, now_ms)),
    litBy: litBy(tx, job.number),
    exchangeMissing: (id) => {
      const firm = person(id)?.firm ?? "";
      if (firm === "") return null;
      const done = tx
        .select({ id: exchanges.id })
        .from(exchanges)
        .where(and(eq(exchanges.jobId, job.id), eq(exchanges.firm, firm)))
        .get();
      return done ? null : firm;
    },
    pointsToLock: settled(setup, "lockSchool") === "on every point" ? heldTags(tx, isolationIds) : [],
    crewFault: (id) =>
      crew.includes(id) || job.holderId === id || row.holderId === id
        ? null
        : { code: "not in the crew", job: job.number },
    rolesOf: (id) => JSON.parse(person(id)?.roles ?? "[]") as Role[],
    nameOf,
    timeOf: siteTime,
  };
}

/** Tags of the devices that these isolations hold now. */
function heldTags(tx: Tx, isolationIds: readonly string[]): string[] {
  const rows = tx
    .select({ tag: items.tag })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .where(and(inArray(holds.isolationId, [...isolationIds]), isNull(holds.liftedAt)))
    .orderBy(asc(items.tag))
    .all();
  return [...new Set(rows.map(({ tag }) => tag))];
}
