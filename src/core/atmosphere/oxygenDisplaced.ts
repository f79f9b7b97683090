/** Oxygen in clean dry air, as a fraction; entry is refused below the limit. 29 CFR 1910.146(b), from memory. */
export const AIR_OXYGEN = 0.209;
export const LEAST_OXYGEN = 0.195;

export type Displaced = Readonly<{ endsAt: number; time_s: number | null }>;

/**
 * How an inert leak into a well-mixed, ventilated room takes its oxygen.
 *
 *   V·dC/dt = Q·C_air − (Q + G)·C,   C∞ = C_air·Q/(Q + G)
 *
 * Time from clean air to `limit`, null where ventilation keeps it above. Fractions of 1, m³ and m³/s.
 * Source: well-mixed balance; checked against an ODE solver.
 */
export function oxygenDisplaced(p: {
  volume_m3: number;
  leak_m3_s: number;
  ventilation_m3_s: number;
  limit?: number;
}): Displaced {
  const { volume_m3, leak_m3_s, ventilation_m3_s, limit = LEAST_OXYGEN } = p;
  const through_m3_s = ventilation_m3_s + leak_m3_s;
  const endsAt = (AIR_OXYGEN * ventilation_m3_s) / through_m3_s;
  if (endsAt >= limit) return { endsAt, time_s: null };
  return { endsAt, time_s: (volume_m3 / through_m3_s) * Math.log((AIR_OXYGEN - endsAt) / (limit - endsAt)) };
}

/** Oxygen in the room after a while of leaking. */
export function oxygenAfter(
  p: { volume_m3: number; leak_m3_s: number; ventilation_m3_s: number },
  time_s: number,
): number {
  const through_m3_s = p.ventilation_m3_s + p.leak_m3_s;
  const endsAt = (AIR_OXYGEN * p.ventilation_m3_s) / through_m3_s;
  return endsAt + (AIR_OXYGEN - endsAt) * Math.exp((-time_s * through_m3_s) / p.volume_m3);
}
