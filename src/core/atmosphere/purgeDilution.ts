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

/**
 * Reached by sweeping, at once where it is there already and stays there; or not, with what the space ends at, and
 * where it rises past what was asked, how soon.
 */
export type SweepTime =
  | Readonly<{ reached: true; already: boolean; time_s: number; endsAt: number }>
  | Readonly<{ reached: false; endsAt: number; past_s: number | null }>;

/** What a swept space ends at: C∞ = Cₛ + K·G/Q. */
export function endConcentration({ flow_m3_s, cs = 0, mixing = 1, generation_m3_s = 0 }: Sweep): number {
  return cs + (mixing * generation_m3_s) / flow_m3_s;
}

/**
 * Time to sweep a space from c0 to c.
 *
 *   t = K·V/Q · ln((C₀ − C∞)/(C − C∞)),   C∞ = Cₛ + K·G/Q
 *
 * Rising to c is what was wanted only where the supply itself carries as much: fresh air into a space short of oxygen.
 * Otherwise c is a limit: below it now and for good is reached already, passing it on the way up is never reached.
 *
 * Source: D. A. Crowl and J. F. Louvar, Chemical Process Safety, chapter on purging (sweep-through), from memory; with a
 * source inside, the same balance solved with it.
 */
export function purgeTime(sweep: Sweep): SweepTime {
  const { volume_m3, flow_m3_s, c0, c, mixing = 1 } = sweep;
  const endsAt = endConcentration(sweep);
  const { cs = 0 } = sweep;
  if (!Number.isFinite(endsAt)) return { reached: false, endsAt, past_s: null };
  const to_s = (ratio: number) => ((mixing * volume_m3) / flow_m3_s) * Math.log(ratio);
  const ratio = (c0 - endsAt) / (c - endsAt);
  if (c < c0) {
    // Between c0 and the end the ratio is at least 1; beyond the end it is below 0.
    const falls = Number.isFinite(ratio) && ratio >= 1;
    return falls
      ? { reached: true, already: false, time_s: to_s(ratio), endsAt }
      : { reached: false, endsAt, past_s: null };
  }
  if (c > c0 && cs > c0) {
    const wanted = cs >= c && Number.isFinite(ratio) && ratio >= 1;
    return wanted
      ? { reached: true, already: false, time_s: to_s(ratio), endsAt }
      : { reached: false, endsAt, past_s: null };
  }
  if (endsAt <= c) return { reached: true, already: true, time_s: 0, endsAt };
  return { reached: false, endsAt, past_s: to_s(ratio) };
}

/** Concentration after a while of sweeping. */
export function concentrationAfter(sweep: Sweep, time_s: number): number {
  const endsAt = endConcentration(sweep);
  return endsAt + (sweep.c0 - endsAt) * Math.exp((-time_s * sweep.flow_m3_s) / ((sweep.mixing ?? 1) * sweep.volume_m3));
}
