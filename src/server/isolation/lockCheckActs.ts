import { and, eq, inArray, isNull } from "drizzle-orm";
import { z } from "zod";
import { gearNumber, numberText } from "../../core/gear/gearNumber";
import { decideLockCheck, decideRehang } from "../../core/isolation/lockCheck";
import type { Refusal } from "../../core/refusal/refusal";
import { loadBox } from "../box/boxStore";
import { boxesOf } from "../box/locks";
import type { Tx } from "../db/database";
import { holds, isolations, items, jobIsolations, jobs } from "../db/schema";
import { defineAct } from "../act/act";
import { moveBox, WALKERS } from "./isolationActs";
import { hangLock, isolationFacts, loadIsolation, saveIsolation } from "./isolationStore";
import { grouped } from "../runtime/grouped";

const text = (missing: string) => z.string(missing).trim().min(1, missing).max(80, "at most 80 characters");

/**
 * A round over the points of an isolation that stands: the lock on each, as it was read there. By whoever walks points, and by
 * anybody who works behind them: everyone may see for themselves before they sign on.
 */
export const checkLocks = defineAct({
  type: "isolation.check-locks",
  words: "read the locks of an isolation",
  roles: [...WALKERS, "holder", "worker"],
  pin: true,
  input: z.object({
    isolation: z.string(),
    found: z
      .array(
        z
          .object({
            point: text("name the point"),
            lock: numberText("the lock number is missing"),
            /** No lock hangs there. */
            none: z.boolean().default(false),
          })
          .refine(({ lock, none }) => none || lock !== "", {
            path: ["lock"],
            error: "write the number of the lock you see, or say that none hangs there",
          })
          .refine(({ lock, none }) => !none || lock === "", {
            path: ["lock"],
            error: "a lock hangs there, or none does: not both",
          }),
      )
      .min(1, "read the lock on every point")
      .max(400, "at most 400 points"),
  }),
  run: ({ tx, person, now_ms }, { isolation: number, found }) => {
    const stored = loadIsolation(tx, number);
    if (stored === null)
      return { ok: false, subject: number, refusal: { code: "unknown", what: "isolation", name: number } };
    const jobsOf = crewsOf(tx, stored.row.id);
    const ofCrew = jobsOf.some(({ crew, holderId }) => holderId === person.id || crew.includes(person.id));
    const walks = person.roles.some((role) => (WALKERS as readonly string[]).includes(role));
    if (!ofCrew && !walks) {
      const refusal = { code: "not in the crew", job: jobsOf.map(({ number }) => number).join(", ") } as const;
      return { ok: false, subject: number, refusal };
    }
    const hung = hungOn(tx, stored.row.id);
    const decided = decideLockCheck(
      stored.life,
      stored.row.lockCheck,
      { by: person.id, at_ms: now_ms, found, ofCrew },
      { hangs: (point) => hung(point).map(({ lock }) => lock) },
    );
    if (!decided.ok) return { ok: false, subject: number, refusal: decided.refusal };
    tx.update(isolations).set({ lockCheck: decided.value }).where(eq(isolations.id, stored.row.id)).run();
    const missing = decided.value.faults.map(({ point }) => point);
    const did =
      missing.length === 0
        ? `read the locks on ${found.length} points, all as they were hung`
        : `read the locks on ${found.length} points; not found: ${missing.join(", ")}`;
    return { ok: true, subject: number, answer: { isolation: number, did, missing: missing.length } };
  },
});

/** Another lock where the one on record was not found. */
export const rehangLock = defineAct({
  type: "isolation.rehang",
  words: "hang another lock where one was not found",
  roles: ["isolator"],
  pin: true,
  input: z.object({
    isolation: z.string(),
    point: text("name the point"),
    lock: numberText("write the number of the lock you hung").refine(
      (number) => number !== "",
      "write the number of the lock you hung",
    ),
  }),
  run: ({ tx, person, now_ms }, { isolation: number, point, lock }) => {
    const refused = (refusal: Refusal) => ({ ok: false, subject: number, refusal }) as const;
    const stored = loadIsolation(tx, number);
    if (stored === null) return refused({ code: "unknown", what: "isolation", name: number });
    const facts = isolationFacts(tx, stored.row);
    const decided = decideRehang(
      stored.life,
      stored.row.lockCheck,
      { by: person.id, point, lock, competences: person.competences },
      facts,
    );
    if (!decided.ok) return refused(decided.refusal);
    const { life, check } = decided.value;
    saveIsolation(tx, stored, life, now_ms);
    tx.update(isolations).set({ lockCheck: check }).where(eq(isolations.id, stored.row.id)).run();
    const gone = hungOn(tx, stored.row.id)(point).map(({ id }) => id);
    tx.update(holds).set({ liftedBy: person.id, liftedAt: now_ms }).where(inArray(holds.id, gone)).run();
    hangLock(tx, { isolationId: stored.row.id, tag: point, lock, by: person.id, at_ms: now_ms });
    const at = { by: person.id, at_ms: now_ms };
    for (const { id } of boxesOf(tx, [stored.row.id])) {
      const keys = loadBox(tx, { id })!.life.keys.filter((key) => key.point === point);
      const faults = [
        moveBox(tx, id, { ...at, type: "take key", lock, point }),
        ...keys.map((key) => moveBox(tx, id, { ...at, type: "give key back", lock: key.lock })),
      ];
      const fault = faults.find((one) => one !== null);
      if (fault) throw new Error(`box ${id} does not follow the lock hung anew: ${fault.code}`);
    }
    return { ok: true, subject: number, answer: { isolation: number, did: `hung ${lock} on ${point} anew` } };
  },
});

/** Who works behind an isolation, job by job. Cost: one query. */
const crewsOf = (tx: Tx, isolationId: string) =>
  tx
    .select({ number: jobs.number, crew: jobs.crew, holderId: jobs.holderId })
    .from(jobs)
    .innerJoin(jobIsolations, eq(jobIsolations.jobId, jobs.id))
    .where(and(eq(jobIsolations.isolationId, isolationId), eq(jobs.state, "open")))
    .all();

/** Locks of an isolation that hang now, by their points. Cost: one query. */
function hungOn(tx: Tx, isolationId: string) {
  return grouped(
    tx
      .select({ id: holds.id, tag: items.tag, lock: holds.lock })
      .from(holds)
      .innerJoin(items, eq(items.id, holds.itemId))
      .where(and(eq(holds.isolationId, isolationId), isNull(holds.liftedAt)))
      .all()
      .map((row) => ({ ...row, lock: gearNumber(row.lock) })),
    ({ tag }) => tag,
  );
}
