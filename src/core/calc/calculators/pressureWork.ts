import { waterEnergy_J, keepOut } from "../../energy/gasEnergy";
import { gaugeRange_Pa, heldGas, TEST_MEDIA, TEST_STEPS, testPressure_Pa } from "../../energy/pressureTest";
import { STANDARD_GRAVITY_m_s2 } from "../../units/units";
import { NoFigure, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";
import { bars, curve } from "../pictures";

export const residualForce = calculator({
  name: "residual-force",
  task: "Empty and let the pressure go",
  title: "What a pressure left behind still pushes",
  fields: {
    pressure_Pa: number("Pressure left, gauge", "gauge", { min: 0, max: 1e8, example: 5000 }),
    width_m: size("Door or flange, gasket inside or bore", "bore", { max: 20, example: 0.6 }),
  },
  compute: ({ pressure_Pa, width_m }): Calculation => {
    const force = (wide: number) => pressure_Pa * (Math.PI / 4) * wide ** 2;
    return {
      results: [
        { key: "force_N", words: "It pushes with", quantity: "force", value: force(width_m) },
        { key: "mass_kg", words: "as the weight of", quantity: "mass", value: force(width_m) / STANDARD_GRAVITY_m_s2 },
      ],
      governs: "force_N",
      formula: "F = P·π/4·d², d inside the gasket, else the bore",
      source: "arithmetic",
      validity: "A round opening. What hangs behind it, liquid or product, is not in it.",
      warnings: [
        ...(force(width_m) > 250 ? ["More than a person holds: a door that lets go throws whoever stands at it."] : []),
        "A gauge that reads zero may hide this much: zero is shown by what it reads open to the air as well.",
      ],
      picture: curve({
        x: { words: "width", quantity: "bore" },
        y: { words: "push", quantity: "force" },
        words: "at this pressure",
        points: sampled(0, width_m * 1.5, force),
        marks: [{ x: width_m, y: force(width_m), words: "this one" }],
      }),
    };
  },
});

export const testPressure = calculator({
  name: "test-pressure",
  task: "Test with pressure",
  title: "Test pressure, gauge, weight and keep-out",
  fields: {
    design_Pa: number("Design pressure, gauge", "gauge", { above: 0, max: 4e8, example: 10e5 }),
    medium: choice("Tested with", TEST_MEDIA),
    cold_Pa: size("Stress allowed at the test", "stress", { max: 2e9, example: 138e6 }),
    hot_Pa: size("Stress allowed at the design temperature", "stress", { max: 2e9, example: 138e6 }),
    height_m: number("Highest over lowest point", "length", { min: 0, max: 500, default: 0 }),
    density_kg_m3: number("Density of the liquid", "density", { above: 0, max: 20_000, default: 1000 }),
    volume_m3: size("Volume", "volume", { max: 1e6, example: 4 }),
    weakest_Pa: number("Weakest part is good for, gauge", "gauge", { above: 0, max: 4e8, optional: true }),
  },
  compute: (inputs): Calculation => {
    const { medium, volume_m3, weakest_Pa } = inputs;
    const top = testPressure_Pa({
      design_Pa: inputs.design_Pa,
      coldStress_Pa: inputs.cold_Pa,
      hotStress_Pa: inputs.hot_Pa,
      medium,
    });
    const isWater = medium === "water";
    const bottom = top + (isWater ? inputs.density_kg_m3 * STANDARD_GRAVITY_m_s2 * inputs.height_m : 0);
    const [least, greatest] = gaugeRange_Pa(top);
    const energy_J = isWater ? waterEnergy_J({ gauge_Pa: top, volume_m3 }) : null;
    return {
      results: [
        { key: "test_Pa", words: "Test pressure at the top, gauge", quantity: "gauge", value: top },
        { key: "bottom_Pa", words: "At the lowest point", quantity: "gauge", value: bottom },
        { key: "gauge_least_Pa", words: "Gauge, full scale at least", quantity: "gauge", value: least },
        { key: "gauge_most_Pa", words: "at most", quantity: "gauge", value: greatest },
        {
          key: "weight_kg",
          words: "Filling weighs on its supports",
          quantity: "mass",
          value: isWater ? inputs.density_kg_m3 * volume_m3 : 0,
        },
        {
          key: "distance_m",
          words: "Keep out to",
          quantity: "length",
          value: energy_J === null ? null : 20 * Math.cbrt(2 * keepOut(energy_J).tnt_kg),
          instead: "by gas-energy: gas holds far more",
        },
      ],
      governs: "test_Pa",
      because: `Raised in steps of ${TEST_STEPS.map((step) => `${step * 100} %`).join(", ")}, with a look for leaks at each.`,
      formula: "water 1.5·P·S_test/S_design, gas 1.1·P; + ρ·g·h at the lowest point; gauge 1.5 to 4 times",
      source: "ASME B31.3, section 345, and BPVC section VIII, UG-102, from memory",
      validity: "Piping. Vessels, boilers and the site's own code have other figures; an engineer signs them.",
      warnings: [
        ...(weakest_Pa !== undefined && bottom > weakest_Pa
          ? ["The lowest point gets more than its weakest part is good for: blind it off, or test it apart."]
          : []),
        ...(isWater
          ? [
              "Supports, springs and the floor carry the filling: ask before it is filled.",
              "Keep-out for water is what it holds itself; whips, plugs and trapped air fly farther.",
            ]
          : ["Gas only where an engineer accepts it: see what it holds, and how far to keep out."]),
        ...(inputs.cold_Pa < inputs.hot_Pa
          ? ["Metal that bears more hot than cold is not known: check the stresses."]
          : []),
      ],
      picture: bars("gauge", [
        { words: "design", value: inputs.design_Pa },
        { words: "test, top", value: top, governs: true },
        { words: "test, bottom", value: bottom },
      ]),
    };
  },
});

export const pressureHold = calculator({
  name: "pressure-hold",
  task: "Test with pressure",
  title: "Did it leak, or did it only cool",
  fields: {
    start_Pa: size("Pressure at the start, absolute", "pressure", { max: 4e8, example: 8e5 }),
    end_Pa: size("At the end, absolute", "pressure", { max: 4e8, example: 7.8e5 }),
    start_K: number("Gas at the start", "kelvin", { min: 200, max: 800, example: 298.15 }),
    end_K: number("At the end", "kelvin", { min: 200, max: 800, example: 293.15 }),
    volume_m3: size("Volume", "volume", { max: 1e6, example: 2 }),
    over_s: size("Held for", "duration", { max: 1e7, example: 3600 }),
    gauge_error_Pa: number("Gauge may be wrong by", "gauge", { min: 0, max: 1e8, default: 0 }),
    temperature_error_K: number("Thermometer may be wrong by", "temperatureStep", { min: 0, max: 50, default: 0.5 }),
  },
  compute: (inputs): Calculation => {
    const held = heldGas(inputs);
    const doubt = 2 * inputs.gauge_error_Pa + (2 * inputs.temperature_error_K * inputs.start_Pa) / inputs.start_K;
    const isTight = held.lost_Pa <= 0 || held.lost_Pa <= doubt;
    return {
      results: [
        { key: "lost_Pa", words: "Lost, cooling taken off", quantity: "gauge", value: held.lost_Pa },
        { key: "leak_Pa_m3_s", words: "that is a leak of", quantity: "leakRate", value: held.leak_Pa_m3_s },
        {
          key: "expected_Pa",
          words: "Without a leak it would read, absolute",
          quantity: "pressure",
          value: held.expected_Pa,
        },
        { key: "doubt_Pa", words: "The instruments cannot tell less than", quantity: "gauge", value: doubt },
      ],
      governs: "lost_Pa",
      because: isTight
        ? "No more than the instruments may be wrong: no leak is shown, and a smaller one is not excluded."
        : "More than the instruments may be wrong: it leaks.",
      formula: "P₁·T₂/T₁ − P₂; leak = V·ΔP/Δt; absolute pressure and temperature",
      source: "ideal gas",
      validity:
        "A gas. Water shut in changes by some 3 bar for each kelvin: it is held at one temperature or not judged.",
      warnings: [
        ...(held.lost_Pa < -doubt ? ["It rose: something feeds it, or the temperature was not that of the gas."] : []),
        ...(inputs.over_s < 600 ? ["Held for less than 10 min."] : []),
      ],
      picture: bars("pressure", [
        { words: "start", value: inputs.start_Pa },
        { words: "without a leak", value: held.expected_Pa },
        { words: "end", value: inputs.end_Pa, governs: true },
      ]),
      also: { leaks: !isTight },
    };
  },
});

/** Shares of what a valve passes open, by seat class, as IEC 60534-4 gives them, from memory; the tightest first. */
const SEATS = [
  ["class IV", 0.0001],
  ["class III", 0.001],
  ["class II", 0.005],
] as const;

export const bleedFlow = calculator({
  name: "bleed-flow",
  task: "Empty and let the pressure go",
  title: "What the flow at a bleed says of the valve before it",
  fields: {
    measured_m3_s: number("Flow at the open bleed", "smallFlow", { min: 0, max: 1, example: 0.5e-3 / 60 }),
    rated_m3_s: size("The valve passes, fully open", "flow", { max: 1000, example: 0.02 }),
    ventilation_m3_s: number("Fresh air where it goes", "flow", { above: 0, max: 1000, optional: true }),
    share: number("Harmful gas in it", "percent", { above: 0, max: 1, default: 1 }),
  },
  compute: ({ measured_m3_s, rated_m3_s, ventilation_m3_s, share }): Calculation => {
    const leaks = measured_m3_s / rated_m3_s;
    if (leaks > 1) throw new NoFigure("measured_m3_s", "must not be more than the valve passes open");
    const seat = SEATS.find(([, most]) => leaks <= most)?.[0] ?? "worse than class II";
    const given = measured_m3_s * share;
    return {
      results: [
        { key: "leak", words: "It passes, of its full flow", quantity: "percent", value: leaks },
        {
          key: "concentration",
          words: "In the air there, mixed",
          quantity: "ppm",
          value: ventilation_m3_s === undefined ? null : given / (given + ventilation_m3_s),
          instead: "give the fresh air",
        },
      ],
      governs: "leak",
      because:
        measured_m3_s === 0
          ? "Nothing comes: look that the bleed is not plugged before it is believed."
          : `As a seat of ${seat}.`,
      formula: "measured flow ÷ full flow, against 0.01, 0.1 and 0.5 %; concentration G/(G + Q)",
      source: "IEC 60534-4, seat classes, from memory",
      validity: "At today's pressure. A seat that leaks gets worse, not better.",
      warnings: [
        ...(seat === "worse than class II" ? ["It does not hold. It is no barrier: isolate elsewhere."] : []),
        "A valve that passes is watched for as long as anybody relies on it.",
      ],
      picture: bars("percent", [
        { words: "measured", value: leaks, governs: true },
        ...SEATS.map(([words, value]) => ({ words, value })),
      ]),
      also: { seat },
    };
  },
});
