import type { WorkRate } from "./ventilation";

/** What a person breathes, in m³/s, in apparatus: 40 L/min at moderate work, 60 and more at heavy. From memory; practice. */
const BREATHES_L_min: Readonly<Record<WorkRate, number>> = { "at rest": 20, light: 30, moderate: 40, heavy: 60 };

export function airUse_m3_s(rate: WorkRate): number {
  return BREATHES_L_min[rate] / 1000 / 60;
}

/** Pressure at which a set's whistle blows, gauge, where its sheet says nothing. */
export const WHISTLE_Pa = 50e5;

/** How long a set lasts until its whistle, in s; the way out is walked on what is left then, or taken off before. */
export function setLasts_s(
  p: Readonly<{ volume_m3: number; filled_Pa: number; reserve_Pa: number; use_m3_s: number; ambient_Pa: number }>,
): number {
  return Math.max(0, (p.volume_m3 * (p.filled_Pa - p.reserve_Pa)) / p.ambient_Pa / p.use_m3_s);
}

export const HEAT_WORK = ["light", "moderate", "heavy", "very heavy"] as const;
export type HeatWork = (typeof HEAT_WORK)[number];
export const HEAT_SHARES = ["all the time", "three quarters", "half", "a quarter"] as const;
export type HeatShare = (typeof HEAT_SHARES)[number];

/**
 * Greatest wet-bulb globe temperature for work, in °C, by the share of each hour that is work (ACGIH screening values, from
 * memory): for people used to the heat, and for those who are not. Null where so much work is not done without watching each.
 */
const USED_TO_IT: Readonly<Record<HeatShare, readonly (number | null)[]>> = {
  "all the time": [31, 28, null, null],
  "three quarters": [31, 29, 27.5, null],
  half: [32, 30, 29, 28],
  "a quarter": [32.5, 31.5, 30.5, 30],
};
const NOT_USED: Readonly<Record<HeatShare, readonly (number | null)[]>> = {
  "all the time": [28, 25, null, null],
  "three quarters": [28.5, 26, 24, null],
  half: [29.5, 27, 25.5, 24.5],
  "a quarter": [30, 29, 28, 27],
};

export function heatLimit_C(work: HeatWork, share: HeatShare, used: boolean): number | null {
  return (used ? USED_TO_IT : NOT_USED)[share][HEAT_WORK.indexOf(work)]!;
}

/** What clothing adds to the reading, in °C (ACGIH, from memory): a suit that lets vapour through, and one that does not. */
export const CLOTHING = {
  "work clothes": 0,
  "double layer": 3,
  "suit that lets vapour through": 1,
  "vapour-tight suit": 11,
} as const;
export type Clothing = keyof typeof CLOTHING;
