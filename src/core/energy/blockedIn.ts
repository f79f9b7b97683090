/**
 * Pressure rise of a liquid shut in a full pipe for each kelvin it warms, in Pa/K.
 *
 *   dP/dT = (α − 3·αₛ) / (β + D/(t·E))
 *
 * α and β the liquid's expansion and compressibility, αₛ and E the steel's expansion and stiffness, D and t the pipe's
 * diameter and wall. Without a wall the pipe is taken as rigid, which is the most. About 3 bar/K for water and 10 for oil
 * in steel pipe. Source: textbook balance of volumes.
 */
export function blockedInRise_Pa_K(p: {
  alpha_1_K: number;
  beta_1_Pa: number;
  diameter_m: number;
  wall_m?: number | undefined;
  steelAlpha_1_K?: number;
  steelModulus_Pa?: number;
}): number {
  const { steelAlpha_1_K = 1.2e-5, steelModulus_Pa = 2e11, wall_m } = p;
  const gives = wall_m === undefined ? 0 : p.diameter_m / (wall_m * steelModulus_Pa);
  return (p.alpha_1_K - 3 * steelAlpha_1_K) / (p.beta_1_Pa + gives);
}

/** Pressure at which a thin pipe begins to yield, in Pa: 2·t·σ/D (Barlow). */
export function yieldPressure_Pa(p: { diameter_m: number; wall_m: number; yield_Pa: number }): number {
  return (2 * p.wall_m * p.yield_Pa) / p.diameter_m;
}

/** Temperature in °C, expansion in 1/K, compressibility in 1/Pa. */
type Row = readonly [temperature_C: number, alpha_1_K: number, beta_1_Pa: number];

/** Water at one atmosphere; handbook values, from memory. */
const WATER: readonly Row[] = [
  [10, 0.88e-4, 4.78e-10],
  [20, 2.07e-4, 4.59e-10],
  [30, 3.03e-4, 4.48e-10],
  [40, 3.85e-4, 4.42e-10],
  [50, 4.58e-4, 4.42e-10],
  [60, 5.23e-4, 4.45e-10],
  [70, 5.84e-4, 4.52e-10],
  [80, 6.41e-4, 4.61e-10],
  [90, 6.96e-4, 4.74e-10],
  [100, 7.5e-4, 4.9e-10],
];

/** Between which temperatures water is known here, °C. */
export const WATER_RANGE_C = { least: WATER[0]![0], most: WATER.at(-1)![0] } as const;

/** Expansion and compressibility of water, read between the rows; null outside them. */
export function waterAt(temperature_C: number): { alpha_1_K: number; beta_1_Pa: number } | null {
  for (const [i, low] of WATER.entries()) {
    const high = WATER[i + 1];
    if (high === undefined || temperature_C < low[0] || temperature_C > high[0]) continue;
    const part = (temperature_C - low[0]) / (high[0] - low[0]);
    return { alpha_1_K: low[1] + part * (high[1] - low[1]), beta_1_Pa: low[2] + part * (high[2] - low[2]) };
  }
  return null;
}

/**
 * Pressure, in Pa above what it was, of water that warms from one temperature by so many kelvin: the rise summed over the
 * way, since it grows fourfold between 20 and 80 °C. Null outside what is known. Cost: 200 steps.
 */
export function waterRise_Pa(p: {
  from_C: number;
  warms_K: number;
  diameter_m: number;
  wall_m?: number | undefined;
}): number | null {
  const steps = 200;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const at = waterAt(p.from_C + ((i + 0.5) / steps) * p.warms_K);
    if (at === null) return null;
    sum += (Math.max(0, blockedInRise_Pa_K({ ...p, ...at })) * p.warms_K) / steps;
  }
  return sum;
}
