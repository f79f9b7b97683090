/** Distances of hot work, in metres. */
export const HOT_WORK = {
  /** 35 ft: 10.668 m exactly, 11 m on signs. 29 CFR 1910.252(a)(2) and NFPA 51B, from memory. */
  clear_m: 10.668,
  /** Cylinders from the work, 25 ft. Common practice, no source. */
  cylinders_m: 7.62,
  /** A leaking cylinder from people and ignition in the open, 100 ft; 100 m for flammable gas. Common practice. */
  leakingCylinder_m: 30.48,
  leakingFlammableCylinder_m: 100,
  /** Longest permit. Common practice: a new number every day. */
  longest_s: 24 * 3600,
  /** Heaviest lift for one person, 50 lb. Common practice. */
  onePersonLift_kg: 22.68,
} as const;

/** Height at which a flame is held over its own floor, in metres. Common practice, no source. */
const HELD_AT_m = 1.5;
const GRAVITY_m_s2 = 9.81;

/** The speed at which a spark without drag gets the published 35 ft, held at 1.5 m. */
export const SPARK_SPEED_m_s = HOT_WORK.clear_m / Math.sqrt((2 * HELD_AT_m) / GRAVITY_m_s2);

/**
 * How far sideways a spark may land on what lies `drop_m` below the floor of the work, in metres: a bound. The published
 * 35 ft on one's own floor are read as the speed of a spark without drag, held at 1.5 m; falling longer it gets farther by
 * the root of the height. Real sparks are braked and land nearer. Wind is not in it.
 */
export function sparkReach_m(drop_m: number): number {
  return SPARK_SPEED_m_s * Math.sqrt((2 * (HELD_AT_m + Math.max(0, drop_m))) / GRAVITY_m_s2);
}

const HOUR = 3600;

/** The watch after the work ends: continuous, then periodic checks, then perhaps a final check. */
export type AfterWatch = Readonly<{
  id: string;
  words: string;
  continuous_s: number;
  checks_s: number;
  /** Periodic checks are no further apart than this. */
  every_s: number;
  finalCheck: boolean;
  source: string;
}>;

const EVERY_s = HOUR / 2;
const watch = (
  id: string,
  words: string,
  continuous_s: number,
  checks_s: number,
  finalCheck: boolean,
  source: string,
): AfterWatch => ({ id, words, continuous_s, checks_s, every_s: EVERY_s, finalCheck, source });

/** Watches to choose from: the published ones and four classes of area. Classes are common practice, no source. */
export const AFTER_WATCHES: readonly AfterWatch[] = [
  watch("30 min", "half an hour", HOUR / 2, 0, false, "29 CFR 1910.252(a)(2)(iii), from memory"),
  watch("60 min", "one hour", HOUR, 0, false, "NFPA 51B since 2019, from memory"),
  watch("class 1", "1 h", HOUR, 0, false, "practice"),
  watch("class 2", "1 h, then 3 h of checks", HOUR, 3 * HOUR, false, "practice"),
  watch("class 3", "3 h, then 3 h of checks and a final check", 3 * HOUR, 3 * HOUR, true, "practice"),
  watch("class 4", "24 h, then 3 h of checks and a final check", 24 * HOUR, 3 * HOUR, true, "practice"),
];

/** Times of the periodic checks after the end of work, in seconds, the final one last. */
export function checksDue_s(after: AfterWatch): number[] {
  const due: number[] = [];
  for (let at = after.continuous_s + after.every_s; at <= after.continuous_s + after.checks_s; at += after.every_s) {
    due.push(at);
  }
  return due;
}

/** Fire watches: one permit for each welder, one watch for several; several welders on one permit ask an approver. */
export function needsApprover(welders: number, permits: number): boolean {
  return welders > permits;
}
