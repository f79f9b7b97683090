import { STANDARD_GRAVITY_m_s2 } from "../units/units";

/**
 * Pressure under a column of liquid, ρ·g·h, in Pa gauge. A line through a valley holds it at its low point with both
 * ends open to the air. Source: arithmetic; 10 m of water is 98.07 kPa.
 */
export function staticHead_Pa(p: { density_kg_m3: number; height_m: number }): number {
  return p.density_kg_m3 * STANDARD_GRAVITY_m_s2 * p.height_m;
}

/**
 * How far the pressure over a liquid can push it up a suction line before it boils there, in m: (p − p_vapour)/(ρ·g). What
 * friction takes comes off it. Not above 0: it boils where it stands. Hydrostatics.
 */
export function liftable_m(p: Readonly<{ above_Pa: number; vapour_Pa: number; density_kg_m3: number }>): number {
  return (p.above_Pa - p.vapour_Pa) / (p.density_kg_m3 * STANDARD_GRAVITY_m_s2);
}
