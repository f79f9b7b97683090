import { GAS_CONSTANT_J_mol_K } from "../units/units";

export const WORK_RATES = ["at rest", "light", "moderate", "heavy"] as const;
export type WorkRate = (typeof WORK_RATES)[number];

/**
 * What one person takes and gives, in m³/s of oxygen and carbon dioxide. By the work from memory of physiology tables: 0.3, 0.8,
 * 1.5 and 2.5 L of oxygen a minute, 0.85 to 1 parts of carbon dioxide for each; taken as 1 where it builds up.
 */
const OXYGEN_L_min: Readonly<Record<WorkRate, number>> = { "at rest": 0.3, light: 0.8, moderate: 1.5, heavy: 2.5 };

export function breathes_m3_s(rate: WorkRate): number {
  return OXYGEN_L_min[rate] / 1000 / 60;
}

/** Volume of vapour that so much liquid makes, in m³/s, as an ideal gas. */
export function vapour_m3_s(
  p: Readonly<{ mass_kg_s: number; molar_kg: number; temperature_K: number; ambient_Pa: number }>,
): number {
  return (p.mass_kg_s / p.molar_kg) * ((GAS_CONSTANT_J_mol_K * p.temperature_K) / p.ambient_Pa);
}

/** Flow of air that keeps a well-mixed space at a limit, in m³/s; null where the supply holds as much already. */
export function flowToHold_m3_s(
  p: Readonly<{ generation_m3_s: number; mixing: number; limit: number; supply: number }>,
): number | null {
  return p.limit <= p.supply ? null : (p.mixing * p.generation_m3_s) / (p.limit - p.supply);
}

/** Time until a closed space, air let in by nothing, has passed from one share of a gas to another, in s. */
export function closedSpace_s(p: Readonly<{ volume_m3: number; flow_m3_s: number; from: number; to: number }>): number {
  return (Math.abs(p.to - p.from) * p.volume_m3) / p.flow_m3_s;
}
