/**
 * Two clocks, read at one moment: the wall's, which can be set, and one that counts since the machine was started, sleep
 * included, and that nobody sets. `boot` tells one start of the machine from the next.
 */
export type Clocks = Readonly<{ wall_ms: number; up_ms: number; boot: string }>;

/** Less than this is no step: a clock is slewed by less in any time that matters here. */
export const CLOCK_STEP_MS = 60_000;

/**
 * By how much the wall's clock was set between two moments, in ms: above zero ahead, below zero back. Null where it was not,
 * or where nobody can know, for the machine was started in between.
 */
export function steppedBy_ms(then: Clocks, now: Clocks): number | null {
  if (then.boot === "" || then.boot !== now.boot) return null;
  const by_ms = now.wall_ms - then.wall_ms - (now.up_ms - then.up_ms);
  return Math.abs(by_ms) > CLOCK_STEP_MS ? by_ms : null;
}
