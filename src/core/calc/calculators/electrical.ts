import { APPROACH_PROFILES, approachLimit, NO_LIMIT_UP_TO_V } from "../../energy/approachLimits";
import {
  backFeed_V,
  BODY_CURRENT,
  conductorPairs,
  faultCurrent_A,
  SUPPLIES,
  touchResistance_ohm,
} from "../../energy/electricalFigures";
import { NoFigure, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, size } from "../fields";

export const deadTests = calculator({
  name: "dead-tests",
  task: "Prove it dead",
  title: "Which pairs to test dead",
  fields: { supply: choice("Supply", SUPPLIES) },
  compute: ({ supply }): Calculation => {
    const pairs = conductorPairs(supply);
    return {
      results: [
        { key: "tests", words: "Pairs to test", quantity: "count", value: pairs.length },
        { key: "tester", words: "and the tester itself, before and after", quantity: "count", value: 2 },
      ],
      governs: "tests",
      because: pairs.map(([one, other]) => `${one}–${other}`).join(", "),
      formula: "every conductor against every other: 10 for L1 L2 L3 N E, 6 without neutral, 3 for single phase",
      source: "practice",
      validity: "With the tester proved before and after, on a live source or a proving unit of the system's voltage.",
      warnings: ["A contact-free stick or a plug-in socket tester is a hint, never proof."],
      picture: {
        kind: "bars",
        quantity: "count",
        log: false,
        rows: SUPPLIES.map((one) => ({ words: one, value: conductorPairs(one).length, governs: one === supply })),
      },
      also: { pairs },
    };
  },
});

export const faultCurrent = calculator({
  name: "fault-current",
  task: "Prove it dead",
  title: "What current a fault draws",
  fields: {
    voltage_V: size("Voltage", "voltage", { max: 2e6, example: 230 }),
    impedance_ohm: size("Impedance of the loop", "resistance", { max: 1e9, example: 0.35 }),
  },
  compute: (inputs): Calculation => ({
    results: [{ key: "current_A", words: "Fault current", quantity: "current", value: faultCurrent_A(inputs) }],
    governs: "current_A",
    formula: "I = U/Z",
    source: "arithmetic, practice",
    validity: "A bolted fault, impedance as measured cold. Earths and clamps are sized for it and its clearing time.",
    warnings: [],
    picture: {
      kind: "curve",
      x: { words: "impedance", quantity: "resistance" },
      y: { words: "current", quantity: "current" },
      series: [
        {
          words: "U/Z",
          points: sampled(inputs.impedance_ohm / 2, inputs.impedance_ohm * 2, (z) => inputs.voltage_V / z),
        },
      ],
      lines: [],
      marks: [{ x: inputs.impedance_ohm, y: faultCurrent_A(inputs), words: "this loop" }],
      bands: [],
    },
  }),
});

export const touchResistance = calculator({
  name: "touch-resistance",
  task: "Prove it dead",
  title: "Greatest earth resistance behind a residual-current device",
  fields: {
    residual_A: size("Rated residual current", "milliampere", { max: 100, example: 0.03 }),
    limit_V: size("Touch voltage limit", "voltage", { max: 1000, default: 50 }),
  },
  compute: (inputs): Calculation => {
    const at = (residual_A: number) => touchResistance_ohm({ residual_A, limit_V: inputs.limit_V });
    return {
      results: [{ key: "resistance_ohm", words: "At most", quantity: "resistance", value: at(inputs.residual_A) }],
      governs: "resistance_ohm",
      formula: "R_A·I_Δn ≤ 50 V",
      source: "BS 7671 table 41.5, from memory",
      validity: "Dry places. Half the voltage, and so half the resistance, where it is wet.",
      warnings: [
        `${BODY_CURRENT.painful_A * 1000} mA through a person hurts; above some ${BODY_CURRENT.mayStopTheHeart_A * 1000} mA held for a second the heart may stop (IEC 60479-1, from memory).`,
      ],
      picture: {
        kind: "bars",
        quantity: "resistance",
        log: true,
        rows: [0.03, 0.1, 0.3, 0.5]
          .map((amps) => ({ words: `${amps * 1000} mA`, value: at(amps), governs: amps === inputs.residual_A }))
          .concat(
            [0.03, 0.1, 0.3, 0.5].includes(inputs.residual_A)
              ? []
              : [{ words: "this one", value: at(inputs.residual_A), governs: true }],
          ),
      },
    };
  },
});

export const approachDistance = calculator({
  name: "approach-distance",
  task: "Prove it dead",
  title: "How near live parts people may come",
  fields: {
    voltage_V: size("Voltage between phases", "voltage", { max: 2e6, example: 400 }),
    profile: choice("Rule profile", APPROACH_PROFILES, "strict: the farther of the others"),
  },
  compute: ({ voltage_V, profile }): Calculation => {
    const found = approachLimit(profile, voltage_V);
    if (found === null) {
      throw new NoFigure(
        "voltage_V",
        voltage_V <= NO_LIMIT_UP_TO_V
          ? `is up to ${NO_LIMIT_UP_TO_V} V, for which the table has no distance: hands off all the same, and the site's rule holds`
          : "is beyond what this profile has figures for: a person who knows this voltage says how near",
      );
    }
    return {
      results: [
        { key: "limited_m", words: "Nobody unqualified nearer than", quantity: "length", value: found.limited_m },
        {
          key: "restricted_m",
          words: "nearer only qualified and shielded",
          quantity: "length",
          value: found.restricted_m,
        },
      ],
      governs: "limited_m",
      formula: "by voltage band",
      source: found.source,
      validity: "Fixed live parts. The site's own figure wins where it is larger.",
      warnings: found.restricted_m === 0 ? ["Avoid contact."] : [],
      picture: {
        kind: "reach",
        rings: [
          { radius_m: found.limited_m, words: "limited" },
          { radius_m: found.restricted_m, words: "restricted" },
        ].filter(({ radius_m }) => radius_m > 0),
      },
    };
  },
});

export const backFeed = calculator({
  name: "back-feed",
  task: "Prove it dead",
  title: "What a test puts on the other side of a transformer",
  fields: {
    applied_V: size("Voltage applied", "voltage", { max: 2e6, example: 50 }),
    appliedSide_V: size("Rated voltage of that side", "voltage", { max: 2e6, example: 100 }),
    otherSide_V: size("Rated voltage of the other side", "voltage", { max: 2e6, example: 10_000 }),
  },
  compute: (inputs): Calculation => {
    const other_V = backFeed_V(inputs);
    return {
      results: [
        { key: "voltage_V", words: "On the other side", quantity: "voltage", value: other_V },
        {
          key: "times",
          words: "times what was applied",
          quantity: "ratio",
          value: inputs.otherSide_V / inputs.appliedSide_V,
        },
      ],
      governs: "voltage_V",
      formula: "U₂ = U₁·N₂/N₁",
      source: "arithmetic",
      validity: "An unloaded transformer in order.",
      warnings: other_V > 50 ? ["The other side is live while you test: isolate and screen it first."] : [],
      picture: {
        kind: "bars",
        quantity: "voltage",
        log: true,
        rows: [
          { words: "applied", value: inputs.applied_V },
          { words: "other side", value: other_V, governs: true },
        ],
      },
    };
  },
});
