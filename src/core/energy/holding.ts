import { STANDARD_GRAVITY_m_s2 } from "../units/units";

/** A sling leg may lean no farther than this from the vertical. Practice. */
export const MOST_LEAN_rad = Math.PI / 3;

/** Legs that carry: a rigid load on three or four hangs on two of them. */
export function legsThatCarry(legs: number): number {
  return Math.min(2, legs);
}

/** Pull in each leg, in N: W/(n·cos β), β from the vertical. */
export function slingTension_N(mass_kg: number, legs: number, lean_rad: number): number {
  return (mass_kg * STANDARD_GRAVITY_m_s2) / (legsThatCarry(legs) * Math.cos(lean_rad));
}

/** Where a load that comes off may land, from under the hook, in m: its own half, and what it flies while it falls. */
export function dropZone_m(half_m: number, height_m: number, speed_m_s: number): number {
  return half_m + speed_m_s * Math.sqrt((2 * height_m) / STANDARD_GRAVITY_m_s2);
}

/** Shear in a round pin and pressure on the plate that it bears on, in Pa. `planes`: 1 for single shear, 2 for double. */
export function pinStresses_Pa(
  p: Readonly<{ force_N: number; diameter_m: number; plate_m: number; planes: number }>,
): Readonly<{ shear_Pa: number; bearing_Pa: number }> {
  const area = (Math.PI / 4) * p.diameter_m ** 2;
  return { shear_Pa: p.force_N / (p.planes * area), bearing_Pa: p.force_N / (p.diameter_m * p.plate_m) };
}

/** Shear at which a metal yields, as a share of its yield in tension (von Mises). */
export const SHEAR_YIELD = 1 / Math.sqrt(3);
