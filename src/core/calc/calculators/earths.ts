import {
  arcByLee_J_m2,
  arcOfDc_J_m2,
  BURN_J_m2,
  earthCable_mm2,
  earthReturn_m,
  inducedVoltage_V,
  madeSize_mm2,
  threePhaseFault,
} from "../../energy/earthing";
import { NoFigure, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";
import { bars, curve } from "../pictures";

export const portableEarth = calculator({
  name: "portable-earth",
  task: "Prove it dead",
  title: "How thick a portable earth must be",
  fields: {
    current_A: size("Fault current", "current", { max: 1e6, example: 31_500 }),
    time_s: size("Cleared after", "seconds", { max: 10, example: 0.5 }),
    k: number("k of the cable, A·√s/mm²", "ratio", { above: 0, max: 300, default: 159 }),
  },
  compute: ({ current_A, time_s, k }): Calculation => {
    const area = earthCable_mm2(current_A, time_s, k);
    const made = madeSize_mm2(area);
    return {
      results: [
        {
          key: "made_m2",
          words: "Take",
          quantity: "wireArea",
          value: made === null ? null : made * 1e-6,
          instead: "two side by side: none is thick enough",
        },
        { key: "area_m2", words: "At least", quantity: "wireArea", value: area * 1e-6 },
      ],
      governs: "made_m2",
      formula: "S = I·√t/k, the next made size; k 159: copper from 30 to 200 °C",
      source: "IEC 60949 and IEC 61230, from memory; the site's table of fault currents wins",
      validity: "The clearing time of the back-up protection, not of the first. Clamps and joints bear as much.",
      warnings: [
        ...(k > 176 ? ["k above 176 is not known for copper: check it."] : []),
        "Earth end first on, last off; clamps on bare metal; nobody near while it is put on.",
      ],
      picture: curve({
        x: { words: "cleared after", quantity: "seconds" },
        y: { words: "copper", quantity: "wireArea" },
        words: "at least",
        points: sampled(0, Math.max(1, time_s * 1.5), (t) => earthCable_mm2(current_A, t, k) * 1e-6),
        marks: [{ x: time_s, y: area * 1e-6, words: "here" }],
      }),
    };
  },
});

export const threePhase = calculator({
  name: "three-phase-fault",
  task: "Prove it dead",
  title: "Three-phase fault current and its peak",
  fields: {
    voltage_V: size("Voltage between phases", "voltage", { max: 1e6, example: 10_000 }),
    resistance_ohm: number("Resistance to the source", "resistance", { min: 0, max: 1e6, example: 0.05 }),
    reactance_ohm: number("Reactance to the source", "resistance", { min: 0, max: 1e6, example: 0.3 }),
  },
  compute: ({ voltage_V, resistance_ohm, reactance_ohm }): Calculation => {
    if (resistance_ohm + reactance_ohm <= 0)
      throw new NoFigure("reactance_ohm", "and the resistance must not both be 0");
    const fault = threePhaseFault(voltage_V, resistance_ohm, reactance_ohm);
    return {
      results: [
        { key: "current_A", words: "Fault current", quantity: "current", value: fault.current_A },
        { key: "peak_A", words: "Greatest peak", quantity: "current", value: fault.peak_A },
        { key: "kappa", words: "Peak factor", quantity: "ratio", value: fault.kappa },
      ],
      governs: "current_A",
      formula: "I = U/(√3·Z); peak κ·√2·I, κ = 1.02 + 0.98·e^(−3·R/X)",
      source: "IEC 60909, from memory",
      validity: "Far from a generator, all three phases together. Motors feed some more for the first moments.",
      warnings: ["Earths and clamps bear the peak as well as the heat: both stand on their plates."],
      picture: bars("current", [
        { words: "steady", value: fault.current_A, governs: true },
        { words: "peak", value: fault.peak_A },
      ]),
    };
  },
});

export const inducedVoltage = calculator({
  name: "induced-voltage",
  task: "Prove it dead",
  title: "What a live circuit induces in a dead one beside it",
  fields: {
    current_A: size("Current in the live one", "current", { max: 1e6, example: 400 }),
    fault_A: number("and in a fault", "current", { min: 0, max: 1e6, default: 0 }),
    length_m: size("Side by side for", "length", { max: 1e6, example: 2000 }),
    apart_m: size("Apart by", "length", { max: 1000, example: 5 }),
    soil_ohm_m: number("Soil", "soil", { min: 1, max: 1e5, default: 100 }),
    frequency_Hz: number("Frequency", "frequency", { above: 0, max: 1000, default: 50 }),
  },
  compute: (inputs): Calculation => {
    const depth = earthReturn_m(inputs.soil_ohm_m, inputs.frequency_Hz);
    if (inputs.apart_m >= depth)
      throw new NoFigure("apart_m", "is farther than the earth's own return: this formula ends there");
    const at = (current_A: number, length_m = inputs.length_m) => inducedVoltage_V({ ...inputs, current_A, length_m });
    const worst = Math.max(at(inputs.current_A), at(inputs.fault_A));
    return {
      results: [
        { key: "voltage_V", words: "Along the dead one, running", quantity: "voltage", value: at(inputs.current_A) },
        { key: "fault_V", words: "in a fault", quantity: "voltage", value: at(inputs.fault_A) },
      ],
      governs: "voltage_V",
      because:
        worst > 50 ? "More than 50 V: earthed at both ends and at the work, bonded where people touch." : "Below 50 V.",
      formula: "E = 2π·f·(μ₀/2π)·ln(658·√(ρ/f)/d)·I·L",
      source: "Carson 1926, from memory",
      validity:
        "One conductor with the earth as its return, side by side all along: a bound for three phases, which cancel in part.",
      warnings: [
        "Dead and tested is not enough beside a live line: what is induced comes back as soon as an earth is off.",
      ],
      picture: curve({
        x: { words: "side by side for", quantity: "length" },
        y: { words: "induced", quantity: "voltage" },
        words: "running",
        points: sampled(0, inputs.length_m, (l) => at(inputs.current_A, l)),
        lines: [{ y: 50, words: "touch limit" }],
      }),
    };
  },
});

export const cableCharge = calculator({
  name: "cable-charge",
  task: "Wait until it is harmless",
  title: "What a long cable still holds",
  fields: {
    perMetre_F: number("Capacitance of a kilometre", "capacitance", { above: 0, max: 1e-5, example: 0.3e-6 }),
    length_m: size("Length", "length", { max: 1e6, example: 3000 }),
    voltage_V: size("Charged to", "voltage", { max: 1e6, example: 14_000 }),
    resistance_ohm: number("Discharged through", "resistance", { above: 0, max: 1e12, example: 1e6 }),
    target_V: number("to", "voltage", { above: 0, max: 1000, default: 50 }),
  },
  compute: ({ perMetre_F, length_m, voltage_V, resistance_ohm, target_V }): Calculation => {
    const capacitance = (perMetre_F * length_m) / 1000;
    const time = voltage_V <= target_V ? 0 : resistance_ohm * capacitance * Math.log(voltage_V / target_V);
    const energy = 0.5 * capacitance * voltage_V ** 2;
    return {
      results: [
        { key: "energy_J", words: "It holds", quantity: "energy", value: energy },
        { key: "capacitance_F", words: "Capacitance", quantity: "capacitance", value: capacitance },
        { key: "time_s", words: "Down to the target after", quantity: "seconds", value: time },
      ],
      governs: "energy_J",
      formula: "C = c·L; ½·C·V²; t = R·C·ln(V/V₁)",
      source: "arithmetic",
      validity: "Between one core and its screen. Peak of the test or of the line, not its effective value.",
      warnings: [
        ...(energy > 0.25 ? ["Enough to throw a person off a ladder."] : []),
        ...(energy > 10 ? ["Enough to kill."] : []),
        "After a test with direct voltage charge comes back by itself: earthed for longer than it was tested.",
      ],
      picture: curve({
        x: { words: "time", quantity: "seconds" },
        y: { words: "voltage", quantity: "voltage" },
        words: "left",
        points: sampled(
          0,
          Math.max(time * 1.3, 1e-9),
          (t) => voltage_V * Math.exp(-t / (resistance_ohm * capacitance)),
        ),
        lines: [{ y: target_V, words: "target" }],
      }),
    };
  },
});

const SUPPLIES = ["alternating", "direct"] as const;

export const arcEnergy = calculator({
  name: "arc-energy",
  task: "Prove it dead",
  title: "What an arc in the open may burn",
  fields: {
    supply: choice("Current", SUPPLIES),
    voltage_V: size("Voltage", "voltage", { max: 1e6, example: 400 }),
    current_A: size("Fault current", "current", { max: 1e6, example: 10_000 }),
    time_s: size("Cleared after", "seconds", { max: 10, example: 0.2 }),
    at_m: size("Face and chest from it", "length", { max: 100, example: 0.45 }),
  },
  compute: (inputs): Calculation => {
    const energyAt = (at_m: number) => (inputs.supply === "direct" ? arcOfDc_J_m2 : arcByLee_J_m2)({ ...inputs, at_m });
    const energy = energyAt(inputs.at_m);
    const boundary = inputs.at_m * Math.sqrt(energy / BURN_J_m2);
    return {
      results: [
        { key: "energy_J_m2", words: "Heat on the skin", quantity: "heatOnSkin", value: energy },
        { key: "boundary_m", words: "A second-degree burn is possible to", quantity: "length", value: boundary },
      ],
      governs: "energy_J_m2",
      because:
        energy > BURN_J_m2
          ? "Enough to burn bare skin to the second degree: work dead."
          : "Below what burns bare skin to the second degree.",
      formula:
        inputs.supply === "direct"
          ? "0.01·V·(I/2)·t/D² (V, A, s, cm, cal/cm²)"
          : "2.142·10⁶·V·I·t/D² (kV, kA, s, mm, J/cm²)",
      source: inputs.supply === "direct" ? "Doan 2010, from memory; a bound" : "Lee 1982, from memory; a bound",
      validity:
        "In open air, for choosing clothing only. In a box it may be three times as much. No reason to work live.",
      warnings: [
        "A bound by a simple method: a study of the very board wins.",
        ...(inputs.at_m < 0.3 ? ["Nearer than 30 cm nothing is promised."] : []),
      ],
      picture: curve({
        x: { words: "distance", quantity: "length" },
        y: { words: "heat on the skin", quantity: "heatOnSkin" },
        words: "heat",
        points: sampled(Math.min(inputs.at_m, boundary) / 2, Math.max(inputs.at_m, boundary) * 1.5, energyAt),
        lines: [{ y: BURN_J_m2, words: "burns" }],
        marks: [{ x: inputs.at_m, y: energy, words: "here" }],
      }),
    };
  },
});
