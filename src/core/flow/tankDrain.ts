import { STANDARD_ATMOSPHERE_Pa, STANDARD_GRAVITY_m_s2 } from "../units/units";
import { lineSpeed_m_s } from "./lineFlow";
import { integral } from "./quadrature";

export const TANK_SHAPES = ["vertical", "horizontal", "sphere", "cone"] as const;
/** A cone stands on its point, the outlet there; the others drain from their lowest line. */
export type TankShape = (typeof TANK_SHAPES)[number];

export type Tank = Readonly<{
  shape: TankShape;
  diameter_m: number;
  /** Of a horizontal cylinder its length, of a vertical one or a cone its height; not used for a sphere. */
  length_m?: number;
}>;

export type Drain = Tank &
  Readonly<{
    /** Above the outlet. */
    level_m: number;
    end_m: number;
    outlet_m: number;
    cd: number;
    /** Gauge pressure on the liquid; below 0 a vacuum holds it up. */
    pad_Pa: number;
    density_kg_m3: number;
    /** Height of the outlet over the lowest line of the tank; what lies below it stays. 0 where not said. */
    outletAbove_m?: number;
    /** Gas over the liquid that nothing feeds: its pressure falls as it swells. Left out where its inlet is open. */
    shutGas_m3?: number;
    /** Outside, absolute; asked for with `shutGas_m3`. */
    ambient_Pa?: number;
    /** A hose or line of the outlet's bore behind it, its end as high as the outlet. Left out where it runs free. */
    hose?: Hose;
  }>;

export type Hose = Readonly<{ length_m: number; roughness_m: number; viscosity_Pa_s: number }>;

/** Height of the tank that the level cannot exceed; null where the register has none. */
export function tankHeight_m({ shape, diameter_m, length_m }: Tank): number | null {
  return shape === "horizontal" || shape === "sphere" ? diameter_m : length_m ? length_m : null;
}

/** Area of the surface at a level, in m². */
export function surface_m2({ shape, diameter_m: d, length_m: l = 0 }: Tank, level_m: number): number {
  switch (shape) {
    case "vertical":
      return (Math.PI / 4) * d * d;
    case "horizontal":
      return 2 * l * Math.sqrt(Math.max(0, level_m * (d - level_m)));
    case "sphere":
      return Math.PI * level_m * Math.max(0, d - level_m);
    case "cone":
      return (Math.PI / 4) * (d * (level_m / l)) ** 2;
  }
}

/** Liquid below a level, in m³: the closed forms of each shape. */
export function liquid_m3({ shape, diameter_m: d, length_m: l = 0 }: Tank, level_m: number): number {
  const h = level_m;
  switch (shape) {
    case "vertical":
      return (Math.PI / 4) * d * d * h;
    case "horizontal": {
      const r = d / 2;
      const cosine = Math.min(1, Math.max(-1, (r - h) / r));
      return l * (r * r * Math.acos(cosine) - (r - h) * Math.sqrt(Math.max(0, 2 * r * h - h * h)));
    }
    case "sphere":
      return (Math.PI * h * h * (3 * (d / 2) - h)) / 3;
    case "cone":
      return (Math.PI / 12) * (d * (h / l)) ** 2 * h;
  }
}

/** Level at and below which a vacuum on the liquid stops the drain; 0 without one. */
export function heldUpAt_m({ pad_Pa, density_kg_m3 }: Pick<Drain, "pad_Pa" | "density_kg_m3">): number {
  return Math.max(0, -pad_Pa / (density_kg_m3 * STANDARD_GRAVITY_m_s2));
}

/** Level over the outlet at which a shut-in gas no longer presses it out, in m; 0 where it all comes. */
export function stopsAt_m(drain: Drain): number {
  if (drain.shutGas_m3 === undefined) return heldUpAt_m(drain);
  if (headAt_m(drain, 0) > 0) return 0;
  let [stops, runs] = [0, drain.level_m];
  for (let i = 0; i < 100; i++) {
    const middle = (stops + runs) / 2;
    if (headAt_m(drain, middle) > 0) runs = middle;
    else stops = middle;
  }
  return runs;
}

/** What drives the liquid out at a level over the outlet, in m of liquid. */
function headAt_m(drain: Drain, level_m: number): number {
  return level_m + padAt_Pa(drain, level_m) / (drain.density_kg_m3 * STANDARD_GRAVITY_m_s2);
}

/** Gauge pressure of the gas once the level has fallen so far, at one temperature. */
function padAt_Pa(drain: Drain, level_m: number): number {
  return drainFrom(drain, level_m).pad_Pa;
}

/** The same drain as it stands once its level has fallen so far: shut-in gas has swollen by what is gone. */
export function drainFrom(drain: Drain, level_m: number): Drain {
  const { pad_Pa, shutGas_m3, ambient_Pa = STANDARD_ATMOSPHERE_Pa, outletAbove_m = 0 } = drain;
  if (shutGas_m3 === undefined) return { ...drain, level_m };
  const gone_m3 = liquid_m3(drain, drain.level_m + outletAbove_m) - liquid_m3(drain, level_m + outletAbove_m);
  const swollen_m3 = shutGas_m3 + gone_m3;
  return {
    ...drain,
    level_m,
    shutGas_m3: swollen_m3,
    pad_Pa: ((pad_Pa + ambient_Pa) * shutGas_m3) / swollen_m3 - ambient_Pa,
  };
}

/** Speed in the outlet under a head, in m/s: C_d·√(2·g·h), less what the friction of a hose takes. */
function outletSpeed_m_s({ cd, outlet_m, density_kg_m3, hose }: Drain, head_m: number): number {
  if (hose === undefined || hose.length_m === 0) return cd * Math.sqrt(2 * STANDARD_GRAVITY_m_s2 * head_m);
  // The outlet is a resistance of its own: v = C_d·√(2·g·h) is h = (1 + ΣK)·v²/2g with 1 + ΣK = 1/C_d².
  const line = { ...hose, bore_m: outlet_m, fittings: 1 / cd ** 2 - 1 };
  return lineSpeed_m_s(head_m, line, { density_kg_m3, viscosity_Pa_s: hose.viscosity_Pa_s });
}

/**
 * Time to drain from one level to another through an opening, levels over the outlet, in seconds.
 *
 *   t = ∫ A(h) / (A_o·v(h)) dh, v = C_d·√(2·(g·h + p/ρ)), or under a hose h + p/(ρ·g) = (1/C_d² + f·L/D)·v²/2g
 *
 * For a vertical tank without a pad or a hose that is A_t/(C_d·A_o)·√(2/g)·(√h₁ − √h₂). Integrated over the square root of
 * the head, so that the last of the liquid, where the flow dies away, stays finite. The pad is constant, or falls as the gas
 * swells where its inlet is shut. Levels at or below `stopsAt_m` are the caller's to refuse, and so is, behind a hose, the very
 * end of the head: the creeping last of it takes for ever.
 *
 * Source: Torricelli with a discharge coefficient; D. A. Crowl and J. F. Louvar, Chemical Process Safety, chapter on
 * source models, from memory.
 *
 * @throws NotConverged behind a hose down to no head at all.
 */
export function drainTime_s(drain: Drain): number {
  const { level_m, end_m, outlet_m, pad_Pa, density_kg_m3, outletAbove_m = 0 } = drain;
  if (end_m >= level_m) return 0;
  const opening_m2 = (Math.PI / 4) * outlet_m ** 2;
  if (drain.shutGas_m3 !== undefined) {
    // Over the root of what is still to fall, which the flow dies away with where it stops.
    const fall = integral(
      (u) => {
        const level = end_m + u * u;
        return (2 * u * surface_m2(drain, level + outletAbove_m)) / outletSpeed_m_s(drain, headAt_m(drain, level));
      },
      0,
      Math.sqrt(level_m - end_m),
    );
    return fall / opening_m2;
  }
  const pad_m = pad_Pa / (density_kg_m3 * STANDARD_GRAVITY_m_s2);
  const from = Math.sqrt(Math.max(0, end_m + pad_m));
  const to = Math.sqrt(level_m + pad_m);
  const fall = integral(
    (u) => (2 * u * surface_m2(drain, u * u - pad_m + outletAbove_m)) / outletSpeed_m_s(drain, u * u),
    from,
    to,
  );
  return fall / opening_m2;
}

/** Over the outlet, in m: behind a hose the last of it runs ever slower, and what is left so low is washed or wiped out. */
const CREEPS_BELOW_m = 0.02;

/**
 * The level down to which a drain is timed: as asked, or behind a hose a little over where nothing drives it any more. In m
 * over the outlet, never above a tenth of what is still to fall.
 */
export function timedTo_m(drain: Drain): number {
  const { hose, level_m, end_m } = drain;
  if (hose === undefined || hose.length_m === 0) return end_m;
  if (headAt_m(drain, end_m) > CREEPS_BELOW_m) return end_m;
  const stops_m = stopsAt_m(drain);
  return Math.max(end_m, Math.min(stops_m + CREEPS_BELOW_m, stops_m + (level_m - stops_m) / 10));
}
