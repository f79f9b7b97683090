/** Energy of a kilogram of TNT as ASME PCC-2 takes it, J/kg, from memory. */
export const TNT_J_kg = 4.267e6;
/** Scaled distance of ASME PCC-2's pressure-test article for people, m/kg^⅓, from memory. */
const SCALED_m = 20;
/** Least distances by energy: 30 m to 135.5 MJ, 60 m to 271 MJ; above that the test is split. From memory. */
const BANDS = [
  { upTo_J: 135.5e6, least_m: 30 },
  { upTo_J: 271e6, least_m: 60 },
] as const;

/**
 * Energy a gas gives out expanding to the ambient without heat, in J: P·V/(γ−1)·(1−(Pₐ/P)^((γ−1)/γ)). Absolute
 * pressures; nothing at or below the ambient.
 *
 * Source: ASME PCC-2, pressure-test article, from memory: with the factors 2.5 and 0.286 for air.
 */
export function gasEnergy_J(p: { pressure_Pa: number; volume_m3: number; gamma: number; ambient_Pa: number }): number {
  const { pressure_Pa, volume_m3, gamma, ambient_Pa } = p;
  if (pressure_Pa <= ambient_Pa) return 0;
  return ((pressure_Pa * volume_m3) / (gamma - 1)) * (1 - (ambient_Pa / pressure_Pa) ** ((gamma - 1) / gamma));
}

/**
 * Distance to keep people from a pressure test with gas: the greater of R = 20·(2·TNT)^⅓ and the band's least.
 * Above the last band the test must be split; the computed distance is still said.
 */
export function keepOut(energy_J: number): { tnt_kg: number; scaled_m: number; distance_m: number; split: boolean } {
  const tnt_kg = energy_J / TNT_J_kg;
  const scaled_m = SCALED_m * Math.cbrt(2 * tnt_kg);
  const band = BANDS.find(({ upTo_J }) => energy_J <= upTo_J);
  return {
    tnt_kg,
    scaled_m,
    distance_m: Math.max(scaled_m, band?.least_m ?? BANDS[1].least_m),
    split: band === undefined,
  };
}

/** Compressibility of water, 1/Pa, at room temperature, from memory. */
export const WATER_COMPRESSIBILITY_1_Pa = 4.6e-10;

/** Energy that water gives out from the same gauge pressure, ½·β·P²·V, in J: its own stretch, without the vessel's. */
export function waterEnergy_J(p: { gauge_Pa: number; volume_m3: number; beta_1_Pa?: number }): number {
  return 0.5 * (p.beta_1_Pa ?? WATER_COMPRESSIBILITY_1_Pa) * p.gauge_Pa ** 2 * p.volume_m3;
}
