import type { PlannedStep, StepKind } from "../procedure/steps";

/** Lock, tag, proof and try remain; the box and what several people do to each other are not there. */
const KEPT: ReadonlySet<StepKind> = new Set<StepKind>([
  "tell",
  "stop",
  "lock",
  "prove",
  "try start",
  "clear",
  "guards",
  "tell all",
  "unlock",
]);

/**
 * The steps of a minor isolation: those of its plan but for the lock box, the counting of others and the start, which is the
 * operator's who takes it back. Each says that it is done alone. What waited for a step that is not there waits for what that
 * one waited for. Cost: linear in the steps and their waits.
 */
export function minorSteps(planned: readonly PlannedStep[]): PlannedStep[] {
  const waits = new Map<string, readonly string[]>();
  const kept: PlannedStep[] = [];
  for (const step of planned) {
    const after = [...new Set(step.after.flatMap((id) => waits.get(id) ?? [id]))];
    if (!KEPT.has(step.kind)) {
      waits.set(step.id, after);
      continue;
    }
    const words =
      step.kind === "tell all"
        ? `Tell the operator that ${step.subject} comes back, that nobody works on it any more and that the lock comes off now. They take it and start it by the normal controls.`
        : step.words;
    kept.push({ ...step, after, words, alone: true });
  }
  return kept;
}

/** Whether an isolation was approved by the short route: one person does all of it, alone. */
export function isMinor(steps: readonly Pick<PlannedStep, "alone">[]): boolean {
  return steps.some(({ alone }) => alone === true);
}
