import {
  cushionReached_s,
  gapOfLeak_m2,
  LEAK_SHARE,
  leakGap_m2,
  levelReached_s,
  pressureReached_s,
  riseReached_s,
  type GasZone,
  type LeakClass,
} from "../../flow/passingValve";
import { STANDARD_ATMOSPHERE_Pa } from "../../units/units";
import { duration } from "../../units/format";
import { NoFigure, passedAt, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";
import { gas } from "./emptying";

const UNKNOWN = "unknown";
const LEAKS = [UNKNOWN, ...(Object.keys(LEAK_SHARE) as LeakClass[])] as const;
const measured_m3_s = number("Leak measured at the bleed", "smallFlow", {
  above: 0,
  max: 100,
  optional: true,
  example: 1e-3 / 60,
});

/** A seat that nobody tested has no class, and no guess of one is the worst. */
function measuredOr(leak: string, measured: number | undefined): number {
  if (measured === undefined) {
    throw new NoFigure(
      "measured_m3_s",
      `is missing: a seat that is ${leak} has no class. Measure what comes at the bleed`,
    );
  }
  return measured;
}

function gapOfMeasured_m2(
  p: Readonly<{
    leak: string;
    measured_m3_s?: number | undefined;
    upstream_Pa: number;
    temperature_K: number;
    gamma: number;
    molar_kg: number;
  }>,
): number {
  const measured = measuredOr(p.leak, p.measured_m3_s);
  if (p.upstream_Pa <= STANDARD_ATMOSPHERE_Pa) {
    throw new NoFigure("upstream_Pa", "is not above the pressure outside: nothing could be measured at the bleed");
  }
  return gapOfLeak_m2({ ...p, measured_m3_s: measured, ambient_Pa: STANDARD_ATMOSPHERE_Pa });
}

export const passingGas = calculator({
  name: "passing-valve",
  task: "Empty and let the pressure go",
  title: "A shut valve lets gas by: how long until it harms",
  fields: {
    volume_m3: size("Volume behind it", "volume", { max: 1e6, example: 0.5 }),
    bore_m: size("Line size, inside", "bore", { max: 10, example: 0.08 }),
    leak: choice("Its seat", LEAKS, "of an unknown one the leak is measured"),
    measured_m3_s,
    upstream_Pa: size("Pressure before it, absolute", "pressure", { max: 4e8, example: 8e5 }),
    start_Pa: size("Behind it now, absolute", "pressure", { max: 4e8, example: 1.01325e5 }),
    harmful_Pa: size("Harmful at, absolute", "pressure", { max: 4e8, example: 1.5e5 }),
    temperature_K: size("Temperature", "kelvin", { max: 3000, example: 293.15 }),
    ...gas,
  },
  compute: (inputs): Calculation => {
    if (inputs.start_Pa >= inputs.harmful_Pa) throw new NoFigure("start_Pa", "is already harmful");
    const gap_m2 =
      inputs.leak !== UNKNOWN && inputs.measured_m3_s === undefined
        ? leakGap_m2(inputs.bore_m, inputs.leak)
        : gapOfMeasured_m2(inputs);
    const zone: GasZone = { ...inputs, gap_m2 };
    const time_s = pressureReached_s(zone);
    const top_Pa = Math.min(inputs.upstream_Pa, inputs.harmful_Pa * 1.2) * 0.9999;
    const curve =
      time_s === null
        ? []
        : passedAt(
            inputs.start_Pa,
            top_Pa,
            (from, to) => pressureReached_s({ ...zone, start_Pa: from, harmful_Pa: to }) ?? 0,
          );
    return {
      results: [
        {
          key: "time_s",
          words: "Harmful after",
          quantity: "duration",
          value: time_s,
          instead: "never: the supply is not above it",
        },
        { key: "gap_m2", words: "As if through a hole of", quantity: "area", value: zone.gap_m2 },
      ],
      governs: "time_s",
      formula: "V·dP/dt = R·T/M·ṁ, choked then subsonic, through a gap that is the leak class's share of the bore",
      source: "textbook balance; leak classes ANSI/FCI 70-2, from memory",
      validity:
        "By class a guess of the gap: measure the rise with everything shut and use that. Never a reason to go without a bleed.",
      warnings: ["A shut zone behind one valve fills. Keep its bleed open and in view."],
      ...(curve.length > 0
        ? {
            picture: {
              kind: "curve" as const,
              x: { words: "time", quantity: "duration" as const },
              y: { words: "pressure behind it, absolute", quantity: "pressure" as const },
              series: [{ words: "behind the valve", points: curve }],
              lines: [{ y: inputs.harmful_Pa, words: "harmful" }],
              marks: time_s === null ? [] : [{ x: time_s, y: inputs.harmful_Pa, words: duration(time_s) }],
              bands: [],
            },
          }
        : {}),
    };
  },
});

export const passingLiquid = calculator({
  name: "passing-liquid",
  task: "Empty and let the pressure go",
  title: "A shut valve lets liquid by: how long until it is full",
  fields: {
    harmful_m3: size("Volume that does harm", "volume", { max: 1e6, example: 0.2 }),
    bore_m: size("Line size, inside", "bore", { max: 10, example: 0.08 }),
    leak: choice("Its seat", LEAKS, "of an unknown one the leak is measured"),
    measured_m3_s,
    difference_Pa: number("Pressure across it", "gauge", { min: 0, max: 4e8, example: 2e5 }),
    density_kg_m3: size("Density", "density", { max: 25_000, default: 1000 }),
  },
  compute: (inputs): Calculation => {
    const time_s =
      inputs.leak !== UNKNOWN && inputs.measured_m3_s === undefined
        ? levelReached_s({ ...inputs, gap_m2: leakGap_m2(inputs.bore_m, inputs.leak) })
        : inputs.harmful_m3 / measuredOr(inputs.leak, inputs.measured_m3_s);
    const until = time_s === null ? 3600 : time_s * 1.3;
    return {
      results: [
        {
          key: "time_s",
          words: "Filled after",
          quantity: "duration",
          value: time_s,
          instead: "never: there is no pressure behind it",
        },
        {
          key: "flow_m3_s",
          words: "Flow past the seat",
          quantity: "smallFlow",
          value: time_s === null ? 0 : inputs.harmful_m3 / time_s,
        },
      ],
      governs: "time_s",
      formula: "Q = A·√(2·ΔP/ρ), A the leak class's share of the bore",
      source: "Torricelli; leak classes ANSI/FCI 70-2, from memory",
      validity: "By class a guess of the gap: measure what comes out of the bleed and use that.",
      warnings: ["A shut zone behind one valve fills. Keep its bleed open and in view."],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "leaked in", quantity: "volume" },
        series: [
          {
            words: "leaked in",
            points: sampled(0, until, (t) => (time_s === null ? 0 : (inputs.harmful_m3 * t) / time_s), 10),
          },
        ],
        lines: [{ y: inputs.harmful_m3, words: "harmful" }],
        marks: time_s === null ? [] : [{ x: time_s, y: inputs.harmful_m3, words: duration(time_s) }],
        bands: [],
      },
    };
  },
});

export const measuredRise = calculator({
  name: "measured-rise",
  task: "Empty and let the pressure go",
  title: "The gauge crept up: how long until it harms",
  fields: {
    rise_Pa: number("It rose by", "gauge", { min: 0, max: 4e8, example: 2e4 }),
    over_s: size("within", "duration", { example: 1800 }),
    start_Pa: number("Reads now, gauge", "gauge", { min: 0, max: 4e8, example: 0 }),
    harmful_Pa: size("Harmful at, gauge", "gauge", { max: 4e8, example: 1e5 }),
    zone: choice("What fills it", ["not known", "gas", "liquid under a cushion of gas"]),
  },
  compute: (inputs): Calculation => {
    if (inputs.start_Pa >= inputs.harmful_Pa) throw new NoFigure("start_Pa", "is already harmful");
    if (inputs.rise_Pa > inputs.start_Pa + STANDARD_ATMOSPHERE_Pa * (1 - 1e-9)) {
      throw new NoFigure("rise_Pa", "is more than it reads now above a vacuum");
    }
    const steady_s = riseReached_s(inputs);
    const cushion_s = cushionReached_s({ ...inputs, ambient_Pa: STANDARD_ATMOSPHERE_Pa });
    // Where nobody knows, the sooner of them.
    const time_s =
      inputs.zone === "gas" || steady_s === null || cushion_s === null
        ? steady_s
        : inputs.zone === "not known"
          ? Math.min(steady_s, cushion_s)
          : cushion_s;
    const until = time_s === null ? inputs.over_s : time_s * 1.3;
    return {
      results: [
        {
          key: "time_s",
          words: "Harmful after, at the earliest",
          quantity: "duration",
          value: time_s,
          instead: "nothing rose while you watched",
        },
        { key: "steady_s", words: "rising as it did, gas", quantity: "duration", value: steady_s, instead: "never" },
        {
          key: "cushion_s",
          words: "pressing a cushion of gas",
          quantity: "duration",
          value: cushion_s,
          instead: "never",
        },
      ],
      governs: "time_s",
      formula: "gas: (P_harmful − P_now)·Δt/ΔP; cushion: P·V stays, Δt·(1 − P₀/P_harmful)/(1 − P₀/P_now) − Δt",
      source: "arithmetic",
      validity: "The leak stays as it is, at one temperature. Full of liquid without a cushion it is there at once.",
      warnings:
        time_s === null
          ? ["No rise in that time is not no leak: watch longer than the job lasts, or keep a bleed open."]
          : [],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "gauge", quantity: "gauge" },
        series: [
          {
            words: "at the rise measured",
            points: sampled(0, until, (t) => inputs.start_Pa + (inputs.rise_Pa * t) / inputs.over_s, 10),
          },
        ],
        lines: [{ y: inputs.harmful_Pa, words: "harmful" }],
        marks: time_s === null ? [] : [{ x: time_s, y: inputs.harmful_Pa, words: duration(time_s) }],
        bands: [],
      },
    };
  },
});
