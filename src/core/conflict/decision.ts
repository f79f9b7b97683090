import type { PersonId, Role } from "../people/roles";
import { refuse, type Result } from "../refusal/result";
import type { Conflict } from "./pair";

/** Two jobs touch, and somebody who answers for both says that they may, and what is done so that they may. */
export type ConflictDecision = Readonly<{
  conflict: string;
  /** What was decided covers this time and no more. */
  from_ms: number;
  to_ms: number;
  reason: string;
  by: PersonId;
  at_ms: number;
}>;

export const DECIDE_CONFLICTS: readonly Role[] = ["coordinator", "issuer"];

/** The decision that covers a conflict as it is now; undefined where none does. The last one counts. */
export function decisionOf(
  conflict: Pick<Conflict, "id" | "from_ms" | "to_ms">,
  decisions: readonly ConflictDecision[],
): ConflictDecision | undefined {
  const last = decisions.filter((one) => one.conflict === conflict.id).at(-1);
  return last && last.from_ms <= conflict.from_ms && conflict.to_ms <= last.to_ms ? last : undefined;
}

/** Decides a conflict that is there. One that is not there, or has become another meanwhile, is not decided. */
export function decideConflict(
  command: Readonly<{ by: PersonId; at_ms: number; conflict: string; from_ms: number; to_ms: number; reason: string }>,
  there: readonly Conflict[],
): Result<ConflictDecision> {
  const { conflict: id, by, at_ms, reason } = command;
  const found = there.find((one) => one.id === id);
  if (found === undefined) return refuse({ code: "unknown", what: "conflict", name: id });
  // Whoever decides has seen these hours, and answers for no others.
  if (found.from_ms !== command.from_ms || found.to_ms !== command.to_ms) return refuse({ code: "changed meanwhile" });
  return { ok: true, value: { conflict: id, from_ms: found.from_ms, to_ms: found.to_ms, reason, by, at_ms } };
}
