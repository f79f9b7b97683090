import { blankThickness_m } from "../../energy/blankThickness";
import { EQUIPMENT, monthsBetweenLooks } from "../../energy/equipmentDates";
import { gasEnergy_J, keepOut, waterEnergy_J } from "../../energy/gasEnergy";
import { sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";

export const gasEnergy = calculator({
  name: "gas-energy",
  task: "Test with pressure",
  title: "How far to keep out of a pressure test",
  fields: {
    pressure_Pa: size("Test pressure, absolute", "pressure", { max: 4e8, example: 20e5 }),
    volume_m3: size("Volume", "volume", { max: 1e6, example: 10 }),
    gamma: number("Heat capacity ratio", "ratio", { above: 1, max: 1.67, default: 1.4 }),
    ambient_Pa: size("Pressure outside, absolute", "pressure", { max: 4e8, default: 101_000 }),
  },
  compute: (inputs): Calculation => {
    const energy_J = gasEnergy_J(inputs);
    const kept = keepOut(energy_J);
    const water_J = waterEnergy_J({
      gauge_Pa: Math.max(0, inputs.pressure_Pa - inputs.ambient_Pa),
      volume_m3: inputs.volume_m3,
    });
    return {
      results: [
        { key: "distance_m", words: "Keep out to", quantity: "length", value: kept.distance_m },
        { key: "energy_J", words: "The gas holds", quantity: "energy", value: energy_J },
        { key: "tnt_kg", words: "as much as explosive of", quantity: "mass", value: kept.tnt_kg },
        { key: "water_J", words: "Water at the same pressure holds", quantity: "energy", value: water_J },
        {
          key: "ratio",
          words: "so gas holds, times",
          quantity: "ratio",
          value: water_J === 0 ? null : energy_J / water_J,
          instead: "no pressure",
        },
      ],
      governs: "distance_m",
      formula: "E = P·V/(γ−1)·(1 − (Pₐ/P)^((γ−1)/γ)); TNT = E/4.267 MJ/kg; the greater of 20·(2·TNT)^⅓ and 30 or 60 m",
      source: "ASME PCC-2, pressure-test article, from memory; water ½·β·P²·V",
      validity: "A vessel that bursts as a whole. Missiles from a nozzle fly further.",
      warnings: [
        "Water unless an engineer accepts gas; step by step to test pressure; relief set; whip checks on every hose.",
        ...(kept.split ? ["Above 271 MJ: split the test into smaller volumes."] : []),
      ],
      picture: { kind: "reach", rings: [{ radius_m: kept.distance_m, words: "keep out" }] },
    };
  },
});

export const blankThickness = calculator({
  name: "blank-thickness",
  task: "Test with pressure",
  title: "How thick a blank must be",
  fields: {
    gasket_m: size("Gasket, inside diameter", "bore", { max: 20, example: 0.2191 }),
    pressure_Pa: number("Pressure, gauge", "gauge", { min: 0, max: 4e8, example: 1e6 }),
    stress_Pa: size("Allowable stress", "stress", { max: 2e9, example: 138e6 }),
    quality: number("Quality factor", "ratio", { above: 0, max: 1, default: 1 }),
    weld: number("Weld factor", "ratio", { above: 0, max: 1, default: 1 }),
    corrosion_m: number("Corrosion allowance", "bore", { min: 0, max: 1, default: 0 }),
  },
  compute: (inputs): Calculation => {
    const at = (pressure_Pa: number) => blankThickness_m({ ...inputs, pressure_Pa });
    const thickness_m = at(inputs.pressure_Pa);
    return {
      results: [{ key: "thickness_m", words: "At least", quantity: "bore", value: thickness_m }],
      governs: "thickness_m",
      formula: "t = d_g·√(3·P/(16·S·E·W)) + c; d_g is the inside of the gasket, not of the pipe",
      source: "ASME B31.3, paragraph 304.5.3, from memory",
      validity: "A flat permanent blank between flanges. A check, not a design: an engineer signs it.",
      warnings: thickness_m > inputs.gasket_m / 4 ? ["Thicker than a quarter of its width: have it designed."] : [],
      picture: {
        kind: "curve",
        x: { words: "pressure, gauge", quantity: "gauge" },
        y: { words: "thickness", quantity: "bore" },
        series: [{ words: "least thickness", points: sampled(0, Math.max(inputs.pressure_Pa * 1.5, 1e5), at) }],
        lines: [],
        marks: [{ x: inputs.pressure_Pa, y: thickness_m, words: "this blank" }],
        bands: [],
      },
    };
  },
});

export const equipmentDates = calculator({
  name: "equipment-dates",
  task: "Test with pressure",
  title: "Is this pressure equipment in date",
  fields: {
    kind: choice("Equipment", EQUIPMENT),
    months: number("Months since it was last looked at", "count", { min: 0, max: 1200, example: 4 }),
  },
  compute: ({ kind, months }): Calculation => {
    const interval = monthsBetweenLooks(kind);
    const left = interval - months;
    return {
      results: [
        {
          key: "left_months",
          words: left >= 0 ? "Months left" : "Months left: overdue",
          quantity: "count",
          value: left,
        },
        { key: "interval_months", words: "Looked at every, months", quantity: "count", value: interval },
      ],
      governs: "left_months",
      ...(left < 0 ? { because: "It is overdue, out of date: it is not used until it has been looked at." } : {}),
      formula: "portable or temporary every 6 months, fixed yearly, a water test every 3 years where vessels rust",
      source: "practice; the site's code wins",
      validity: "A water test besides after a repair and after lay-up.",
      warnings: [],
      picture: {
        kind: "bars",
        quantity: "count",
        log: false,
        rows: [{ words: "since the last look", value: months, governs: true }],
        line: { value: interval, words: "due" },
      },
      also: { inDate: left >= 0 },
    };
  },
});
