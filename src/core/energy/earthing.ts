/** Made sizes of portable earth cables, in mm². */
export const MADE_mm2 = [16, 25, 35, 50, 70, 95, 120, 150, 185, 240] as const;

/**
 * Copper that carries a fault for so long, in mm²: S = I·√t/k. k in A·√s/mm²: 159 for copper that begins at 30 °C and may
 * reach 200 (IEC 60949, from memory); the sum of its heat is a test.
 */
export function earthCable_mm2(current_A: number, time_s: number, k: number): number {
  return (current_A * Math.sqrt(time_s)) / k;
}

/** The next made size; null where none is large enough, and two are laid side by side. */
export function madeSize_mm2(area_mm2: number): number | null {
  return MADE_mm2.find((size) => size >= area_mm2) ?? null;
}

/**
 * Three-phase fault at a point: the steady current, and its greatest peak by the ratio of resistance to reactance (IEC 60909, from
 * memory): κ = 1.02 + 0.98·e^(−3·R/X).
 */
export function threePhaseFault(
  voltage_V: number,
  resistance_ohm: number,
  reactance_ohm: number,
): Readonly<{ current_A: number; peak_A: number; kappa: number }> {
  const current_A = voltage_V / (Math.sqrt(3) * Math.hypot(resistance_ohm, reactance_ohm));
  const kappa = reactance_ohm === 0 ? 1.02 : 1.02 + 0.98 * Math.exp((-3 * resistance_ohm) / reactance_ohm);
  return { current_A, peak_A: kappa * Math.SQRT2 * current_A, kappa };
}

const MU_0 = 4e-7 * Math.PI;

/** Depth at which the current in the earth may be thought to return, in m (Carson 1926, from memory). */
export function earthReturn_m(soil_ohm_m: number, frequency_Hz: number): number {
  return 658 * Math.sqrt(soil_ohm_m / frequency_Hz);
}

/** Voltage along a dead conductor beside a live circuit, by its current: E = 2π·f·(μ₀/2π)·ln(Dₑ/d)·I·L, in V. */
export function inducedVoltage_V(
  p: Readonly<{ current_A: number; length_m: number; apart_m: number; soil_ohm_m: number; frequency_Hz: number }>,
): number {
  const depth = earthReturn_m(p.soil_ohm_m, p.frequency_Hz);
  const mutual_H_m = (MU_0 / (2 * Math.PI)) * Math.log(depth / p.apart_m);
  return Math.max(0, 2 * Math.PI * p.frequency_Hz * mutual_H_m * p.current_A * p.length_m);
}

/** Energy that burns bare skin to the second degree, in J/m². 5 J/cm², 1.2 cal/cm². */
export const BURN_J_m2 = 50_000;

/**
 * Energy of an arc in open air at a distance, in J/m², as Lee (1982) bounds it, from memory: the most that the circuit can give
 * to a sphere, E = 2.142·10⁶·V·I·t/D² in kV, kA, s, mm and J/cm².
 */
export function arcByLee_J_m2(
  p: Readonly<{ voltage_V: number; current_A: number; time_s: number; at_m: number }>,
): number {
  return (2.142e6 * (p.voltage_V / 1e3) * (p.current_A / 1e3) * p.time_s * 1e4) / (p.at_m * 1e3) ** 2;
}

/**
 * The same of direct current, as Doan (2010) bounds it, from memory: half the voltage over an arc that takes half the current,
 * E = 0.01·V·(I/2)·t/D² in V, A, s, cm and cal/cm².
 */
export function arcOfDc_J_m2(
  p: Readonly<{ voltage_V: number; current_A: number; time_s: number; at_m: number }>,
): number {
  const cal_cm2 = (0.01 * p.voltage_V * (p.current_A / 2) * p.time_s) / (p.at_m * 100) ** 2;
  return cal_cm2 * 4.184 * 1e4;
}
