import type { WalkStep } from "./isolation";
import { isDone } from "./failures";
import { lockedPoints } from "./lockedPoints";
import { stepLabel, type PlannedStep } from "../procedure/steps";

/** Doing these once is enough, whatever the new plan adds before them: what is locked stays locked. */
const STAYS: ReadonlySet<PlannedStep["kind"]> = new Set<PlannedStep["kind"]>(["tell", "stop", "lock", "verify"]);

/**
 * The steps of a new plan with what was done under the old one. A lock that hangs is never forgotten: where the new plan
 * does not want it, its steps stay, and it is lifted on the way back like any other. Telling, stopping, locks and their
 * second looks count as done; everything after them counts only if all that the new plan puts before it is done too, so
 * a bleed or a proof that came before a new lock is done again.
 *
 * Ids are given anew, for the old plan's ids may mean other steps. Cost: linear in steps.
 */
export function mergeSteps(old: readonly WalkStep[], planned: readonly PlannedStep[]): WalkStep[] {
  const doneBefore = new Map(old.filter(isDone).map((step) => [keyOf(step), step]));
  // What failed stays on record, and has to be answered under the new plan as under the old.
  const failedBefore = new Map(old.flatMap((step) => (step.failures ? [[keyOf(step), step.failures] as const] : [])));
  const wanted = new Set(planned.map(keyOf));
  const rename = (id: string) => `n${id}`;
  const doneIds = new Set<string>();
  const failuresOf = (step: PlannedStep): Pick<WalkStep, "failures"> => {
    const failures = failedBefore.get(keyOf(step));
    return failures === undefined ? {} : { failures };
  };
  const merged = planned.map((step): WalkStep => {
    const id = rename(step.id);
    const after = step.after.map(rename);
    const was = doneBefore.get(keyOf(step));
    const stays = STAYS.has(step.kind);
    if (!was || (!stays && after.some((one) => !doneIds.has(one))))
      return { ...step, id, after, done: null, stuck: null, ...failuresOf(step) };
    doneIds.add(id);
    return {
      ...step,
      id,
      after: after.filter((one) => doneIds.has(one)),
      done: was.done,
      stuck: null,
      ...failuresOf(step),
    };
  });
  // Locks that hang and are wanted no more: kept, with their way back after everything else is shut.
  const hanging = lockedPoints({ steps: old }).filter((step) => !wanted.has(keyOf(step)));
  const kept = hanging.flatMap((lock): WalkStep[] => {
    const back = old.find(
      (step) => step.phase === "restore" && step.kind === "unlock" && step.subject === lock.subject,
    );
    if (back === undefined) throw new Error(`${lock.subject} has no step that unlocks it`);
    const before = merged.filter((step) => step.kind === "tell all").map(({ id }) => id);
    return [
      { ...lock, id: rename(`x${lock.id}`), after: [] },
      { ...back, id: rename(`x${back.id}`), after: before },
    ];
  });
  const last = merged.find((step) => step.kind === "start");
  const unlocks = kept.filter((step) => step.kind === "unlock").map(({ id }) => id);
  return [
    ...merged.map((step) => (step === last ? { ...step, after: [...step.after, ...unlocks] } : step)),
    ...kept,
  ].sort((a, b) => phaseOrder(a) - phaseOrder(b));
}

/** What was signed counts only for the same list: other losses are other words. */
function keyOf(step: PlannedStep): string {
  const list = step.kind === "accept losses" ? ` ${step.words}` : "";
  return `${step.phase} ${stepLabel(step)}${list}`;
}

function phaseOrder(step: PlannedStep): number {
  return step.phase === "isolate" ? 0 : 1;
}
