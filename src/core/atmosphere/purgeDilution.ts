/** How a well-mixed space changes while it is swept. Concentrations are fractions of 1. */
export type Sweep = Readonly<{
  volume_m3: number;
  /** Supply that really arrives, after the blower's bends. */
  flow_m3_s: number;
  /** In the space at the start, and what it must come to. */
  c0: number;
  c: number;
  /** In the supply. */
  cs?: number;
  /** 1 mixes perfectly; up to 10 where the air short-circuits or corners stand still. */
  mixing?: number;
  /** Made inside the space all the while: sludge, a leak. */
  generation_m3_s?: number;
}>;

/** Never reached, with what the space ends at; or already further than asked. */
export type SweepTime =
  Readonly<{ reached: true; time_s: number; endsAt: number }> | Readonly<{ reached: false; endsAt: number }>;

/** What a swept space ends at: C∞ = Cₛ + K·G/Q. */
export function endConcentration({ flow_m3_s, cs = 0, mixing = 1, generation_m3_s = 0 }: Sweep): number {
  return cs + (mixing * generation_m3_s) / flow_m3_s;
}

/**
 * Time to sweep a space from c0 to c.
 *
 *   t = K·V/Q · ln((C₀ − C∞)/(C − C∞)),   C∞ = Cₛ + K·G/Q
 *
 * Not reached where c does not lie between c0 and C∞. Zero where c0 is c.
 *
 * Source: D. A. Crowl and J. F. Louvar, Chemical Process Safety, chapter on purging (sweep-through), from memory; with a
 * source inside, the same balance solved with it.
 */
export function purgeTime(sweep: Sweep): SweepTime {
  const { volume_m3, flow_m3_s, c0, c, mixing = 1 } = sweep;
  const endsAt = endConcentration(sweep);
  if (c === c0) return { reached: true, time_s: 0, endsAt };
  const ratio = (c0 - endsAt) / (c - endsAt);
  // Between c0 and the end the ratio is above 1; beyond the end it is below 0, before the start between 0 and 1.
  if (!Number.isFinite(ratio) || ratio <= 1) return { reached: false, endsAt };
  return { reached: true, time_s: ((mixing * volume_m3) / flow_m3_s) * Math.log(ratio), endsAt };
}

/** Concentration after a while of sweeping. */
export function concentrationAfter(sweep: Sweep, time_s: number): number {
  const endsAt = endConcentration(sweep);
  return endsAt + (sweep.c0 - endsAt) * Math.exp((-time_s * sweep.flow_m3_s) / ((sweep.mixing ?? 1) * sweep.volume_m3));
}
