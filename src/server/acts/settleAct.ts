import { eq } from "drizzle-orm";
import { z } from "zod";
import { numberText } from "../../core/gear/gearNumber";
import { siteLockFault } from "../../core/gear/gear";
import { lockedPoints } from "../../core/isolation/lockedPoints";
import type { Refusal } from "../../core/refusal/refusal";
import { ledger } from "../db/schema";
import { hangLock, isolationFacts, loadIsolation } from "../isolation/isolationStore";
import { boxesOf } from "../box/locks";
import { bodyOf } from "../ledger/body";
import { defineAct, type ActOutcome } from "../act/act";
import { moveBox } from "../isolation/isolationActs";

/**
 * What a device kept while it had no network, and no longer fitted when it came: a person says what is so on the spot.
 * A lock that was hung beside another's is either off again, or hangs there too and is kept like any other.
 */
const keptStep = z.looseObject({ step: z.string().optional(), lock: numberText().nullish() });

export const settleKept = defineAct({
  type: "kept.settle",
  words: "settle what a device kept",
  roles: ["isolator", "operator", "coordinator"],
  pin: true,
  input: z.object({
    /** The act that was refused, by its id. */
    refusedAct: z.uuid("must be the id of a refused act"),
    isolation: z.string(),
    what: z.enum(["undone", "hangs too"], "say what is so"),
    words: z.string("what is so is missing").trim().min(3, "write what is so").max(500, "at most 500 characters"),
  }),
  run: ({ tx, person, now_ms }, input): ActOutcome => {
    const subject = input.isolation;
    const refused = (refusal: Refusal) => ({ ok: false, subject, refusal }) as const;
    const row = tx.select().from(ledger).where(eq(ledger.actId, input.refusedAct)).get();
    const stored = loadIsolation(tx, input.isolation);
    if (row?.outcome !== "refused" || row.byPerson !== person.id || stored === null) {
      return refused({ code: "unknown", what: "refused act of yours", name: input.refusedAct });
    }
    const settled = tx.select().from(ledger).where(eq(ledger.corrects, row.seq)).get();
    if (settled) return refused({ code: "already done", what: `Settling row ${row.seq}` });
    if (input.what === "undone") return { ok: true, subject, answer: { settled: row.seq }, corrects: row.seq };

    const { step: id, lock } = keptStep.parse(bodyOf(row).input);
    const step = stored.life.steps.find((one) => one.id === id);
    const isLocked = step && lockedPoints(stored.life).some(({ subject: tag }) => tag === step.subject);
    if (step?.kind !== "lock" || !lock || !isLocked) {
      return refused({ code: "unknown", what: "locked point that this lock could hang on", name: step?.subject ?? "" });
    }
    const facts = isolationFacts(tx, stored.row);
    const notOurs = siteLockFault(facts.gear("lock", lock), lock, facts.nameOf);
    if (notOurs) return refused(notOurs);
    const where = facts.lockHangs(lock);
    if (where !== undefined) return refused({ code: "lock in use", lock, where });
    const at = { by: person.id, at_ms: now_ms };
    hangLock(tx, { isolationId: stored.row.id, tag: step.subject, lock, ...at });
    for (const box of boxesOf(tx, [stored.row.id])) {
      moveBox(tx, box.id, { ...at, type: "take key", lock, point: step.subject });
    }
    return { ok: true, subject, answer: { settled: row.seq, lock, point: step.subject }, corrects: row.seq };
  },
});
