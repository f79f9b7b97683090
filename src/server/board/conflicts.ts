import { randomUUID } from "node:crypto";
import { asc, gte } from "drizzle-orm";
import { z } from "zod";
import { decideConflict, DECIDE_CONFLICTS, decisionOf, type ConflictDecision } from "../../core/conflict/decision";
import type { Conflict } from "../../core/conflict/pair";
import { findConflicts, sharedPoints, type SharedPoint } from "../../core/conflict/search";
import { AHEAD_MS, waysOut, type WayOut } from "../../core/conflict/waysOut";
import type { PersonId } from "../../core/people/roles";
import { defineAct } from "../act/act";
import type { Tx } from "../db/database";
import { conflictDecisions } from "../db/schema";
import { line } from "../job/jobActs";
import { openWorks } from "./works";

export type OpenConflict = Readonly<{ conflict: Conflict; decision: ConflictDecision | null }>;

export type Conflicts = Readonly<{
  found: readonly OpenConflict[];
  /** Open jobs whose points nobody has approved: what they will stop is not known. */
  unplanned: number;
  /** Points that more than one job holds, or will. */
  shared: readonly SharedPoint[];
}>;

/** Conflicts that are not over, within six weeks, those that nobody decided first. Cost: eight queries and a search. */
export function conflictsNow(tx: Tx, now_ms: number): Conflicts {
  const { works, unplanned } = openWorks(tx, now_ms);
  const decisions = decisionsSince(tx, now_ms);
  const found = coming(findConflicts(works), now_ms).map((conflict) => ({
    conflict,
    decision: decisionOf(conflict, decisions) ?? null,
  }));
  return {
    found: [...found.filter(({ decision }) => !decision), ...found.filter(({ decision }) => decision)],
    unplanned,
    shared: sharedPoints(works),
  };
}

/** Ways out of one conflict, worked out when somebody asks; null where it is not there any more. */
export function waysOutOf(tx: Tx, id: string, now_ms: number): readonly WayOut[] | null {
  const { works } = openWorks(tx, now_ms);
  const conflict = coming(findConflicts(works), now_ms).find((one) => one.id === id);
  return conflict ? waysOut(conflict, works) : null;
}

function coming(conflicts: readonly Conflict[], now_ms: number): Conflict[] {
  return conflicts.filter(({ from_ms, to_ms }) => to_ms > now_ms && from_ms < now_ms + AHEAD_MS);
}

function decisionsSince(tx: Tx, now_ms: number): ConflictDecision[] {
  return tx
    .select()
    .from(conflictDecisions)
    .where(gte(conflictDecisions.to, now_ms))
    .orderBy(asc(conflictDecisions.decidedAt), asc(conflictDecisions.id))
    .all()
    .map(({ conflict, from, to, reason, decidedBy, decidedAt }) => ({
      conflict,
      from_ms: from,
      to_ms: to,
      reason,
      by: decidedBy as PersonId,
      at_ms: decidedAt,
    }));
}

/** Both go on: who answers for both says what is done so that they can. */
export const decideConflictAct = defineAct({
  type: "conflict.decide",
  words: "decide a conflict between two jobs",
  roles: DECIDE_CONFLICTS,
  pin: true,
  input: z.object({
    conflict: z.string().min(1).max(2000),
    from_ms: z.number().int(),
    to_ms: z.number().int(),
    reason: line("What is done so that both can go on", 500),
  }),
  run: ({ tx, person, now_ms }, { conflict, from_ms, to_ms, reason }) => {
    const there = coming(findConflicts(openWorks(tx, now_ms).works), now_ms);
    const found = there.find(({ id }) => id === conflict);
    const subject = found?.of ?? "";
    const decided = decideConflict({ by: person.id, at_ms: now_ms, conflict, from_ms, to_ms, reason }, there);
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    const { value } = decided;
    tx.insert(conflictDecisions)
      .values({
        id: randomUUID(),
        conflict,
        from: value.from_ms,
        to: value.to_ms,
        reason,
        decidedBy: value.by,
        decidedAt: value.at_ms,
      })
      .run();
    return { ok: true, subject, answer: { conflict, with: found!.with } };
  },
});
