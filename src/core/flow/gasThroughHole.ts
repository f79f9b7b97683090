import { GAS_CONSTANT_J_mol_K } from "../units/units";

/** Ratio of downstream to upstream pressure at and below which a gas leaves at its own speed of sound. Air: 0.528. */
export function criticalRatio(gamma: number): number {
  return (2 / (gamma + 1)) ** (gamma / (gamma - 1));
}

/**
 * Mass flow of an ideal gas through a hole, kg/s: choked at or below the critical ratio, subsonic above it, nothing
 * without a difference. Absolute pressures in Pa, temperature in K, area in m², molar mass in kg/mol.
 *
 * Source: isentropic nozzle flow of an ideal gas with a discharge coefficient, textbook form; for air and choked flow it
 * is the well-known 0.0404·C·A·P/√T in SI.
 */
export function gasThroughHole_kg_s(p: {
  upstream_Pa: number;
  downstream_Pa: number;
  temperature_K: number;
  area_m2: number;
  cd: number;
  gamma: number;
  molar_kg: number;
}): number {
  const { upstream_Pa, downstream_Pa, temperature_K, area_m2, cd, gamma, molar_kg } = p;
  if (downstream_Pa >= upstream_Pa) return 0;
  const ratio = Math.max(downstream_Pa / upstream_Pa, criticalRatio(gamma));
  const specific = GAS_CONSTANT_J_mol_K / molar_kg;
  const speed = ((2 * gamma) / (gamma - 1)) * (ratio ** (2 / gamma) - ratio ** ((gamma + 1) / gamma));
  return cd * area_m2 * upstream_Pa * Math.sqrt(Math.max(0, speed) / (specific * temperature_K));
}
