import { GAS_CONSTANT_J_mol_K } from "../units/units";
import { criticalRatio, gasThroughHole_kg_s } from "./gasThroughHole";
import { integral } from "./quadrature";

/**
 * Share of a valve's full opening that its seat leaks by class: II 0.5 %, III 0.1 %, IV 0.01 % of rated capacity
 * (ANSI/FCI 70-2, from memory). A seat that nobody tested has no class: what it leaks is measured.
 */
export const LEAK_SHARE = { "class II": 0.005, "class III": 0.001, "class IV": 0.0001 } as const;
export type LeakClass = keyof typeof LEAK_SHARE;

/** A gap as wide as the leak of a valve of this bore, in m². */
export function leakGap_m2(bore_m: number, leak: LeakClass): number {
  return (Math.PI / 4) * bore_m ** 2 * LEAK_SHARE[leak];
}

export type GasZone = Readonly<{
  volume_m3: number;
  gap_m2: number;
  upstream_Pa: number;
  /** In the zone at the start, and where it does harm. */
  start_Pa: number;
  harmful_Pa: number;
  temperature_K: number;
  gamma: number;
  molar_kg: number;
}>;

/**
 * Time until gas passing a shut valve brings a closed zone to a harmful pressure, in seconds; null where the supply is
 * not above it. Isothermal filling, V·dP/dt = R·T/M·ṁ, choked then subsonic; a coefficient of 1: the gap is a guess.
 * Absolute pressures. Source: textbook balance; checked against an ODE solver.
 */
export function pressureReached_s(zone: GasZone): number | null {
  const { volume_m3, gap_m2, upstream_Pa, start_Pa, harmful_Pa, temperature_K, gamma, molar_kg } = zone;
  if (harmful_Pa <= start_Pa) return 0;
  if (upstream_Pa <= harmful_Pa) return null;
  const rate_Pa_s = (downstream_Pa: number) =>
    (gasThroughHole_kg_s({ upstream_Pa, downstream_Pa, temperature_K, area_m2: gap_m2, cd: 1, gamma, molar_kg }) *
      GAS_CONSTANT_J_mol_K *
      temperature_K) /
    (molar_kg * volume_m3);
  const per_Pa = (pressure_Pa: number) => 1 / rate_Pa_s(pressure_Pa);
  const bend = Math.min(Math.max(criticalRatio(gamma) * upstream_Pa, start_Pa), harmful_Pa);
  const part = (a: number, b: number) => (b > a ? integral(per_Pa, a, b) : 0);
  return part(start_Pa, bend) + part(bend, harmful_Pa);
}

/**
 * Time until liquid passing a shut valve fills a volume, in seconds: Q = A·√(2·ΔP/ρ), a coefficient of 1. Null without a
 * pressure behind it. Source: Torricelli.
 */
export function levelReached_s(p: {
  harmful_m3: number;
  gap_m2: number;
  difference_Pa: number;
  density_kg_m3: number;
}): number | null {
  if (p.difference_Pa <= 0) return null;
  return p.harmful_m3 / (p.gap_m2 * Math.sqrt((2 * p.difference_Pa) / p.density_kg_m3));
}

/**
 * Time until liquid that comes in steadily has pressed a cushion of gas to a harmful pressure, counted from the end of the watch
 * in which it rose, in s: P·V stays, so it rises ever faster. Gauge pressures. Null where nothing rose.
 */
export function cushionReached_s(p: {
  rise_Pa: number;
  over_s: number;
  start_Pa: number;
  harmful_Pa: number;
  ambient_Pa: number;
}): number | null {
  if (p.harmful_Pa <= p.start_Pa) return 0;
  if (p.rise_Pa <= 0) return null;
  const [before, now, harmful] = [p.start_Pa - p.rise_Pa, p.start_Pa, p.harmful_Pa].map(
    (gauge) => gauge + p.ambient_Pa,
  );
  // Shares of the cushion that are gone.
  const [watched, whole] = [1 - before! / now!, 1 - before! / harmful!];
  return (whole / watched - 1) * p.over_s;
}

/** A gap that leaks so much gas, measured at the conditions outside, in m². */
export function gapOfLeak_m2(
  p: Readonly<{
    measured_m3_s: number;
    upstream_Pa: number;
    ambient_Pa: number;
    temperature_K: number;
    gamma: number;
    molar_kg: number;
  }>,
): number {
  const measured_kg_s = (p.measured_m3_s * p.ambient_Pa * p.molar_kg) / (GAS_CONSTANT_J_mol_K * p.temperature_K);
  const perArea = gasThroughHole_kg_s({ ...p, downstream_Pa: p.ambient_Pa, area_m2: 1, cd: 1 });
  return measured_kg_s / perArea;
}

/**
 * Time until a zone reaches a harmful pressure at a rise that was measured with everything shut, in seconds. The rise is
 * taken as steady: it slows as the zone fills, so this is the earliest. Null where nothing rose. Source: arithmetic.
 */
export function riseReached_s(p: {
  rise_Pa: number;
  over_s: number;
  start_Pa: number;
  harmful_Pa: number;
}): number | null {
  if (p.harmful_Pa <= p.start_Pa) return 0;
  return p.rise_Pa <= 0 ? null : ((p.harmful_Pa - p.start_Pa) * p.over_s) / p.rise_Pa;
}

/** Flow of gas leaking out of a gap at the conditions of the space it enters, m³/s. */
export function leakInto_m3_s(
  zone: Omit<GasZone, "volume_m3" | "start_Pa" | "harmful_Pa"> & { ambient_Pa: number },
): number {
  const flow_kg_s = gasThroughHole_kg_s({ ...zone, area_m2: zone.gap_m2, downstream_Pa: zone.ambient_Pa, cd: 1 });
  return (flow_kg_s * GAS_CONSTANT_J_mol_K * zone.temperature_K) / (zone.molar_kg * zone.ambient_Pa);
}
