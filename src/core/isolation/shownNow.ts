import type { NotHeld } from "../refusal/notHeld";
import { shownOf } from "./failures";
import type { WalkStep } from "./isolation";

/** Work locations that may be said to be proved now, and those of which nobody may say so. */
type Shown = Readonly<{ proven: readonly string[]; notProved: readonly string[] }>;

/**
 * What was shown of each work location, and counts now: where a proof failed or must be done again, where the plan fell and left it
 * open, and wherever nobody knows what the points still hold back, it does not.
 */
export function shownNow(steps: readonly WalkStep[], fault: NotHeld | null, stale: readonly string[]): Shown {
  const { proven, notProved } = shownOf(steps, stale);
  const all = [...new Set([...notProved, ...openBy(fault, proven)])];
  return { proven: proven.filter((face) => !all.includes(face)), notProved: all };
}

/** Work locations that a fault of the whole isolation takes with it, of those that were proven. */
function openBy(fault: NotHeld | null, proven: readonly string[]): readonly string[] {
  switch (fault?.code) {
    case undefined:
    // Its steps say themselves what is open.
    case "not proven":
      return [];
    // Without its lock, and on a register that nobody judged it by, nobody knows what a point holds back.
    case "locks not found":
    case "not judged":
      return proven;
    case "plan fell":
      return fault.lostPoints.length > 0 ? proven : [...fault.missingFaces, ...fault.short.map(({ face }) => face)];
  }
}
