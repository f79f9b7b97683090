import { flowToHold_m3_s } from "../../atmosphere/ventilation";
import { ARCS, FUME_OF, fume_kg_s } from "../../atmosphere/weldingFume";
import { NoFigure, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number } from "../fields";
import { curve } from "../pictures";

/** Some 5,000 m³/h: what a large portable blower brings. Common practice, no source. */
const MOST_BLOWN_m3_s = 1.4;

export const weldingFume = calculator({
  name: "welding-fume",
  task: "Make the air fit to enter",
  title: "Flow of air against welding fume",
  fields: {
    arc: choice("Welded with", ARCS),
    burnt_kg_s: number("Rod or wire burnt", "massFlow", { above: 0, max: 1, example: 0.3 / 3600 }),
    captured: number("Drawn off at the arc", "percent", { min: 0, max: 0.95, default: 0 }),
    limit_kg_m3: number("Limit to hold", "dust", { above: 0, max: 1e-4, example: 1e-6 }),
    supply_kg_m3: number("In the air that comes in", "dust", { min: 0, max: 1e-4, default: 0 }),
    mixing: number("Mixing, 1 perfect to 10 poor", "ratio", { min: 1, max: 10, default: 3 }),
  },
  compute: (inputs): Calculation => {
    const generation = fume_kg_s(inputs);
    const { limit_kg_m3: limit, supply_kg_m3: supply, mixing } = inputs;
    // A balance of mass: the same as of shares.
    const flow = flowToHold_m3_s({ generation_m3_s: generation, mixing, limit, supply });
    if (flow === null) throw new NoFigure("limit_kg_m3", "must be above what the air that comes in holds already");
    return {
      results: [
        { key: "flow_m3_s", words: "At least", quantity: "flow", value: flow },
        { key: "fume_kg_s", words: "Fume left in the air", quantity: "massFlow", value: generation },
      ],
      governs: "flow_m3_s",
      formula: `Q = K·G/(C_limit − C_supply), G = rod burnt × ${FUME_OF[inputs.arc]} × what is not drawn off`,
      source: "balance of a mixed space; fume by EPA AP-42 section 12.19, the highest of its kind, from memory",
      validity: "All fume together. Paint, plating and degreaser make more and worse: clean the metal first.",
      warnings: [
        "Fume may cause cancer: draw it off at the arc, the flow is for what escapes.",
        "Chromium, manganese, cadmium and zinc have limits of their own, far lower; so have ozone and nitrogen oxides.",
        ...(flow > MOST_BLOWN_m3_s
          ? ["More than portable blowers bring into a space: draw it off at the arc, or give breathing air."]
          : []),
        ...(inputs.captured > 0.8 ? ["A hood that follows every move of the arc draws off so much, no other."] : []),
        ...(mixing === 1 ? ["Mixed perfectly: no space is."] : []),
      ],
      picture: curve({
        x: { words: "flow of air", quantity: "flow" },
        y: { words: "fume in the end", quantity: "dust" },
        words: "ends at",
        points: sampled(flow / 3, flow * 3, (x) => supply + (mixing * generation) / x),
        lines: [{ y: limit, words: "limit" }],
        marks: [{ x: flow, y: limit, words: "enough" }],
      }),
    };
  },
});
