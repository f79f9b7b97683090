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

/**
 * How near live parts people may come, by school and voltage between phases. `limited` needs escort or barriers,
 * `restricted` a permit for live work. Null: the profile has no figure, so nobody goes near.
 */
export type Approach = Readonly<{ restricted_m: number; limited_m: number; source: string }>;

const NFPA = "NFPA 70E-2021 table 130.4, fixed circuit parts, from memory";
const SITE_10KV = "working clearance at 10 kV, common practice";

export const APPROACH_SCHOOLS = ["nfpa", "working clearance"] as const;
export type ApproachSchool = (typeof APPROACH_SCHOOLS)[number];

export function approach(voltage_V: number, school: ApproachSchool): Approach | null {
  if (school === "working clearance") {
    return voltage_V <= 10_000 ? { restricted_m: 0.7, limited_m: 0.7, source: SITE_10KV } : null;
  }
  if (voltage_V <= 50) return { restricted_m: 0, limited_m: 0, source: NFPA };
  if (voltage_V <= 150) return { restricted_m: 0, limited_m: 1.07, source: `${NFPA}: avoid contact` };
  if (voltage_V <= 750) return { restricted_m: 0.3, limited_m: 1.07, source: NFPA };
  if (voltage_V <= 15_000) return { restricted_m: 0.66, limited_m: 1.5, source: NFPA };
  return null;
}

/** Least depth of an earth stake. Common practice, no source. */
export const EARTH_STAKE_m = 0.6;

/** Effects of current through a person, for explanations only. IEC 60479-1, from memory. */
export const BODY_CURRENT = { painful_A: 0.01, mayStopTheHeart_A: 0.04 } as const;
