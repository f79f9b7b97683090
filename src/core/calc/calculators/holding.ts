import {
  dropZone_m,
  legsThatCarry,
  MOST_LEAN_rad,
  pinStresses_Pa,
  SHEAR_YIELD,
  slingTension_N,
} from "../../energy/holding";
import { STANDARD_GRAVITY_m_s2 } from "../../units/units";
import { sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";
import { bars, curve } from "../pictures";

export const sling = calculator({
  name: "sling",
  task: "Lift, pin and hold",
  title: "Pull in the legs of a sling",
  fields: {
    mass_kg: size("Load", "mass", { max: 1e6, example: 1200 }),
    legs: number("Legs", "count", { min: 1, max: 4, whole: true, example: 2 }),
    lean_rad: number("Each leans from the vertical by", "angle", { min: 0, max: MOST_LEAN_rad, example: Math.PI / 6 }),
    rated_N: number("Each leg is good for", "force", { above: 0, max: 1e9, example: 20_000 }),
  },
  compute: ({ mass_kg, legs, lean_rad, rated_N }): Calculation => {
    const pull = (lean: number) => slingTension_N(mass_kg, legs, lean);
    const used = pull(lean_rad) / rated_N;
    return {
      results: [
        { key: "tension_N", words: "Pull in a leg", quantity: "force", value: pull(lean_rad) },
        { key: "used", words: "of what it is good for", quantity: "percent", value: used },
        { key: "legs_that_carry", words: "Legs that carry", quantity: "count", value: legsThatCarry(legs) },
      ],
      governs: "used",
      because: used > 1 ? "More than it is good for: not lifted." : "Within what it is good for.",
      formula: "T = m·g/(n·cos β), β from the vertical, at most 60°; three or four legs count two",
      source: "arithmetic; practice",
      validity: "The hook over the middle of the weight, lifted slowly. A jerk doubles the pull.",
      warnings: [
        ...(used > 1 ? ["Overloaded."] : used > 0.8 ? ["More than four fifths: weigh it, do not guess."] : []),
        ...(lean_rad > Math.PI / 4 ? ["Leaning more than 45°: longer slings pull less."] : []),
      ],
      picture: curve({
        x: { words: "lean", quantity: "angle" },
        y: { words: "pull in a leg", quantity: "force" },
        words: "pull",
        points: sampled(0, MOST_LEAN_rad, pull),
        lines: [{ y: rated_N, words: "good for" }],
        marks: [{ x: lean_rad, y: pull(lean_rad), words: "here" }],
      }),
      also: { holds: used <= 1 },
    };
  },
});

export const outrigger = calculator({
  name: "outrigger",
  task: "Lift, pin and hold",
  title: "What a crane's foot presses on the ground",
  fields: {
    crane_kg: size("Crane", "mass", { max: 1e7, example: 24_000 }),
    load_kg: number("Load", "mass", { min: 0, max: 1e7, example: 3000 }),
    share: number("On the worst foot", "percent", { min: 0.25, max: 1, default: 0.75 }),
    mat_m2: size("Mat under it", "area", { max: 100, example: 1 }),
    ground_Pa: number("Ground bears", "ground", { above: 0, max: 1e8, example: 200e3 }),
  },
  compute: ({ crane_kg, load_kg, share, mat_m2, ground_Pa }): Calculation => {
    const force = (crane_kg + load_kg) * STANDARD_GRAVITY_m_s2 * share;
    const pressure = force / mat_m2;
    return {
      results: [
        { key: "pressure_Pa", words: "Presses with", quantity: "ground", value: pressure },
        { key: "used", words: "of what the ground bears", quantity: "percent", value: pressure / ground_Pa },
        { key: "mat_m2", words: "Mat that would do", quantity: "area", value: force / ground_Pa },
      ],
      governs: "pressure_Pa",
      because:
        pressure > ground_Pa ? "More than the ground bears: a larger mat, or another place." : "The ground bears it.",
      formula: "(crane + load)·g·share ÷ area of the mat",
      source: "arithmetic; three quarters on one foot is common practice",
      validity: "A mat stiff enough to spread it. Drains, pits and fresh fill under it are not in it.",
      warnings: ["Ask what lies below: sewers, cables, cellars."],
      picture: bars("ground", [{ words: "presses", value: pressure, governs: true }], {
        value: ground_Pa,
        words: "bears",
      }),
      also: { holds: pressure <= ground_Pa },
    };
  },
});

export const dropZone = calculator({
  name: "drop-zone",
  task: "Lift, pin and hold",
  title: "How far to keep people from under a load",
  fields: {
    half_m: size("Half of the load's length", "length", { max: 100, example: 2 }),
    height_m: size("Lifted to", "length", { max: 500, example: 12 }),
    speed_m_s: number("It may swing at", "velocity", { min: 0, max: 30, default: 2 }),
  },
  compute: ({ half_m, height_m, speed_m_s }): Calculation => {
    const at = (height: number) => dropZone_m(half_m, height, speed_m_s);
    return {
      results: [
        { key: "distance_m", words: "Keep out to, from under the hook", quantity: "length", value: at(height_m) },
      ],
      governs: "distance_m",
      formula: "half length + speed·√(2·h/g)",
      source: "arithmetic; 2 m/s of swing is common practice",
      validity: "On level ground, all along the way of the load. What breaks up or rolls goes farther.",
      warnings: ["Nobody under a load, whatever this says."],
      picture: {
        kind: "reach",
        rings: [
          { radius_m: at(height_m), words: "keep out" },
          { radius_m: half_m, words: "load" },
        ],
      },
    };
  },
});

const SHEARS = ["single", "double"] as const;

export const pin = calculator({
  name: "pin",
  task: "Lift, pin and hold",
  title: "Does a pin hold what leans on it",
  fields: {
    pressure_Pa: number("Pressure in the cylinder, gauge", "gauge", { min: 0, max: 1e9, default: 0 }),
    piston_m: number("Piston", "bore", { min: 0, max: 5, default: 0 }),
    mass_kg: number("Weight that leans on it", "mass", { min: 0, max: 1e7, default: 0, example: 2000 }),
    diameter_m: size("Pin", "bore", { max: 1, example: 0.025 }),
    plate_m: size("Plate that it bears on", "bore", { max: 1, example: 0.02 }),
    shear: choice("Shear", SHEARS),
    yield_Pa: size("Yield of the weaker metal", "stress", { max: 3e9, example: 235e6 }),
    factor: number("Safety factor wanted", "ratio", { min: 1, max: 20, default: 4 }),
  },
  compute: (inputs): Calculation => {
    const force = inputs.pressure_Pa * (Math.PI / 4) * inputs.piston_m ** 2 + inputs.mass_kg * STANDARD_GRAVITY_m_s2;
    const planes = inputs.shear === "double" ? 2 : 1;
    const { shear_Pa, bearing_Pa } = pinStresses_Pa({
      force_N: force,
      diameter_m: inputs.diameter_m,
      plate_m: inputs.plate_m,
      planes,
    });
    const factor =
      force === 0 ? null : Math.min((inputs.yield_Pa * SHEAR_YIELD) / shear_Pa, inputs.yield_Pa / bearing_Pa);
    return {
      results: [
        { key: "factor", words: "Safety factor", quantity: "ratio", value: factor, instead: "nothing leans on it" },
        { key: "force_N", words: "Leans with", quantity: "force", value: force },
        { key: "shear_Pa", words: "Shear in the pin", quantity: "stress", value: shear_Pa },
        { key: "bearing_Pa", words: "Pressure on the plate", quantity: "stress", value: bearing_Pa },
      ],
      governs: "factor",
      because:
        factor === null || factor >= inputs.factor
          ? "It holds with the factor wanted."
          : "It does not hold with the factor wanted: a thicker pin, or prop it besides.",
      formula: "F = P·π/4·d² + m·g; F/(n·A) against yield/√3; F/(d·t) against yield",
      source: "arithmetic; von Mises",
      validity: "A pin made for it, in round holes that fit, without bending. A bolt, a bar or a spanner is no pin.",
      warnings: ["Put in before the pressure is let go, and taken out after it is back."],
      picture: bars("ratio", [{ words: "safety factor", value: factor ?? 0, governs: true }], {
        value: inputs.factor,
        words: "wanted",
      }),
      also: { holds: factor === null || factor >= inputs.factor },
    };
  },
});
