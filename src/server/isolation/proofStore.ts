import { and, eq, isNotNull, sql } from "drizzle-orm";
import { stepLabel } from "../../core/procedure/steps";
import { latestProofs, staleProofs } from "../../core/isolation/staleProofs";
import { profileOf } from "../../core/requirement/profiles";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { isolations, personalLocks, steps } from "../db/schema";
import { boxesOf } from "../box/locks";
import { grouped } from "../runtime/grouped";
import { litUntil_ms } from "./temporaryStore";

type Isolation = Pick<typeof isolations.$inferSelect, "id" | "approvedAt" | "ruleProfile" | "lockCheck">;

/** Proofs of an isolation that must be done again before anybody goes on, and why. Cost: as of many. */
export function staleOf(tx: Tx, isolation: Isolation, now_ms: number): string[] {
  return staleOfAll(tx, [isolation], now_ms)(isolation.id);
}

/** The same for many isolations at once. Cost: five queries, however many. */
export function staleOfAll(tx: Tx, of: readonly Isolation[], now_ms: number): (isolationId: string) => string[] {
  if (of.length === 0) return () => [];
  const ids = of.map(({ id }) => id);
  const proofsOf = grouped(
    tx
      .select({ id: steps.isolationId, step: steps.step, doneAt: steps.doneAt, evidence: steps.evidence })
      .from(steps)
      .where(
        and(
          isAmong(steps.isolationId, ids),
          isNotNull(steps.doneAt),
          eq(sql`json_extract(${steps.step}, '$.kind')`, "prove"),
        ),
      )
      .all(),
    ({ id }) => id,
  );
  const boxOf = grouped(boxesOf(tx, ids), ({ isolationId }) => isolationId);
  const lastThere = new Map(
    tx
      .select({
        boxId: personalLocks.boxId,
        on: sql<number>`sum(${personalLocks.offAt} IS NULL)`,
        off: sql<number | null>`max(${personalLocks.offAt})`,
      })
      .from(personalLocks)
      .where(
        isAmong(
          personalLocks.boxId,
          ids.flatMap((id) => boxOf(id).map((box) => box.id)),
        ),
      )
      .groupBy(personalLocks.boxId)
      .all()
      .map(({ boxId, on, off }) => [boxId, on > 0 ? now_ms : off] as const),
  );
  const litUntil = litUntil_ms(tx, of);
  const byId = new Map(of.map((one) => [one.id, one]));
  return (id) => {
    const proofs = proofsOf(id).map(({ step, doneAt, evidence }) => ({
      label: stepLabel(step),
      at_ms: doneAt!,
      wrongClock: evidence?.wrongClock ?? false,
    }));
    const there = boxOf(id).flatMap((box) => lastThere.get(box.id) ?? []);
    const profile = profileOf(byId.get(id)!.ruleProfile);
    return staleProofs(latestProofs(proofs), {
      now_ms,
      lastThere_ms: there.length > 0 ? Math.max(...there) : null,
      litUntil_ms: litUntil(id),
      foundAgain_ms: byId.get(id)!.lockCheck?.right_ms ?? null,
      goodFor_h: profile.proofGoodFor_h,
      absence_min: profile.absence_min,
    });
  };
}
