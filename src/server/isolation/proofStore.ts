import { and, eq, inArray, isNotNull, isNull, max } from "drizzle-orm";
import { stepLabel, type PlannedStep } from "../../core/procedure/steps";
import { latestProofs, staleProofs } from "../../core/isolation/staleProofs";
import { profileOf } from "../../core/requirement/profiles";
import type { Tx } from "../db/database";
import { isolations, personalLocks, steps } from "../db/schema";
import { boxesOf } from "../box/locks";
import { litUntil_ms } from "./temporaryStore";

/** Proofs of an isolation that must be done again before anybody goes on, and why. Cost: linear in its steps. */
export function staleOf(tx: Tx, isolation: typeof isolations.$inferSelect, now_ms: number): string[] {
  const proofs = tx
    .select({ step: steps.step, doneAt: steps.doneAt })
    .from(steps)
    .where(and(eq(steps.isolationId, isolation.id), isNotNull(steps.doneAt)))
    .all()
    .map(({ step, doneAt }) => ({ step: JSON.parse(step) as PlannedStep, at_ms: doneAt! }))
    .filter(({ step }) => step.kind === "prove")
    .map(({ step, at_ms }) => ({ label: stepLabel(step), at_ms }));
  const boxIds = boxesOf(tx, [isolation.id]).map((box) => box.id);
  const isThere = tx
    .select({ id: personalLocks.id })
    .from(personalLocks)
    .where(and(inArray(personalLocks.boxId, boxIds), isNull(personalLocks.offAt)))
    .get();
  const left = tx
    .select({ at: max(personalLocks.offAt) })
    .from(personalLocks)
    .where(inArray(personalLocks.boxId, boxIds))
    .get();
  const profile = profileOf(isolation.ruleProfile);
  return staleProofs(latestProofs(proofs), {
    now_ms,
    lastThere_ms: isThere ? now_ms : (left?.at ?? null),
    litUntil_ms: litUntil_ms(tx, isolation),
    goodFor_h: profile.proofGoodFor_h,
    absence_min: profile.absence_min,
  });
}
