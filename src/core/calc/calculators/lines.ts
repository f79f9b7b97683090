import {
  gasDownThroughLine_s,
  gasThroughLine,
  headsLeft_m,
  drainThroughLine_s,
  friction,
  lineSpeed_m_s,
  type Station,
} from "../../flow/lineFlow";
import { liftable_m } from "../../flow/staticHead";
import { duration, figure } from "../../units/format";
import { STANDARD_ATMOSPHERE_Pa, STANDARD_GRAVITY_m_s2, type UnitSystem } from "../../units/units";
import { NoFigure, passedAt, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { number, size } from "../fields";
import { bars, curve } from "../pictures";

const line = {
  bore_m: size("Line, bore", "bore", { max: 5, example: 0.05 }),
  length_m: number("Line, length", "length", { min: 0, max: 1e5, example: 20 }),
  fittings: number("Bends, valves, entrance: sum of resistances", "ratio", { min: 0, max: 1e4, example: 3 }),
  roughness_m: number("Roughness", "bore", { min: 0, max: 0.01, default: 0.000_15 }),
};

export const lineDrain = calculator({
  name: "line-drain",
  task: "Empty and let the pressure go",
  title: "How long a tank drains through a hose or line",
  fields: {
    diameter_m: size("Upright tank, inside diameter", "length", { max: 100, example: 2 }),
    level_m: size("Level above the outlet", "length", { max: 100, example: 2 }),
    end_m: number("Drained to", "length", { min: 0, max: 100, default: 0.02 }),
    drop_m: number("Line ends below the outlet by", "length", { min: -50, max: 500, default: 0 }),
    push_Pa: number("Pressure on the liquid more than at the line's end", "gauge", {
      min: -101_325,
      max: 1e8,
      default: 0,
    }),
    ...line,
    density_kg_m3: number("Density", "density", { above: 0, max: 20_000, default: 1000 }),
    viscosity_Pa_s: number("Viscosity", "viscosity", { above: 0, max: 1e3, default: 0.001 }),
  },
  compute: (inputs): Calculation => {
    const { level_m, end_m, drop_m, push_Pa, bore_m, density_kg_m3, viscosity_Pa_s, diameter_m } = inputs;
    if (end_m >= level_m) throw new NoFigure("end_m", "must be below the level there is");
    if (bore_m > diameter_m) throw new NoFigure("bore_m", "must not be wider than the tank");
    const liquid = { density_kg_m3, viscosity_Pa_s };
    const time = (from: number, to: number) =>
      drainThroughLine_s({ diameter_m, level_m: from, end_m: to, drop_m, push_Pa, line: inputs, liquid });
    const time_s = time(level_m, end_m);
    const head = (level: number) => level + drop_m + push_Pa / (density_kg_m3 * STANDARD_GRAVITY_m_s2);
    if (time_s === null) {
      const stops_m = level_m - head(level_m);
      if (head(level_m) <= 0) throw new NoFigure("drop_m", "and the pressure hold all of it back: nothing runs");
      const at = (units: UnitSystem) => figure(stops_m, "length", units);
      throw new NoFigure(
        "end_m",
        (units) => `is never quite reached: it slows down towards ${at(units)} above the outlet`,
      );
    }
    const speed = lineSpeed_m_s(head(level_m), inputs, liquid);
    const reynolds = (density_kg_m3 * speed * bore_m) / viscosity_Pa_s;
    return {
      results: [
        { key: "time_s", words: "Drains in", quantity: "duration", value: time_s },
        { key: "speed_m_s", words: "It begins at", quantity: "velocity", value: speed },
        { key: "flow_m3_s", words: "that is", quantity: "flow", value: speed * (Math.PI / 4) * bore_m ** 2 },
        {
          key: "friction",
          words: "Friction factor",
          quantity: "ratio",
          value: friction(Math.max(1e-9, reynolds), inputs.roughness_m / bore_m),
        },
      ],
      governs: "time_s",
      formula: "v²/2g·(1 + ΣK + f·L/D) = level + drop + push/(ρ·g); t = ∫ A/(a·v) dh; f by Churchill",
      source: "energy balance of a line; Churchill 1977, from memory",
      validity: "The line stays full and its end free. A pump, a siphon that breaks or sludge are not in it.",
      warnings: [
        ...(push_Pa > 0 ? ["The pressure is taken to stay: with its inlet shut it falls, and this takes longer."] : []),
        ...(drop_m > 8 ? ["A drop of more than 8 m may break the column: count on the level alone."] : []),
        "Air must come in above, or it stops and the tank may be drawn in.",
      ],
      picture: curve({
        x: { words: "time", quantity: "duration" },
        y: { words: "level", quantity: "length" },
        words: "level",
        points: passedAt(level_m, end_m, (from, to) => time(from, to) ?? 0),
        marks: [{ x: time_s, y: end_m, words: "drained" }],
      }),
    };
  },
});

export const lineBlowdown = calculator({
  name: "line-blowdown",
  task: "Empty and let the pressure go",
  title: "How long a gas goes down through a hose or line",
  fields: {
    volume_m3: size("Volume", "volume", { max: 1e6, example: 5 }),
    start_Pa: size("Pressure now, absolute", "pressure", { max: 1e8, example: 11e5 }),
    end_Pa: size("to, absolute", "pressure", { max: 1e8, example: 1.2e5 }),
    temperature_K: number("Temperature", "kelvin", { min: 100, max: 1500, default: 293.15 }),
    molar_kg: number("Molar mass", "molar", { above: 0, max: 0.5, default: 0.02896 }),
    ...line,
    friction: number("Friction factor, where known", "ratio", { above: 0, max: 1, optional: true }),
    ambient_Pa: number("Pressure outside, absolute", "pressure", {
      above: 0,
      max: 1e7,
      default: STANDARD_ATMOSPHERE_Pa,
    }),
  },
  compute: (inputs): Calculation => {
    const { start_Pa, end_Pa, ambient_Pa, bore_m, length_m, fittings, roughness_m, temperature_K, molar_kg } = inputs;
    if (end_Pa <= ambient_Pa)
      throw new NoFigure("end_Pa", "must be above the pressure outside: that is never quite reached");
    if (start_Pa <= end_Pa) throw new NoFigure("start_Pa", "must be above what it goes down to");
    // Rough and turbulent, as gas in a blowdown is: then friction hangs on roughness alone.
    const f = inputs.friction ?? friction(1e8, roughness_m / bore_m);
    const gas = { bore_m, temperature_K, molar_kg, resistance: 1 + fittings + (f * length_m) / bore_m };
    const time = (from: number, to: number) =>
      gasDownThroughLine_s({ volume_m3: inputs.volume_m3, start_Pa: from, end_Pa: to, ambient_Pa, line: gas });
    const time_s = time(start_Pa, end_Pa);
    const first = gasThroughLine(start_Pa, ambient_Pa, gas);
    return {
      results: [
        { key: "time_s", words: "Goes down in", quantity: "duration", value: time_s },
        { key: "first_kg_s", words: "It begins at", quantity: "massFlow", value: first.flow_kg_s },
        { key: "resistance", words: "ΣK + f·L/D, exit included", quantity: "ratio", value: gas.resistance },
      ],
      governs: "time_s",
      because: first.choked ? "Choked at first: at the end of the line it goes as fast as it can." : "Not choked.",
      formula: "p₁² − p₂² = G²·(R·T/M)·(ΣK + f·L/D + 2·ln(p₁/p₂)), choked where p₂ would be lower than the flow allows",
      source: "isothermal flow in a line, any handbook of compressible flow",
      validity: "One temperature, an ideal gas. What flashes (LPG, ammonia, carbon dioxide) is another sum.",
      warnings: [
        "It cools as it falls: the metal may get brittle, and shut in it warms and its pressure comes back.",
        "Held down and with a whip check at every coupling: a hose that comes off kills.",
      ],
      picture: curve({
        x: { words: "time", quantity: "duration" },
        y: { words: "pressure, absolute", quantity: "pressure" },
        words: "pressure",
        points: passedAt(
          start_Pa,
          end_Pa,
          time,
          (share) => ambient_Pa + (start_Pa - ambient_Pa) * ((end_Pa - ambient_Pa) / (start_Pa - ambient_Pa)) ** share,
        ),
        marks: [{ x: time_s, y: end_Pa, words: "there" }],
      }),
      also: { choked: first.choked },
    };
  },
});

export const pumpOut = calculator({
  name: "pump-out",
  task: "Empty and let the pressure go",
  title: "How long a pump takes to empty it",
  fields: {
    volume_m3: size("Liquid in it", "volume", { max: 1e7, example: 12 }),
    flow_m3_s: size("Pump, rated flow", "flow", { max: 100, example: 0.002 }),
    share: number("What it really moves of that", "ratio", {
      above: 0,
      max: 1,
      default: 0.7,
      hint: "less through a long hose, uphill, or worn",
    }),
    heel_m3: number("Left that it does not reach", "volume", { min: 0, max: 1e7, default: 0 }),
    lift_m: number("Pump above the liquid at the end", "length", {
      min: -1000,
      max: 1000,
      default: 0,
      hint: "below 0: the pump stands lower, or hangs in it",
    }),
    density_kg_m3: size("Density", "density", { max: 25_000, default: 1000 }),
    vapour_Pa: number("Its vapour pressure, absolute", "pressure", {
      min: 0,
      max: 4e8,
      default: 2340,
      hint: "as it stands here for water at 20 °C; what is hot or light has far more",
    }),
    above_Pa: size("Pressure over the liquid, absolute", "pressure", { max: 4e8, default: STANDARD_ATMOSPHERE_Pa }),
  },
  compute: (inputs): Calculation => {
    const { volume_m3, heel_m3, flow_m3_s, share, lift_m } = inputs;
    if (heel_m3 >= volume_m3) throw new NoFigure("heel_m3", "must be less than what is in it");
    const lifts_m = liftable_m(inputs);
    if (lift_m > 0 && lift_m >= lifts_m) {
      throw new NoFigure("lift_m", (units) =>
        lifts_m <= 0
          ? "cannot be: this boils in the suction before it rises at all. Put the pump below it, or in it"
          : `is more than the pressure over it can push it up, ${figure(lifts_m, "length", units)}: put the pump lower, or in it`,
      );
    }
    const moved_m3 = volume_m3 - heel_m3;
    const time_s = moved_m3 / (flow_m3_s * share);
    const close = lift_m > 0 && lift_m > lifts_m / 2;
    return {
      results: [
        { key: "time_s", words: "Pumped out in", quantity: "duration", value: time_s },
        { key: "moved_m3", words: "Goes to where it is taken", quantity: "volume", value: moved_m3 },
        { key: "lifts_m", words: "No suction lifts it more than", quantity: "length", value: Math.max(0, lifts_m) },
      ],
      governs: "time_s",
      formula: "t = (V − V_heel)/(share·Q); greatest suction lift (p − p_vapour)/(ρ·g)",
      source: "arithmetic; hydrostatics",
      validity: "A pump that stays primed, thin liquid. Sludge, foam and what settles are not in it.",
      warnings: [
        "Let air or inert gas in above as fast as it goes out: a shut vessel is drawn in.",
        "Bond the pump, the hose and the vessel where it burns, and use a pump made for that zone.",
        ...(heel_m3 > 0 ? ["What the pump does not reach is washed or wiped out; pumped is not empty."] : []),
        ...(close
          ? ["More than half of what suction can do: friction in the hose may stop it. Put the pump lower."]
          : []),
      ],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "liquid in it", quantity: "volume" },
        series: [
          {
            words: "liquid left",
            points: [
              [0, volume_m3],
              [time_s, heel_m3],
            ],
          },
        ],
        lines: heel_m3 > 0 ? [{ y: heel_m3, words: "the pump does not reach" }] : [],
        marks: [{ x: time_s, y: heel_m3, words: duration(time_s) }],
        bands: [],
      },
    };
  },
});

export const longLine = calculator({
  name: "long-line",
  task: "Empty and let the pressure go",
  title: "What a long line holds, and how long it takes",
  fields: {
    bore_m: size("Line, bore", "bore", { max: 5, example: 0.3 }),
    length_m: size("Length", "length", { max: 1e6, example: 4000 }),
    flow_m3_s: size("Pump or fill", "flow", { max: 100, example: 0.05 }),
    pressure_Pa: number("Pressure behind a pig or plug, gauge", "gauge", { min: 0, max: 1e8, default: 0 }),
    ambient_Pa: number("Pressure outside, absolute", "pressure", {
      above: 0,
      max: 1e7,
      default: STANDARD_ATMOSPHERE_Pa,
    }),
  },
  compute: ({ bore_m, length_m, flow_m3_s, pressure_Pa, ambient_Pa }): Calculation => {
    const area_m2 = (Math.PI / 4) * bore_m ** 2;
    const volume_m3 = area_m2 * length_m;
    const speed = flow_m3_s / area_m2;
    const force_N = pressure_Pa * area_m2;
    return {
      results: [
        { key: "time_s", words: "Filled, emptied or pigged in", quantity: "duration", value: volume_m3 / flow_m3_s },
        { key: "volume_m3", words: "It holds", quantity: "volume", value: volume_m3 },
        { key: "speed_m_s", words: "A pig runs at", quantity: "velocity", value: speed },
        {
          key: "inert_m3",
          words: "Gas at outside pressure to fill it at this one",
          quantity: "volume",
          value: (volume_m3 * (pressure_Pa + ambient_Pa)) / ambient_Pa,
        },
        { key: "force_N", words: "Push on a trap door or plug of the bore", quantity: "force", value: force_N },
      ],
      governs: "time_s",
      formula: "V = π/4·D²·L; t = V/Q; pig Q/A; gas V·P/P₀; door P·A",
      source: "arithmetic",
      validity: "Full bore all along. Water hammer and what the pig pushes before it are not in it.",
      warnings: [
        ...(speed > 3 ? ["A pig faster than 3 m/s is not stopped by hand or trap: slow it."] : []),
        ...(force_N > 0 ? ["A door is opened with its pressure proved gone, never by a clock."] : []),
      ],
      picture: bars("duration", [{ words: "fill or empty", value: volume_m3 / flow_m3_s, governs: true }]),
    };
  },
});

export const lineHeads = calculator({
  name: "line-heads",
  task: "Empty and let the pressure go",
  title: "What a line keeps standing in its valleys",
  fields: {
    stations: {
      type: "rows",
      words: "Points along the line",
      columns: {
        along_m: number("along", "length", { min: 0, max: 1e6 }),
        height_m: number("height", "length", { min: -1000, max: 9000 }),
      },
      most: 40,
      example: [
        { along_m: 0, height_m: 30 },
        { along_m: 400, height_m: 4 },
        { along_m: 900, height_m: 22 },
      ],
    },
    density_kg_m3: number("Density", "density", { above: 0, max: 20_000, default: 1000 }),
  },
  compute: ({ stations, density_kg_m3 }): Calculation => {
    if (stations.length < 2) throw new NoFigure("stations", "must hold both ends of the line at least");
    stations.forEach(({ along_m }, at) => {
      if (at > 0 && along_m <= stations[at - 1]!.along_m)
        throw new NoFigure("stations", "must go along the line, each farther than the last");
    });
    const heads = headsLeft_m(stations);
    const deepest = heads.reduce((most, head, at) => (head > heads[most]! ? at : most), 0);
    const pressure = heads[deepest]! * density_kg_m3 * STANDARD_GRAVITY_m_s2;
    return {
      results: [
        {
          key: "pressure_Pa",
          words: "At the lowest point of a valley, both ends open to air",
          quantity: "gauge",
          value: pressure,
        },
        { key: "head_m", words: "Column that stands over it", quantity: "length", value: heads[deepest]! },
        { key: "along_m", words: "found, along the line, at", quantity: "length", value: stations[deepest]!.along_m },
      ],
      governs: "pressure_Pa",
      because:
        heads[deepest]! > 0
          ? "It is drained at that point, or opened as a line under pressure."
          : "It runs empty by itself.",
      formula: "the lower of the highest points to either side, less the height there; ρ·g·h",
      source: "arithmetic",
      validity: "Only at the points given: a dip between two of them is not seen. A shut valve stands like a hill.",
      warnings: heads[deepest]! > 0 ? ["No gauge at either end shows it."] : [],
      picture: {
        kind: "curve",
        x: { words: "along the line", quantity: "length" },
        y: { words: "height", quantity: "length" },
        series: [
          { words: "line", points: stations.map(({ along_m, height_m }) => [along_m, height_m] as const) },
          { words: "liquid stands to", points: surface(stations), dashed: true },
        ],
        lines: [],
        marks: [],
        bands: [],
      },
    };
  },
});

/** The surface of what is left: along the line where it is dry, level where liquid stands. */
function surface(stations: readonly Station[]): readonly (readonly [number, number])[] {
  const dense = stations.flatMap((from, at) => {
    const to = stations[at + 1];
    if (to === undefined) return [from];
    return Array.from({ length: PIECES }, (_, i) => ({
      along_m: from.along_m + ((to.along_m - from.along_m) * i) / PIECES,
      height_m: from.height_m + ((to.height_m - from.height_m) * i) / PIECES,
    }));
  });
  const heads = headsLeft_m(dense);
  return dense.map(({ along_m, height_m }, at) => [along_m, height_m + heads[at]!] as const);
}

const PIECES = 24;
