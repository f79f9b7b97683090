import { STANDARD_GRAVITY_m_s2 } from "../units/units";

/** What can fall, in J: m·g·h. Arithmetic. */
export function raisedMassEnergy_J(p: { mass_kg: number; height_m: number }): number {
  return p.mass_kg * STANDARD_GRAVITY_m_s2 * p.height_m;
}

/** What a pressed or drawn spring holds, in J: ½·k·x². Arithmetic. */
export function springEnergy_J(p: { stiffness_N_m: number; travel_m: number }): number {
  return 0.5 * p.stiffness_N_m * p.travel_m ** 2;
}

/** What a turning mass holds, in J: ½·I·ω². 120 kg·m² at 980 rpm hold 632 kJ. Arithmetic. */
export function flywheelEnergy_J(p: { inertia_kg_m2: number; speed_rpm: number }): number {
  return 0.5 * p.inertia_kg_m2 * ((p.speed_rpm * 2 * Math.PI) / 60) ** 2;
}
