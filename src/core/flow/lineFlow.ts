import { GAS_CONSTANT_J_mol_K, STANDARD_GRAVITY_m_s2 } from "../units/units";
import { integral } from "./quadrature";

/** A line: what a flow loses in it. */
export type Line = Readonly<{
  bore_m: number;
  length_m: number;
  roughness_m: number;
  /** Sum of the resistances of bends, valves, entrance; the exit apart. */
  fittings: number;
}>;

/** Darcy's friction factor, laminar to rough (Churchill 1977, from memory). */
export function friction(reynolds: number, relativeRoughness: number): number {
  const a = (2.457 * Math.log(1 / ((7 / reynolds) ** 0.9 + 0.27 * relativeRoughness))) ** 16;
  const b = (37_530 / reynolds) ** 16;
  return 8 * ((8 / reynolds) ** 12 + 1 / (a + b) ** 1.5) ** (1 / 12);
}

export type Liquid = Readonly<{ density_kg_m3: number; viscosity_Pa_s: number }>;

/** Speed of a liquid in a line under a head, in m/s: head = (1 + ΣK + f·L/D)·v²/2g. 0 where nothing drives it. */
export function lineSpeed_m_s(head_m: number, line: Line, liquid: Liquid): number {
  if (head_m <= 0) return 0;
  const lossAt = (speed: number) => {
    const reynolds = Math.max(1e-9, (liquid.density_kg_m3 * speed * line.bore_m) / liquid.viscosity_Pa_s);
    const f = friction(reynolds, line.roughness_m / line.bore_m);
    return ((1 + line.fittings + (f * line.length_m) / line.bore_m) * speed ** 2) / (2 * STANDARD_GRAVITY_m_s2);
  };
  // What is lost rises with speed: halve until the speed is known to the last figure.
  let [low, high] = [0, Math.sqrt(2 * STANDARD_GRAVITY_m_s2 * head_m)];
  for (let i = 0; i < 100; i++) {
    const middle = (low + high) / 2;
    if (lossAt(middle) < head_m) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * Time for an upright tank to drain from one level to another through a line whose end lies `drop_m` below the outlet, in s.
 * `push_Pa` is what presses on the liquid more than on the line's end; below 0 it holds it back.
 */
export function drainThroughLine_s(
  p: Readonly<{
    diameter_m: number;
    level_m: number;
    end_m: number;
    drop_m: number;
    push_Pa: number;
    line: Line;
    liquid: Liquid;
  }>,
): number | null {
  const headAt = (level: number) => level + p.drop_m + p.push_Pa / (p.liquid.density_kg_m3 * STANDARD_GRAVITY_m_s2);
  if (headAt(p.end_m) <= 0) return null;
  const ratio = (p.diameter_m / p.line.bore_m) ** 2;
  return integral((level) => ratio / lineSpeed_m_s(headAt(level), p.line, p.liquid), p.end_m, p.level_m);
}

export type GasLine = Readonly<{ bore_m: number; resistance: number; temperature_K: number; molar_kg: number }>;

/**
 * Mass flow of a gas through a line at one temperature, in kg/s, choked where it is, and whether it is:
 * p₁² − p₂² = G²·(R·T/M)·(ΣK + f·L/D + 2·ln(p₁/p₂)). At the end it goes no faster than sound at one temperature.
 */
export function gasThroughLine(
  from_Pa: number,
  to_Pa: number,
  { bore_m, resistance, temperature_K, molar_kg }: GasLine,
): Readonly<{ flow_kg_s: number; choked: boolean }> {
  const specific = (GAS_CONSTANT_J_mol_K * temperature_K) / molar_kg;
  const area_m2 = (Math.PI / 4) * bore_m ** 2;
  if (from_Pa <= to_Pa) return { flow_kg_s: 0, choked: false };
  // The pressure at which the flow is greatest: p₁²/p₂² − 1 = K + 2·ln(p₁/p₂).
  let [low, high] = [1 + 1e-12, Math.sqrt(1 + resistance) * 1e3 + 1e3];
  for (let i = 0; i < 200; i++) {
    const middle = Math.sqrt(low * high);
    if (middle ** 2 - 1 < resistance + 2 * Math.log(middle)) low = middle;
    else high = middle;
  }
  const critical = from_Pa / Math.sqrt(low * high);
  const choked = to_Pa < critical;
  const end = Math.max(to_Pa, critical);
  const flux = Math.sqrt((from_Pa ** 2 - end ** 2) / (specific * (resistance + 2 * Math.log(from_Pa / end))));
  return { flow_kg_s: flux * area_m2, choked };
}

/** Time for a volume of gas to go down through a line, all at one temperature, in s. */
export function gasDownThroughLine_s(
  p: Readonly<{ volume_m3: number; start_Pa: number; end_Pa: number; ambient_Pa: number; line: GasLine }>,
): number {
  const perPascal = (p.volume_m3 * p.line.molar_kg) / (GAS_CONSTANT_J_mol_K * p.line.temperature_K);
  // Over the logarithm: what falls by decades is spread evenly.
  return integral(
    (log) => {
      const pressure = p.ambient_Pa + Math.exp(log);
      return (perPascal * Math.exp(log)) / gasThroughLine(pressure, p.ambient_Pa, p.line).flow_kg_s;
    },
    Math.log(p.end_Pa - p.ambient_Pa),
    Math.log(p.start_Pa - p.ambient_Pa),
  );
}

/** A point of a line: how far along, and how high its inside lies. */
export type Station = Readonly<{ along_m: number; height_m: number }>;

/**
 * What a line that was full keeps standing when both its ends are open to the air: at each point up to the lower of the highest
 * points to either side. In m of liquid over each point.
 */
export function headsLeft_m(stations: readonly Station[]): number[] {
  return stations.map(({ height_m }, at) => {
    const left = Math.max(...stations.slice(0, at + 1).map((one) => one.height_m));
    const right = Math.max(...stations.slice(at).map((one) => one.height_m));
    return Math.min(left, right) - height_m;
  });
}
