/** Small sums of electrical work, side by side because each is one line. SI throughout. */

/** Current a fault draws, U/Z, in A. Arithmetic, common practice. */
export function faultCurrent_A(p: { voltage_V: number; impedance_ohm: number }): number {
  return p.voltage_V / p.impedance_ohm;
}

/** Greatest earth resistance that keeps touch voltage within a limit, U/I_Δn, in Ω. BS 7671 table 41.5, from memory. */
export function touchResistance_ohm(p: { residual_A: number; limit_V: number }): number {
  return p.limit_V / p.residual_A;
}

/** Voltage that a test on one side of a transformer puts on the other, U₁·N₂/N₁, in V. Arithmetic. */
export function backFeed_V(p: { applied_V: number; appliedSide_V: number; otherSide_V: number }): number {
  return (p.applied_V * p.otherSide_V) / p.appliedSide_V;
}

export const SUPPLIES = ["three-phase with neutral", "three-phase without neutral", "single-phase"] as const;
export type Supply = (typeof SUPPLIES)[number];

/** Every pair of conductors to test dead: 10, 6 or 3. Common practice, no source. */
export function conductorPairs(supply: Supply): (readonly [string, string])[] {
  const conductors =
    supply === "single-phase"
      ? ["L", "N", "E"]
      : ["L1", "L2", "L3", ...(supply === "three-phase with neutral" ? ["N"] : []), "E"];
  return conductors.flatMap((one, i) => conductors.slice(i + 1).map((other) => [one, other] as const));
}

/** Least depth of an earth stake. Common practice, no source. */
export const EARTH_STAKE_m = 0.6;

/** Effects of current through a person, for explanations only. IEC 60479-1, from memory. */
export const BODY_CURRENT = { painful_A: 0.01, mayStopTheHeart_A: 0.04 } as const;
