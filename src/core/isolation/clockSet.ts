import type { WalkStep } from "./isolation";

/**
 * A step as it stands once a clock that had been ahead is set right: nothing of it happened later than that moment, as `right`
 * says of each time, and what was proved before is proved again, for nobody knows how old it is, nor what it came before.
 */
export function afterClockSet(step: WalkStep, right: (at_ms: number) => number): WalkStep {
  const { done, begun, stuck, failures } = step;
  const timed = <T extends Readonly<{ at_ms: number }>>(one: T): T => ({ ...one, at_ms: right(one.at_ms) });
  const proved = step.kind === "prove" && done !== null && !done.skipped;
  return {
    ...step,
    done: done && { ...timed(done), ...(proved ? { evidence: { ...done.evidence, wrongClock: true } } : {}) },
    stuck: stuck && timed(stuck),
    ...(begun ? { begun: timed(begun) } : {}),
    ...(failures ? { failures: failures.map(timed) } : {}),
  };
}
