import { STANDARD_GRAVITY_m_s2 } from "../units/units";

/**
 * Pressure under a column of liquid, ρ·g·h, in Pa gauge. A line through a valley holds it at its low point with both
 * ends open to the air. Source: arithmetic; 10 m of water is 98.07 kPa.
 */
export function staticHead_Pa(p: { density_kg_m3: number; height_m: number }): number {
  return p.density_kg_m3 * STANDARD_GRAVITY_m_s2 * p.height_m;
}
