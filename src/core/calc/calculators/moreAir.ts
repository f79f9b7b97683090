import { hiddenGas, correctionFor, wetAirOxygen } from "../../atmosphere/sensorReading";
import { cylindersFor, inertToSweep_m3, serviceLimits } from "../../atmosphere/intoService";
import { stillReach_m, windReach_m } from "../../atmosphere/exhaust";
import { lowerLimit, SUBSTANCES, substance } from "../../atmosphere/substances";
import { breathes_m3_s, flowToHold_m3_s, vapour_m3_s, WORK_RATES } from "../../atmosphere/ventilation";
import { NoFigure, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";
import { bars, curve } from "../pictures";

const BURNING = SUBSTANCES.filter(({ lfl }) => lfl !== undefined).map(({ name }) => name);
const NOT_KNOWN = "not known";

export const trueReading = calculator({
  name: "true-reading",
  task: "Test the air",
  title: "What a flammable reading means for this gas",
  fields: {
    reading: number("Reading, share of the lower limit", "percent", { min: 0, max: 1, example: 0.08 }),
    gas: choice("Gas that is there", [NOT_KNOWN, ...BURNING]),
    calibrated: choice("Sensor calibrated on", ["methane", "propane", "hexane", "hydrogen"]),
    factor: number("Factor of the sensor's own sheet", "ratio", { above: 0, max: 20, optional: true }),
  },
  compute: ({ reading, gas, calibrated, factor }): Calculation => {
    const times = correctionFor(gas, calibrated, factor);
    const share = reading * times;
    const known = substance(gas);
    const limit = (known && lowerLimit(known)) ?? null;
    return {
      results: [
        { key: "share", words: "True share of the lower limit", quantity: "percent", value: share },
        { key: "factor", words: "Reading times", quantity: "ratio", value: times },
        {
          key: "fraction",
          words: "That is, of the air",
          quantity: "ppm",
          value: limit === null ? null : share * limit,
          instead: "name the gas",
        },
      ],
      governs: "share",
      because:
        share >= 0.1 ? "A tenth of the lower limit or more: nobody enters." : "Below a tenth of the lower limit.",
      formula: "true share = reading × factor, never less than the reading; ppm = share × lower limit",
      source: "factors from memory of makers' tables; the sheet of the very sensor wins",
      validity: "A catalytic sensor with some 10 % oxygen, not poisoned, below the lower limit.",
      warnings: [
        ...(gas === NOT_KNOWN && factor === undefined ? ["Gas not known: the greatest factor is taken."] : []),
        ...(share >= 1 ? ["The air may burn. Above the lower limit a catalytic sensor reads low again."] : []),
        ...(factor !== undefined && factor < 1 ? ["A factor below 1 is not used: a reading is never made less."] : []),
      ],
      picture: bars(
        "percent",
        [
          { words: "read", value: reading },
          { words: "true", value: share, governs: true },
        ],
        { value: 0.1, words: "nobody enters" },
      ),
      also: { fit: share < 0.1 },
    };
  },
});

export const oxygenGap = calculator({
  name: "hidden-gas",
  task: "Test the air",
  title: "What a gap of oxygen may hide",
  fields: {
    oxygen: number("Oxygen read", "percent", { min: 0, max: 0.25, example: 0.208 }),
    temperature_C: number("Air, temperature", "temperature", { min: 0, max: 60, default: 20 }),
  },
  compute: ({ oxygen, temperature_C }): Calculation => {
    const hidden = hiddenGas(oxygen);
    const wet = wetAirOxygen(temperature_C);
    // What the wettest air could not explain.
    const unexplained = hiddenGas(oxygen + Math.max(0, 0.209 - wet));
    return {
      results: [
        { key: "hidden", words: "Gas that may be there, at most", quantity: "ppm", value: hidden },
        { key: "unexplained", words: "not explained by damp alone", quantity: "ppm", value: unexplained },
        { key: "wet_oxygen", words: "Clean air that is all damp reads", quantity: "percent", value: wet },
      ],
      governs: "hidden",
      because:
        unexplained > 0
          ? "Damp does not explain it: find what is there before anybody enters."
          : "Damp air could read so; it is shown to be that, not believed.",
      formula: "gas = (20.9 % − O₂) × 100/20.9; damp clean air: 20.95 % × (1 − vapour pressure/atmosphere)",
      source: "arithmetic; vapour pressure by Magnus, from memory",
      validity:
        "Gas that pushes air aside. What burns, rusts or rots takes oxygen and may leave little gas, or poison.",
      warnings: oxygen > 0.209 ? ["More oxygen than in air: find where it comes from."] : [],
      picture: curve({
        x: { words: "oxygen read", quantity: "percent" },
        y: { words: "gas that may be there", quantity: "percent" },
        words: "at most",
        points: sampled(0.15, 0.209, hiddenGas),
        marks: oxygen >= 0.15 && oxygen <= 0.209 ? [{ x: oxygen, y: hidden, words: "here" }] : [],
      }),
    };
  },
});

const GIVES = ["gas at a known rate", "liquid that evaporates", "people who breathe"] as const;

export const ventilation = calculator({
  name: "ventilation",
  task: "Make the air fit to enter",
  title: "Flow of air that holds a limit",
  fields: {
    from: choice("What is given off", GIVES),
    generation_m3_s: number("Gas given off", "smallFlow", { above: 0, max: 100, optional: true, example: 1e-4 }),
    mass_kg_s: number("Liquid that evaporates", "massFlow", { above: 0, max: 100, optional: true, example: 1 / 3600 }),
    molar_kg: number("Its molar mass", "molar", { above: 0, max: 1, optional: true, example: 0.086 }),
    people: number("People", "count", { min: 1, max: 500, whole: true, optional: true, example: 2 }),
    work: choice("Their work", WORK_RATES),
    limit: number("Limit to hold", "percent", { above: 0, max: 1, example: 0.0011 }),
    supply: number("In the air that comes in", "percent", { min: 0, max: 1, default: 0 }),
    mixing: number("Mixing, 1 perfect to 10 poor", "ratio", { min: 1, max: 10, default: 3 }),
    temperature_K: number("Air, temperature", "kelvin", { min: 223, max: 423, default: 293.15 }),
  },
  compute: (inputs): Calculation => {
    const asked = <K extends "generation_m3_s" | "mass_kg_s" | "molar_kg" | "people">(key: K): number => {
      const value = inputs[key];
      if (value === undefined) throw new NoFigure(key, "is missing for what is given off");
      return value;
    };
    const generation =
      inputs.from === "gas at a known rate"
        ? asked("generation_m3_s")
        : inputs.from === "liquid that evaporates"
          ? vapour_m3_s({ ...inputs, mass_kg_s: asked("mass_kg_s"), molar_kg: asked("molar_kg"), ambient_Pa: 101_325 })
          : asked("people") * breathes_m3_s(inputs.work);
    const flow = flowToHold_m3_s({ ...inputs, generation_m3_s: generation });
    if (flow === null) throw new NoFigure("limit", "must be above what the air that comes in holds already");
    return {
      results: [
        { key: "flow_m3_s", words: "At least", quantity: "flow", value: flow },
        { key: "generation_m3_s", words: "Given off", quantity: "smallFlow", value: generation },
      ],
      governs: "flow_m3_s",
      formula: "Q = K·G/(C_limit − C_supply); vapour G = m·R·T/(M·p); people: carbon dioxide as much as oxygen taken",
      source: "balance of a mixed space; what people breathe out from memory of physiology tables",
      validity: "Steady, mixed as said. The limit is met in the end, not at the start; near the source it is not met.",
      warnings: [
        ...(inputs.from === "people who breathe" ? ["Limit of carbon dioxide over the shift: 0.5 %."] : []),
        ...(inputs.mixing === 1 ? ["Mixed perfectly: no space is."] : []),
      ],
      picture: curve({
        x: { words: "flow of air", quantity: "flow" },
        y: { words: "share in the end", quantity: "percent" },
        words: "ends at",
        points: sampled(flow / 3, flow * 3, (x) => inputs.supply + (inputs.mixing * generation) / x),
        lines: [{ y: inputs.limit, words: "limit" }],
        marks: [{ x: flow, y: inputs.limit, words: "enough" }],
      }),
    };
  },
});

export const intoService = calculator({
  name: "into-service",
  task: "Make the air fit to enter",
  title: "Out of service and into it without burning",
  fields: {
    lfl: number("Lower limit of the fuel", "percent", { above: 0, max: 0.99, example: 0.05 }),
    oxygen_moles: number("Oxygen that a mole of it burns with", "ratio", { above: 0, max: 100, example: 2 }),
    tabulated: number("Limiting oxygen from a table", "percent", { above: 0, max: 0.209, optional: true }),
    volume_m3: size("Volume", "volume", { max: 1e6, example: 50 }),
    fuel: number("Fuel in it now", "percent", { min: 0, max: 1, default: 1 }),
    in_inert: number("Fuel or oxygen in the inert gas", "percent", { min: 0, max: 0.2, default: 0 }),
    mixing: number("Mixing, 1 perfect to 10 poor", "ratio", { min: 1, max: 10, default: 3 }),
    cylinder_m3: number("Cylinder", "capacity", { above: 0, max: 10, default: 0.05 }),
    filled_Pa: number("filled to, absolute", "pressure", { min: 5e5, max: 1e8, default: 200e5 }),
  },
  compute: (inputs): Calculation => {
    const limits = serviceLimits({ lfl: inputs.lfl, oxygenMoles: inputs.oxygen_moles, tabulated: inputs.tabulated });
    if (limits === null) {
      throw new NoFigure(
        "oxygen_moles",
        "times the lower limit is all the oxygen of air or more: these formulas end there, take limits from tests",
      );
    }
    const { mixing, volume_m3 } = inputs;
    const out = inertToSweep_m3({
      volume_m3,
      mixing,
      from: inputs.fuel,
      to: limits.outOfService,
      inInert: inputs.in_inert,
    });
    const into = inertToSweep_m3({ volume_m3, mixing, from: 0.209, to: limits.intoService, inInert: inputs.in_inert });
    if (out === null || into === null)
      throw new NoFigure("in_inert", "must be below both limits, or it never gets there");
    const cylinders = (gas_m3: number) =>
      cylindersFor({ gas_m3, cylinder_m3: inputs.cylinder_m3, filled_Pa: inputs.filled_Pa, ambient_Pa: 101_325 });
    return {
      results: [
        { key: "out_of_service", words: "Fuel below this before air", quantity: "percent", value: limits.outOfService },
        { key: "into_service", words: "Oxygen below this before fuel", quantity: "percent", value: limits.intoService },
        { key: "out_m3", words: "Inert gas to take it out", quantity: "volume", value: out },
        { key: "out_cylinders", words: "in cylinders", quantity: "count", value: cylinders(out) },
        { key: "into_m3", words: "Inert gas to bring it in", quantity: "volume", value: into },
        { key: "into_cylinders", words: "in cylinders", quantity: "count", value: cylinders(into) },
      ],
      governs: "out_of_service",
      formula:
        "out: LFL/(1 − z·LFL/21); in: z·LFL/(1 − LFL/100), in percent; inert V·K·ln of what is there to what may be",
      source: limits.byTable
        ? "Crowl and Louvar, Chemical Process Safety, from memory; oxygen by the table given, which is lower"
        : "Crowl and Louvar, Chemical Process Safety, from memory",
      validity: "Air and fuel at room temperature and pressure. Warm or pressed, both limits are lower.",
      warnings: [
        "Stay well below: a half of each is common practice, with the air measured, not believed.",
        "Inert gas kills without a sign: whoever stands near is warned.",
        ...(inputs.tabulated === undefined ? ["A table may hold a lower limit for oxygen: look it up."] : []),
      ],
      picture: bars("percent", [
        { words: "fuel, out of service", value: limits.outOfService, governs: true },
        { words: "oxygen, into service", value: limits.intoService },
      ]),
      also: { byTable: limits.byTable },
    };
  },
});

const ENDS = ["a tenth of the lower limit", "the lower limit", "19.5 % oxygen"] as const;
/** An inert gas in so much of the air leaves 19.5 % oxygen. */
const LEAVES_195 = (0.209 - 0.195) / 0.209;

export const exhaustDistance = calculator({
  name: "exhaust-distance",
  task: "Make the air fit to enter",
  title: "How far what a purge blows out reaches",
  fields: {
    flow_m3_s: size("Flow blown out", "flow", { max: 100, example: 0.3 }),
    diameter_m: size("Opening", "bore", { max: 5, example: 0.3 }),
    share: number("Gas in it", "percent", { above: 0, max: 1, example: 0.05 }),
    ends: choice("Until", ENDS),
    lfl: number("Lower limit of the gas", "percent", { above: 0, max: 1, optional: true, example: 0.05 }),
    molar_kg: number("Its molar mass", "molar", { above: 0, max: 0.5, default: 0.044 }),
    wind_m_s: number("Wind", "velocity", { min: 1, max: 30, default: 1 }),
  },
  compute: (inputs): Calculation => {
    if (inputs.ends !== "19.5 % oxygen" && inputs.lfl === undefined) {
      throw new NoFigure("lfl", "is missing: how far it burns cannot be said without it");
    }
    const limit =
      inputs.ends === "19.5 % oxygen" ? LEAVES_195 : inputs.lfl! * (inputs.ends === "the lower limit" ? 1 : 0.1);
    const still = stillReach_m({ ...inputs, limit });
    const wind = windReach_m({ ...inputs, limit });
    const worst = wind === null ? null : Math.max(still, wind);
    return {
      results: [
        {
          key: "distance_m",
          words: "Keep people and flames off to",
          quantity: "length",
          value: worst,
          instead: "farther than ten kilometres: not so",
        },
        { key: "still_m", words: "in still air, along the jet", quantity: "length", value: still },
        {
          key: "wind_m",
          words: "downwind along the ground",
          quantity: "length",
          value: wind,
          instead: "too far to say",
        },
      ],
      governs: "distance_m",
      because:
        wind === null || wind > still
          ? "Wind carries it farther than its own push."
          : "Its own push carries it farther.",
      formula: "still: 5.4·d·√(ρ/ρ_air)·C/C_limit; wind: Q·C/(π·u·σ_y·σ_z) on a clear night",
      source: "Chen and Rodi 1980, jets; Briggs, open country, class F; both from memory",
      validity:
        "A bound for planning: nothing in the way, flat ground. It says where to measure, not where it is safe.",
      warnings: ["Heavy gas creeps into pits, drains and doors whatever the wind does."],
      picture: { kind: "reach", rings: [{ radius_m: worst ?? still, words: "keep off" }] },
    };
  },
});
