import type { WalkStep } from "./isolation";

/** Points that are locked now: locked once more often than unlocked. Answers the step that hung the lock that is there. */
export function lockedPoints(life: Readonly<{ steps: readonly WalkStep[] }>): WalkStep[] {
  const balance = new Map<string, { hung: number; last: WalkStep }>();
  for (const step of life.steps) {
    if (!step.done || step.done.skipped || (step.kind !== "lock" && step.kind !== "unlock")) continue;
    const known = balance.get(step.subject);
    const hung = (known?.hung ?? 0) + (step.kind === "lock" ? 1 : -1);
    balance.set(step.subject, { hung, last: step.kind === "lock" || !known ? step : known.last });
  }
  return [...balance.values()].filter(({ hung }) => hung > 0).map(({ last }) => last);
}
