import { HOT_WORK, sparkReach_m } from "./hotWork";

/**
 * How far a flame reaches sideways to something whose floor lies `below_m` under the flame's, in metres: the published 35 ft
 * on its own floor and above, farther where sparks fall to a lower one. A floor that nobody knows to be tight lets them
 * through. A bound, see `sparkReach_m`.
 */
export function flameReach_m(below_m: number): number {
  return below_m > 0 ? Math.max(HOT_WORK.clear_m, sparkReach_m(below_m)) : HOT_WORK.clear_m;
}
