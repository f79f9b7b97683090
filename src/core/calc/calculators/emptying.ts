import {
  blowdownBetween_s,
  blowdownTime_s,
  pressureRate_Pa_s,
  unchokedBelow_Pa,
  type Blowdown,
  type Heating,
} from "../../flow/blowdown";
import { friction, gasDownThroughLine_s } from "../../flow/lineFlow";
import { staticHead_Pa } from "../../flow/staticHead";
import {
  drainFrom,
  drainTime_s,
  liquid_m3,
  stopsAt_m,
  tankHeight_m,
  timedTo_m,
  type Drain,
} from "../../flow/tankDrain";
import { duration, figure } from "../../units/format";
import { GAS_CONSTANT_J_mol_K, STANDARD_ATMOSPHERE_Pa } from "../../units/units";
import { NoFigure, passedAt, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";

const CROWL_SOURCES = "Torricelli; Crowl and Louvar, Chemical Process Safety, chapter on source models, from memory";
export const tankDrain = calculator({
  name: "tank-drain",
  task: "Empty and let the pressure go",
  title: "How long a tank drains",
  fields: {
    shape: choice("Shape", ["vertical", "horizontal", "sphere", "cone"], "a cone stands on its point"),
    diameter_m: size("Diameter", "length", { max: 1000, example: 2.4 }),
    length_m: size("Length, or height of a vertical one or a cone", "length", {
      max: 1000,
      optional: true,
      example: 3.6,
      hint: "not needed for a sphere",
    }),
    level_m: size("Level above the outlet now", "length", { max: 1000, example: 2 }),
    end_m: number("Down to", "length", { min: 0, max: 1000, default: 0 }),
    outlet_m: size("Inside diameter of the outlet", "bore", { max: 10, example: 0.05 }),
    cd: number("Discharge coefficient", "ratio", { above: 0, max: 1, example: 0.61 }),
    pad_Pa: number("Pressure on the liquid, gauge", "gauge", { min: -1.02e5, max: 4e8, default: 0 }),
    density_kg_m3: size("Density", "density", { max: 25_000, default: 1000 }),
    outlet_above_m: number("Outlet above the lowest line", "length", { min: 0, max: 1000, default: 0 }),
    inlet: choice("Gas comes in above", ["open", "shut"], "an open vent is open"),
    gas_m3: number("Gas above the liquid now", "volume", { above: 0, max: 1e7, optional: true }),
    hose_m: number("Hose or line behind the outlet, of its bore", "length", {
      min: 0,
      max: 1e5,
      default: 0,
      hint: "its end as high as the outlet; a narrower one: write its bore as the outlet's",
    }),
    roughness_m: number("Roughness of the hose", "bore", { min: 0, max: 0.01, default: 0.000_15 }),
    viscosity_Pa_s: number("Viscosity", "viscosity", { above: 0, max: 1e3, default: 0.001 }),
  },
  compute: (inputs): Calculation => {
    if (inputs.inlet === "shut" && inputs.gas_m3 === undefined) {
      throw new NoFigure("gas_m3", "is missing: with the inlet shut its pressure falls as it swells");
    }
    const above_m = inputs.outlet_above_m;
    const drain: Drain = {
      ...inputs,
      outletAbove_m: above_m,
      ...(inputs.inlet === "shut" ? { shutGas_m3: inputs.gas_m3! } : {}),
    };
    const { hose_m: length_m, roughness_m, viscosity_Pa_s } = inputs;
    const piped: Drain = length_m === 0 ? drain : { ...drain, hose: { length_m, roughness_m, viscosity_Pa_s } };
    if ((inputs.shape === "horizontal" || inputs.shape === "cone") && inputs.length_m === undefined) {
      throw new NoFigure(
        "length_m",
        `is missing: a ${inputs.shape} tank needs its ${inputs.shape === "cone" ? "height" : "length"}`,
      );
    }
    const height_m = tankHeight_m(drain);
    if (height_m !== null && inputs.level_m + above_m > height_m) {
      throw new NoFigure(
        "level_m",
        (units) => `is above the top of the tank, which is ${figure(height_m, "length", units)} high`,
      );
    }
    if (inputs.outlet_m > inputs.diameter_m) throw new NoFigure("outlet_m", "is larger than the tank");
    if (inputs.end_m >= inputs.level_m) throw new NoFigure("end_m", "must be below the level now");
    const held_m = stopsAt_m(drain);
    if (held_m > 0 && inputs.end_m <= held_m) {
      throw new NoFigure(
        "end_m",
        (units) => `is never reached: the vacuum holds the liquid up at ${figure(held_m, "length", units)}. Let air in`,
      );
    }
    const to_m = timedTo_m(piped);
    // To a little over its end behind a hose, and never said to be shorter than without one to the very end.
    const time_s = Math.max(drainTime_s({ ...piped, end_m: to_m }), drainTime_s(drain));
    const emptied_m3 = liquid_m3(drain, inputs.level_m + above_m) - liquid_m3(drain, inputs.end_m + above_m);
    const curve = passedAt(inputs.level_m, to_m, (level_m, end_m) =>
      drainTime_s({ ...drainFrom(piped, level_m), end_m }),
    );
    const pipeOutlet = inputs.outlet_m > inputs.diameter_m / 4;
    return {
      results: [
        { key: "time_s", words: "Drains in", quantity: "duration", value: time_s },
        { key: "volume_m3", words: "Comes out", quantity: "volume", value: emptied_m3 },
        {
          key: "heel_m3",
          words: "Stays below the outlet",
          quantity: "volume",
          value: liquid_m3(drain, Math.min(above_m, tankHeight_m(drain) ?? above_m)),
        },
      ],
      governs: "time_s",
      formula: "t = ∫ A(h)/(A_o·v(h)) dh, h + p/(ρ·g) = (1/C_d² + f·L/D)·v²/2g, f of the hose by Churchill",
      source: `${CROWL_SOURCES}; Churchill 1977, from memory`,
      validity: "A vented tank, an outlet much smaller than the tank, a hose that lies level and stays full.",
      warnings: [
        "A tank that is not vented builds a vacuum, stops draining, and may collapse: let air in.",
        ...(inputs.pad_Pa > 0 && inputs.inlet === "open"
          ? ["The pressure is taken to stay: with its inlet shut it falls, and this takes longer or stops."]
          : []),
        ...(to_m > inputs.end_m
          ? ["Timed to a little over the end: through a hose the last of it runs ever slower, and is washed out."]
          : []),
        ...(above_m > 0 ? ["What stays below the outlet is pumped or washed out; drained is not empty."] : []),
        ...(pipeOutlet ? ["The outlet is more than a quarter of the tank: the formula no longer holds."] : []),
      ],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "level", quantity: "length" },
        series: [{ words: "level above the outlet", points: curve }],
        lines: inputs.end_m > 0 ? [{ y: inputs.end_m, words: "down to" }] : [],
        marks: [{ x: time_s, y: to_m, words: duration(time_s) }],
        bands: [],
      },
    };
  },
});

export const gas = {
  gamma: number("Heat capacity ratio", "ratio", {
    above: 1,
    max: 1.67,
    example: 1.4,
    hint: "air, nitrogen, hydrogen 1.4; steam 1.3",
  }),
  molar_kg: number("Molar mass", "molar", { above: 0, max: 0.4, example: 0.02896 }),
} as const;

export const blowdown = calculator({
  name: "blowdown",
  task: "Empty and let the pressure go",
  title: "How long a gas blows down",
  fields: {
    volume_m3: size("Volume of gas", "volume", { max: 1e6, example: 4 }),
    start_Pa: size("Pressure now, absolute", "pressure", { max: 4e8, example: 11e5 }),
    end_Pa: size("Down to, absolute", "pressure", { max: 4e8, example: 1.02e5 }),
    temperature_K: size("Temperature", "kelvin", { max: 3000, example: 293.15 }),
    orifice_m: size("Inside diameter of the vent", "bore", { max: 10, example: 0.015 }),
    line_m: size("Inside diameter of its line", "bore", { max: 10, optional: true }),
    line_length_m: number("Length of its line", "length", { min: 0, max: 1e5, optional: true }),
    cd: number("Discharge coefficient", "ratio", { above: 0, max: 1, example: 0.8 }),
    ...gas,
    ambient_Pa: size("Pressure outside, absolute", "pressure", { max: 4e8, default: STANDARD_ATMOSPHERE_Pa }),
    phase: choice("What is in it", ["gas", "liquid that flashes"]),
  },
  compute: (inputs): Calculation => {
    if (inputs.phase === "liquid that flashes") {
      throw new NoFigure(
        "phase",
        "keeps boiling as its pressure falls: this sum does not hold for LPG, ammonia or CO₂",
      );
    }
    const blow: Blowdown = inputs;
    if (inputs.line_m !== undefined && inputs.orifice_m > inputs.line_m) {
      throw new NoFigure("orifice_m", "is larger than its line: the line decides, so write its size here");
    }
    if (inputs.end_Pa < inputs.ambient_Pa) {
      throw new NoFigure("end_Pa", "is never reached: it is below the pressure outside");
    }
    if (inputs.end_Pa >= inputs.start_Pa) throw new NoFigure("end_Pa", "must be below the pressure now");
    const isothermal_s = blowdownTime_s(blow, "isothermal");
    const adiabatic_s = blowdownTime_s(blow, "adiabatic");
    const line_s = throughLine_s(inputs);
    const time_s = Math.max(isothermal_s, adiabatic_s, line_s ?? 0);
    const end_K = inputs.temperature_K * (inputs.end_Pa / inputs.start_Pa) ** ((inputs.gamma - 1) / inputs.gamma);
    const [high, low] = [inputs.start_Pa - inputs.ambient_Pa, inputs.end_Pa - inputs.ambient_Pa].map(Math.sqrt) as [
      number,
      number,
    ];
    const curve = (heating: Heating) =>
      passedAt(
        inputs.start_Pa,
        inputs.end_Pa,
        (from, to) => blowdownBetween_s(blow, heating, from, to),
        (share) => inputs.ambient_Pa + (high + (low - high) * share) ** 2,
      );
    const unchoked_Pa = unchokedBelow_Pa(inputs);
    const choked_s =
      inputs.start_Pa <= unchoked_Pa
        ? 0
        : blowdownTime_s({ ...blow, end_Pa: Math.max(inputs.end_Pa, unchoked_Pa) }, "isothermal");
    const firstFlow_kg_s =
      (-pressureRate_Pa_s(blow, "isothermal", inputs.start_Pa) * inputs.volume_m3 * inputs.molar_kg) /
      (GAS_CONSTANT_J_mol_K * inputs.temperature_K);
    return {
      results: [
        { key: "time_s", words: "Wait at least", quantity: "duration", value: time_s },
        { key: "isothermal_s", words: "kept warm (isothermal)", quantity: "duration", value: isothermal_s },
        { key: "adiabatic_s", words: "without heat (adiabatic)", quantity: "duration", value: adiabatic_s },
        ...(line_s === null
          ? []
          : [{ key: "line_s", words: "through its line alone", quantity: "duration" as const, value: line_s }]),
        { key: "end_K", words: "What is left may be as cold as", quantity: "kelvin", value: end_K },
        {
          key: "rewarmed_Pa",
          words: "Shut in and warm again it stands at, absolute",
          quantity: "pressure",
          value: (inputs.end_Pa * inputs.temperature_K) / end_K,
        },
        { key: "choked_s", words: "of it choked, at the speed of sound", quantity: "duration", value: choked_s },
        { key: "first_kg_s", words: "At the start, mass a second", quantity: "mass", value: firstFlow_kg_s },
      ],
      governs: "time_s",
      because:
        line_s !== null && line_s === time_s
          ? "Its line lets by less than the hole: the line decides."
          : "The truth lies between the two bounds; the longer is safe to wait.",
      formula: "V·dρ/dt = −ṁ, choked while P/Pₐ is above ((γ+1)/2)^(γ/(γ−1)), then subsonic",
      source: "textbook balances of an ideal gas through a hole",
      validity: "An ideal gas, one volume, one hole; not a liquid that boils as it falls.",
      warnings: [
        "See the gauge at zero and the bleed quiet: a plugged bleed also shows nothing.",
        ...(end_K < BRITTLE_K
          ? ["Cold enough to make plain steel brittle: let it down slowly, and do not strike it."]
          : []),
        ...(end_K < inputs.temperature_K - 1
          ? ["Shut in while cold, its pressure comes back: keep the vent open."]
          : []),
        ...(inputs.start_Pa > REAL_Pa ? ["Above 50 bar a real gas is not an ideal one: the times are rough."] : []),
        ...(inputs.line_length_m === undefined ? ["Its line is not counted: give its length where there is one."] : []),
      ],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "pressure, absolute", quantity: "pressure" },
        series: [
          { words: "isothermal", points: curve("isothermal") },
          { words: "adiabatic", points: curve("adiabatic"), dashed: true },
        ],
        lines: [{ y: inputs.end_Pa, words: "down to" }],
        marks: [{ x: time_s, y: inputs.end_Pa, words: duration(time_s) }],
        bands: choked_s > 0 ? [{ from: 0, to: choked_s, words: "choked" }] : [],
      },
    };
  },
});

/** Plain carbon steel is not trusted below this. Practice. */
const BRITTLE_K = 244;
const REAL_Pa = 50e5;
/** Roughness of used steel pipe, in m. */
const STEEL_m = 0.000_15;

/** Through the line behind the hole, at one temperature; null where nobody gave its length. */
function throughLine_s(
  p: Omit<Blowdown, "cd" | "gamma"> & Readonly<{ line_m?: number | undefined; line_length_m?: number | undefined }>,
): number | null {
  if (p.line_length_m === undefined || p.end_Pa <= p.ambient_Pa) return null;
  const bore_m = p.line_m ?? p.orifice_m;
  const resistance = 1.5 + (friction(1e8, STEEL_m / bore_m) * p.line_length_m) / bore_m;
  return gasDownThroughLine_s({
    ...p,
    line: { bore_m, resistance, temperature_K: p.temperature_K, molar_kg: p.molar_kg },
  });
}

export const staticHead = calculator({
  name: "static-head",
  task: "Empty and let the pressure go",
  title: "Pressure under a column of liquid",
  fields: {
    density_kg_m3: size("Density", "density", { max: 25_000, example: 1000 }),
    height_m: number("Height of the column", "length", { min: 0, max: 5000, example: 10 }),
  },
  compute: ({ density_kg_m3, height_m }): Calculation => {
    const at = (height: number) => staticHead_Pa({ density_kg_m3, height_m: height });
    return {
      results: [{ key: "pressure_Pa", words: "Pressure at the low point", quantity: "gauge", value: at(height_m) }],
      governs: "pressure_Pa",
      formula: "p = ρ·g·h",
      source: "arithmetic",
      validity: "A still column. A line through a valley holds it with both its ends open to the air.",
      warnings: [],
      picture: {
        kind: "curve",
        x: { words: "height above the low point", quantity: "length" },
        y: { words: "pressure", quantity: "gauge" },
        series: [{ words: "under the column", points: sampled(0, Math.max(height_m, 0.1), at, 20) }],
        lines: [],
        marks: [{ x: height_m, y: at(height_m), words: "this column" }],
        bands: [],
      },
    };
  },
});
