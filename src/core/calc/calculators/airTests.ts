import { HOT_WORK_LIMITS, STRICT_ENTRY, judgeAir, tenthOfLimit, ENTRY_LIMITS } from "../../atmosphere/airLimits";
import { mixtureLimit } from "../../atmosphere/mixtureLimit";
import { hoseVolume_m3, sampleWait_s, squeezes } from "../../atmosphere/sampleWait";
import {
  densityAgainstAir,
  gathers,
  LFL_SETS,
  lowerLimit,
  sensorRefusal,
  substance,
  SUBSTANCES,
} from "../../atmosphere/substances";
import { instrumentsFor, roundOf_s, testDepths_m, testPoints, TEST_ORDER } from "../../atmosphere/testPoints";
import { figure } from "../../units/format";
import { NoFigure, type Calculation, type Result } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";

const GASES = SUBSTANCES.map(({ name }) => name) as [string, ...string[]];
const BURNING = SUBSTANCES.filter((one) => one.lfl !== undefined).map(({ name }) => name) as [string, ...string[]];

export const sampleWait = calculator({
  name: "sample-wait",
  task: "Test the air",
  title: "How long to wait for a sample",
  fields: {
    hose_m: size("Length of the hose", "length", { max: 1000, example: 12 }),
    bore_m: size("Inside diameter of the hose", "bore", { max: 0.1, example: 0.004 }),
    pump_m3_s: size("Flow of the pump", "smallFlow", { max: 1, example: 0.5e-3 / 60 }),
    t90_s: number("T90 of the slowest sensor", "seconds", { min: 0, max: 3600, example: 30 }),
    bulb_m3: size("Hand pump: volume of a squeeze", "capacity", { max: 1, optional: true }),
    points: number("Test points", "count", { min: 1, max: 5000, whole: true, default: 1 }),
    each_s: number("At each point besides: going there, writing down", "seconds", { min: 0, max: 3600, default: 0 }),
    instruments: number("Instruments at once, each with a tester", "count", {
      min: 1,
      max: 100,
      whole: true,
      optional: true,
      hint: "not said: as many as a round asks",
    }),
    round_s: number("A round no longer than", "duration", {
      above: 0,
      max: 86_400,
      optional: true,
      hint: "a permit takes at most 20 min an instrument",
    }),
  },
  compute: (inputs): Calculation => {
    const wait_s = sampleWait_s(inputs);
    const { points, round_s, each_s } = inputs;
    const needed = round_s === undefined ? 1 : instrumentsFor(points, wait_s + each_s, round_s);
    if (needed === null) {
      throw new NoFigure(
        "round_s",
        (units) => `is over before one point is read: that takes ${figure(wait_s + each_s, "duration", units)}`,
      );
    }
    const all_s = roundOf_s(points, wait_s + each_s, inputs.instruments ?? needed);
    const hose_s = hoseVolume_m3(inputs) / inputs.pump_m3_s;
    const byHand: Result[] =
      inputs.bulb_m3 === undefined
        ? []
        : [
            {
              key: "squeezes",
              words: "Hand pump, squeezes at each point",
              quantity: "count",
              value: squeezes({ ...inputs, bulb_m3: inputs.bulb_m3 }),
            },
          ];
    return {
      results: [
        { key: "time_s", words: "Wait at each point", quantity: "duration", value: wait_s },
        { key: "hose_s", words: "until the hose is through", quantity: "duration", value: hose_s },
        { key: "all_s", words: "At every point together", quantity: "duration", value: all_s },
        ...(round_s === undefined
          ? []
          : [{ key: "needed", words: "Instruments that a round asks", quantity: "count" as const, value: needed }]),
        ...byHand,
      ],
      governs: "time_s",
      formula:
        "t = hose volume / pump flow + 2·T90; a round: the points of one instrument, t and the handling each; a hand pump: squeezes for the hose, then at least 6",
      source: "arithmetic; 2·T90 and six squeezes practice",
      validity: "A hose without a leak: pinch its end and see the pump stop. Sticky gases take longer.",
      warnings: [
        "Take the reading only after the wait, at every point anew.",
        ...(round_s !== undefined && all_s > round_s
          ? ["The first readings of this round are too old before its last: take more instruments."]
          : []),
      ],
      picture: {
        kind: "bars",
        quantity: "duration",
        log: false,
        rows: [
          { words: "hose", value: hose_s },
          { words: "sensor, twice T90", value: 2 * inputs.t90_s },
          { words: "each point", value: wait_s, governs: true },
        ],
      },
    };
  },
});

/** A list longer than this is no list. */
const MOST_POINTS = 5000;

export const placesToTest = calculator({
  name: "test-points",
  task: "Test the air",
  title: "Where to test a space",
  fields: {
    depth_m: number("Depth", "length", { min: 0, max: 500, example: 5 }),
    travel_m: number("Length sideways", "length", { min: 0, max: 500, example: 2.4 }),
    width_m: number("Width", "length", { min: 0, max: 500, example: 2.4 }),
    corners: number("Corners", "count", { min: 0, max: 200, whole: true, example: 4 }),
    ducts: number("Open duct mouths", "count", { min: 0, max: 200, whole: true, example: 1 }),
    each_s: number("At each point, hose and response", "seconds", { above: 0, max: 3600, default: 60 }),
    retest_s: number("All of them again within", "duration", { above: 0, max: 86_400, default: 1800 }),
  },
  compute: (inputs): Calculation => {
    const depths = testDepths_m(inputs.depth_m);
    const points = testPoints(inputs);
    if (points.length > MOST_POINTS)
      throw new NoFigure("depth_m", "and the other sizes make more points than anybody tests");
    const instruments = instrumentsFor(points.length, inputs.each_s, inputs.retest_s);
    if (instruments === null) throw new NoFigure("retest_s", "is over before one point is read");
    return {
      results: [
        { key: "points", words: "Test points", quantity: "count", value: points.length },
        { key: "instruments", words: "Instruments, each with a tester", quantity: "count", value: instruments },
        { key: "depths", words: "of them down one line", quantity: "count", value: depths.length },
        { key: "spacing_m", words: "one every", quantity: "length", value: (depths[1] ?? 0) - (depths[0] ?? 0) },
      ],
      governs: "points",
      formula:
        "one every 1.2 m (4 ft) of depth, length and width, top, middle and bottom at least, corners high and low",
      source: "29 CFR 1910.146 appendix B for 4 ft, from memory; corners and duct mouths practice",
      validity: "From outside first, then with the instrument at head height all the way in.",
      warnings: [
        `At every point in this order: ${TEST_ORDER.join(", ")}.`,
        ...(instruments > 1 ? ["More than one instrument can read again in time: fewer are not enough."] : []),
      ],
      picture: { kind: "depths", depth_m: inputs.depth_m, travel_m: inputs.travel_m, at_m: depths },
      also: { at: points },
    };
  },
});

const LIMITS = { strict: STRICT_ENTRY, ...ENTRY_LIMITS, "hot work": HOT_WORK_LIMITS } as const;

export const airTest = calculator({
  name: "air-test",
  task: "Test the air",
  title: "Is this air fit to be in",
  fields: {
    oxygen: number("Oxygen read", "percent", { min: 0, max: 1, example: 0.205 }),
    flammable: number("Flammable read, of the lower limit", "percent", { min: 0, max: 1, example: 0.02 }),
    h2s: number("Hydrogen sulphide read", "ppm", { min: 0, max: 1, example: 0 }),
    co: number("Carbon monoxide read", "ppm", { min: 0, max: 1, example: 3e-6 }),
    limits: choice("Limits", ["strict", "us-style", "uk-style", "hot work"]),
  },
  compute: ({ oxygen, flammable, h2s, co, limits }): Calculation => {
    const law = LIMITS[limits];
    const toxics = [
      { gas: "hydrogen sulphide", fraction: h2s },
      { gas: "carbon monoxide", fraction: co },
    ];
    const judged = judgeAir({ oxygen, flammable, toxics }, law);
    const share = (gas: string, fraction: number) =>
      fraction / (law.toxics.find((one) => one.gas === gas)?.most ?? fraction);
    const strictest = Math.max(0, ...toxics.map(({ gas, fraction }) => share(gas, fraction)));
    return {
      results: [
        {
          key: "against",
          words: judged.fit ? "Fit by these limits" : "Not fit: readings against it",
          quantity: "count",
          value: judged.against.length,
        },
        { key: "oxygen", words: "Oxygen", quantity: "percent", value: oxygen },
        { key: "toxic_share", words: "Nearest toxic, of its limit", quantity: "percent", value: strictest },
      ],
      governs: "against",
      ...(judged.fit ? {} : { because: `${judged.against.join("; ")}.` }),
      formula: "every reading within its limit, in the order oxygen, flammable, toxic",
      source: `${law.source}; ${law.toxics.map((one) => one.source).join("; ")}`,
      validity: "One reading at one place. The instrument bump-tested and in date; every test point counts.",
      warnings: judged.explain,
      picture: {
        kind: "bars",
        quantity: "percent",
        log: false,
        rows: [
          { words: "oxygen", value: oxygen, governs: oxygen < law.oxygen.least || oxygen > law.oxygen.most },
          {
            words: "flammable, of the limit",
            value: flammable,
            governs: flammable > 0 && flammable >= law.flammableBelow,
          },
        ],
        line: { value: law.oxygen.least, words: "least oxygen" },
      },
      also: { fit: judged.fit, reasons: judged.against },
    };
  },
});

export const gasWeight = calculator({
  name: "gas-weight",
  task: "Test the air",
  title: "Where a gas gathers, and its limits",
  fields: {
    gas: choice("Gas", GASES),
    set: choice("Set of flammable limits", LFL_SETS),
  },
  compute: ({ gas, set }): Calculation => {
    const one = substance(gas)!;
    const relative = densityAgainstAir(one.molar_kg);
    const lfl = lowerLimit(one, set) ?? null;
    const tenth = tenthOfLimit(gas);
    return {
      results: [
        { key: "relative", words: `Against air: ${gathers(relative)}`, quantity: "ratio", value: relative },
        { key: "lfl", words: "Lower flammable limit", quantity: "percent", value: lfl, instead: "does not burn" },
        {
          key: "toxic",
          words: "Toxic limit",
          quantity: "ppm",
          value: one.toxic?.limit ?? null,
          instead: "none here: look in its data sheet",
        },
      ],
      governs: "relative",
      formula: "M / 28.96",
      source: `arithmetic; limits: NIOSH Pocket Guide (US set) and IEC 60079-20-1 (European), from memory${one.toxic ? `; ${one.toxic.source}` : ""}`,
      validity: "At one temperature: a cold light gas sinks, a hot heavy one rises.",
      warnings: tenth?.aboveToxic
        ? [`10 % of its flammable limit is ${Math.round(tenth.fraction * 1e6)} ppm: far above what may be breathed.`]
        : [],
      picture: {
        kind: "bars",
        quantity: "ratio",
        log: true,
        rows: [
          { words: gas, value: relative, governs: true },
          { words: "air", value: 1 },
        ],
      },
    };
  },
});

/** Share of the lower limit from which nobody enters. Common practice and 29 CFR 1910.146, from memory. */
const ENTRY_SHARE = ENTRY_LIMITS["us-style"].flammableBelow;

export const mixtureLfl = calculator({
  name: "mixture-lfl",
  task: "Test the air",
  title: "Can this mixture burn",
  fields: {
    parts: {
      type: "rows",
      words: "Vapours in the air",
      columns: {
        vol: size("In the air", "percent", { max: 1 }),
        lfl: size("Its lower limit", "percent", { max: 1 }),
      },
      most: 12,
      example: [
        { vol: 0.008, lfl: 0.012 },
        { vol: 0.02, lfl: 0.053 },
        { vol: 0.005, lfl: 0.031 },
      ],
    },
  },
  compute: ({ parts }): Calculation => {
    const { lfl, total, flammable } = mixtureLimit(parts);
    return {
      results: [
        { key: "lfl", words: "Lower limit of the mixture", quantity: "percent", value: lfl },
        { key: "total", words: "In the air, all together", quantity: "percent", value: total },
        { key: "share", words: "Of the limit", quantity: "percent", value: total / lfl },
      ],
      governs: "lfl",
      because: flammable
        ? "It can burn: there is as much in the air as the limit, or more."
        : total / lfl >= ENTRY_SHARE
          ? "It does not burn as it stands, and is no air to enter or to work a flame in."
          : "Below a tenth of the limit. What poisons does so long before: see each one's own limit.",
      formula: "LFL = 1/Σ(yᵢ/LFLᵢ), yᵢ the share of each in the burning part",
      source: "Le Chatelier; Crowl and Louvar, Chemical Process Safety, chapter on fires, from memory",
      validity:
        "Vapours in air near room temperature and pressure. Above the upper limit it burns as soon as air comes.",
      warnings: flammable
        ? ["It can burn: nobody enters and nothing sparks."]
        : total / lfl >= ENTRY_SHARE
          ? [
              `At ${figure(total / lfl, "percent", "metric")} of the limit nobody enters and nothing sparks: a tenth of it is where it stops.`,
            ]
          : [],
      picture: {
        kind: "bars",
        quantity: "percent",
        log: false,
        rows: [
          ...parts.map((part, i) => ({ words: `vapour ${i + 1}`, value: part.vol })),
          { words: "together", value: total, governs: true },
        ],
        line: { value: lfl, words: "limit of the mixture" },
      },
      also: { flammable },
    };
  },
});

export const sensorForGas = calculator({
  name: "sensor-choice",
  task: "Test the air",
  title: "Does this sensor see this gas",
  fields: {
    sensor: choice("Sensor", ["catalytic", "infrared"]),
    gas: choice("Gas", BURNING),
    oxygen: number("Oxygen in the space", "percent", { min: 0, max: 1, example: 0.2 }),
    silicones: choice("Silicones about", ["no", "yes"]),
  },
  compute: ({ sensor, gas, oxygen, silicones }): Calculation => {
    const refusal = sensorRefusal({ sensor, gas, oxygen, silicones: silicones === "yes" });
    return {
      results: [
        {
          key: "usable",
          words: "Does it see it",
          quantity: "count",
          value: null,
          instead: refusal === null ? "yes" : "no: do not rely on it",
        },
      ],
      governs: "usable",
      ...(refusal === null ? {} : { because: `${refusal.charAt(0).toUpperCase()}${refusal.slice(1)}.` }),
      formula: "catalytic: some 10 % oxygen, no silicones; infrared: does not see hydrogen",
      source: "practice",
      validity: "The maker's data sheet wins. Bump-test with the gas itself.",
      warnings: [],
      picture: {
        kind: "bars",
        quantity: "percent",
        log: false,
        rows: [{ words: "oxygen in the space", value: oxygen, governs: true }],
        line: { value: 0.1, words: "catalytic needs" },
      },
      also: { fit: refusal === null, why: refusal },
    };
  },
});
