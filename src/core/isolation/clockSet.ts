import type { WalkStep } from "./isolation";

/**
 * A step as it stands once a clock that had been ahead is set right: nothing of it happened later than that moment, as `right`
 * says of each time, and what was proved before is proved again, for nobody knows how old it is, nor what it came before. The
 * same step where nothing of it changes.
 */
export function afterClockSet(step: WalkStep, right: (at_ms: number) => number): WalkStep {
  const { done, begun, stuck, failures } = step;
  const isProof = step.kind === "prove" && done !== null && !done.skipped;
  const times = [done, begun, stuck, ...(failures ?? [])].flatMap((one) => (one ? [one.at_ms] : []));
  if (!isProof && times.every((at_ms) => right(at_ms) === at_ms)) return step;
  const timed = <T extends Readonly<{ at_ms: number }>>(one: T): T => ({ ...one, at_ms: right(one.at_ms) });
  return {
    ...step,
    done: done && { ...timed(done), ...(isProof ? { evidence: { ...done.evidence, wrongClock: true } } : {}) },
    stuck: stuck && timed(stuck),
    ...(begun ? { begun: timed(begun) } : {}),
    ...(failures ? { failures: failures.map(timed) } : {}),
  };
}

/**
 * A step as it stands once the clock was seen to have jumped ahead: what runs for a time is counted anew from that moment, for
 * nobody knows how much of it went by, and what was proved before is proved again. The same step where nothing of it changes.
 */
export function afterClockJumped(step: WalkStep, at_ms: number): WalkStep {
  const proved = afterClockSet(step, (then_ms) => then_ms);
  if (step.done === null) return step.begun ? { ...proved, begun: { ...step.begun, at_ms } } : proved;
  // A wait may run from it, as that of a capacitor does from the locks.
  if (step.done.skipped || step.phase === "restore" || step.kind === "prove") return proved;
  return { ...proved, done: { ...step.done, evidence: { ...step.done.evidence, countedFrom_ms: at_ms } } };
}
