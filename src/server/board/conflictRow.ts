import type { ConflictRow } from "../../core/board/rows";
import { isOfHands } from "../../core/conflict/pair";
import { reachFigure } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";
import { conflictSentence, CONFLICT_RULES } from "../../core/words/en/conflicts";
import type { OpenConflict } from "./conflicts";

/** A conflict as a screen says it. */
export function conflictRow(
  { conflict, decision }: OpenConflict,
  nameOf: (id: string) => string,
  units: UnitSystem,
): ConflictRow {
  const near = (distance_m: number | null) =>
    distance_m === null ? "(nobody wrote down where it is)" : `(${reachFigure(distance_m, units)} off)`;
  return {
    id: conflict.id,
    of: conflict.of,
    with: conflict.with,
    words: conflictSentence(conflict, nameOf, near),
    rule: CONFLICT_RULES[conflict.kind],
    isOfHands: isOfHands(conflict),
    from_ms: conflict.from_ms,
    to_ms: conflict.to_ms,
    decided: decision && { by: nameOf(decision.by), at_ms: decision.at_ms, reason: decision.reason },
  };
}
