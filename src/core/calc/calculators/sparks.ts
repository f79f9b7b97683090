import { HOT_WORK, SPARK_SPEED_m_s, sparkReach_m } from "../../fire/hotWork";
import { otherSide_C, sparkThrow_m } from "../../fire/sparkThrow";
import { sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { number, size } from "../fields";
import { curve } from "../pictures";

export const sparkThrow = calculator({
  name: "spark-throw",
  task: "Work with flame and sparks",
  title: "How far sparks fly, by height and wind",
  fields: {
    height_m: size("Flame above what lies below", "length", { max: 300, example: 12 }),
    wind_m_s: number("Wind along", "velocity", { min: 0, max: 40, default: 0 }),
    speed_m_s: number("They leave at", "velocity", {
      above: 0,
      max: 100,
      default: Math.round(SPARK_SPEED_m_s * 10) / 10,
    }),
    drop_m: number("Largest drop", "bore", { above: 0, max: 0.02, default: 0.003 }),
    density_kg_m3: number("Metal", "density", { above: 0, max: 20_000, default: 7000 }),
  },
  compute: (inputs): Calculation => {
    const at = (height_m: number) => sparkThrow_m({ ...inputs, height_m });
    const braked = at(inputs.height_m);
    const bound = sparkReach_m(Math.max(0, inputs.height_m - 1.5));
    // Never nearer than the permit, which reckons without the air.
    const clear = Math.max(HOT_WORK.clear_m, braked, bound);
    return {
      results: [
        { key: "clear_m", words: "Clear to, sideways", quantity: "length", value: clear },
        { key: "throw_m", words: "A drop flies, braked and blown", quantity: "length", value: braked },
        { key: "bound_m", words: "without air, in still air", quantity: "length", value: bound },
      ],
      governs: "clear_m",
      because: whichIsLonger(clear, bound),
      formula:
        "ballistic flight of a ball with drag 0.4 in the wind, by steps; the longest of that, of the flight without air, and of 10.7 m",
      source: "arithmetic; the clear distance 29 CFR 1910.252(a)(2), from memory; speed so that both agree",
      validity:
        "The first landing. Sparks bounce and roll on: below, everything in reach is cleared, covered or watched.",
      warnings: [
        ...(inputs.wind_m_s > 8 ? ["In so much wind hot work outside waits."] : []),
        "Light flakes and slag fly otherwise than drops.",
      ],
      picture: curve({
        x: { words: "height", quantity: "length" },
        y: { words: "sideways", quantity: "length" },
        words: "braked and blown",
        points: sampled(0.2, inputs.height_m, at, 24),
        lines: [{ y: HOT_WORK.clear_m, words: "published" }],
        marks: [{ x: inputs.height_m, y: braked, words: "here" }],
      }),
    };
  },
});

function whichIsLonger(clear_m: number, bound_m: number): string {
  if (clear_m === HOT_WORK.clear_m) return "The published distance is the longest.";
  return clear_m === bound_m
    ? "The flight without air is the longest: the permit reckons so."
    : "The wind carries it farther than it flies by itself.";
}

export const wallHeat = calculator({
  name: "wall-heat",
  task: "Work with flame and sparks",
  title: "How hot the other side of a wall gets",
  fields: {
    hot_C: number("Where the flame is", "temperature", { min: 20, max: 3500, example: 900 }),
    thick_m: size("Wall", "bore", { max: 2, example: 0.01 }),
    conductivity_W_mK: number("Conducts", "conductivity", { above: 0, max: 500, default: 50 }),
    ambient_C: number("Air on the other side", "temperature", { min: -50, max: 100, default: 20 }),
    off_W_m2_K: number("Goes off there, W/(m²·K)", "ratio", { min: 1, max: 100, default: 5 }),
    ignites_C: number("What touches it may catch at", "temperature", { min: 40, max: 1000, default: 200 }),
  },
  compute: (inputs): Calculation => {
    const at = (thick_m: number) => otherSide_C({ ...inputs, thick_m });
    const there = at(inputs.thick_m);
    const catches = there >= inputs.ignites_C / 2;
    return {
      results: [{ key: "other_C", words: "Other side, at most", quantity: "temperature", value: there }],
      governs: "other_C",
      because: catches
        ? "Half of what ignites or more: both sides are cleared and watched."
        : "Well below what ignites; the other side is looked at all the same.",
      formula: "T = (k/d·T_hot + h·T_air)/(k/d + h)",
      source: "steady conduction through a plate, any handbook of heat transfer",
      validity: "A bound: heated for long over a wide patch. A short weld spreads sideways and stays below.",
      warnings: ["Pipes, bars and beams that go through carry heat farther than the wall."],
      picture: curve({
        x: { words: "wall", quantity: "bore" },
        y: { words: "other side", quantity: "temperature" },
        words: "at most",
        points: sampled(inputs.thick_m / 4, inputs.thick_m * 4, at),
        lines: [{ y: inputs.ignites_C, words: "may catch" }],
        marks: [{ x: inputs.thick_m, y: there, words: "here" }],
      }),
      also: { watchOtherSide: catches },
    };
  },
});
