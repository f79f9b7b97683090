/** Voltage at which a capacitor counts as discharged, here and in NEC 460.6, from memory. */
export const SAFE_V = 50;

/**
 * Time for a capacitor to bleed through a resistor down to a safe voltage, in seconds.
 *
 *   t = R · C · ln(V₀ / V_safe)
 *
 * Ideal decay, ignoring dielectric absorption: a lower bound, never a substitute for measuring. 0 at or below it.
 * Source: dV/dt = −V/(R·C) with V(0) = V₀.
 */
export function dischargeTime_s(p: {
  resistance_ohm: number;
  capacitance_F: number;
  voltage_V: number;
  target_V?: number;
}): number {
  const { resistance_ohm, capacitance_F, voltage_V, target_V = SAFE_V } = p;
  return voltage_V <= target_V ? 0 : resistance_ohm * capacitance_F * Math.log(voltage_V / target_V);
}

export const CAPACITOR_PLACES = ["bare capacitor", "drive or UPS"] as const;
export type CapacitorPlace = (typeof CAPACITOR_PLACES)[number];

/**
 * How long to wait whatever the sum says: 15 minutes for a drive or an uninterruptible supply, 5 for a bare capacitor,
 * or its plate's time where that is longer: a plate never shortens the rule. Then test and short. Common practice, no source. What NEC 460.6 and 460.28 ask
 * the maker to build in (1 minute up to 1000 V, 5 above) is no proof, and does not cover capacitors inside apparatus.
 */
export function ruleWait_s(place: CapacitorPlace, nameplate_s?: number): number {
  return Math.max(nameplate_s ?? 0, place === "drive or UPS" ? 900 : 300);
}
