/**
 * How long to wait at each test point before the reading may be taken: the hose's air must pass first, then the sensor
 * must settle.
 *
 *   t = hose volume / pump flow + 2·T₉₀
 *
 * T₉₀ is the sensor's time to 90 % of a step. Source: arithmetic; the doubled T₉₀ is common practice.
 */
export function sampleWait_s(p: { hose_m: number; bore_m: number; pump_m3_s: number; t90_s: number }): number {
  return hoseVolume_m3(p) / p.pump_m3_s + 2 * p.t90_s;
}

export function hoseVolume_m3(p: { hose_m: number; bore_m: number }): number {
  return (Math.PI / 4) * p.bore_m ** 2 * p.hose_m;
}

/** Fewest squeezes of a hand pump at each point, whatever the hose. Common practice, no source. */
const FEWEST_SQUEEZES = 6;

/** Squeezes of a hand pump at each test point: those that fill the hose, then at least six. Common practice, no source. */
export function squeezes(p: { hose_m: number; bore_m: number; bulb_m3: number }): number {
  return Math.ceil(hoseVolume_m3(p) / p.bulb_m3 - 1e-9) + FEWEST_SQUEEZES;
}

/** A sampling hose wider than this is none. */
export const HOSE_BORE_MAX_m = 0.05;
