import { accumulatorEnergy } from "../../energy/accumulatorEnergy";
import { contactLimit_C, coolDownTime_s, coolingTau_s, SAME_TAU, warmUpTime_s } from "../../energy/coolDown";
import { CAPACITOR_PLACES, dischargeTime_s, ruleWait_s, SAFE_V } from "../../energy/discharge";
import { flywheelEnergy_J, raisedMassEnergy_J, springEnergy_J } from "../../energy/motionEnergy";
import { runDownTime_s } from "../../energy/runDown";
import { duration, figure } from "../../units/format";
import { STANDARD_ATMOSPHERE_Pa } from "../../units/units";
import { NoFigure, sampled, type Calculation, type Picture } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";

export const capacitor = calculator({
  name: "capacitor",
  task: "Wait until it is harmless",
  title: "How long to wait for a capacitor",
  fields: {
    capacitance_F: size("Capacitance", "capacitance", { max: 1000, example: 2.2e-3 }),
    voltage_V: number("Voltage when it was cut off", "voltage", { min: 0, max: 2e6, example: 565.7 }),
    resistance_ohm: size("Bleed resistor", "resistance", {
      max: 1e12,
      optional: true,
      example: 22_000,
      hint: "empty when not known",
    }),
    target_V: size("Down to", "voltage", { max: SAFE_V, default: SAFE_V }),
    place: choice("Where it is", CAPACITOR_PLACES),
    nameplate_s: size("Waiting time on its plate", "duration", {
      optional: true,
      hint: "counts where it is longer than the rule",
    }),
  },
  compute: ({ capacitance_F, voltage_V, resistance_ohm, target_V, place, nameplate_s }): Calculation => {
    const energy_J = 0.5 * capacitance_F * voltage_V ** 2;
    const rc_s =
      resistance_ohm === undefined ? null : dischargeTime_s({ resistance_ohm, capacitance_F, voltage_V, target_V });
    const rule_s = ruleWait_s(place, nameplate_s);
    const wait_s = Math.max(rc_s ?? 0, rule_s);
    const tau_s = (resistance_ohm ?? 0) * capacitance_F;
    const byRule = rc_s === null || rule_s >= rc_s;
    const picture: Picture | undefined =
      rc_s === null || voltage_V === 0
        ? undefined
        : {
            kind: "curve",
            x: { words: "time", quantity: "duration" },
            y: { words: "voltage", quantity: "voltage" },
            series: [
              {
                words: "ideal decay",
                points: sampled(0, Math.max(rc_s * 1.6, tau_s, 1), (t) => voltage_V * Math.exp(-t / tau_s)),
              },
            ],
            lines: [{ y: target_V, words: "safe to short" }],
            marks: [{ x: rc_s, y: Math.min(target_V, voltage_V), words: duration(rc_s) }],
            bands: [],
          };
    return {
      results: [
        { key: "wait_s", words: "Wait at least", quantity: "duration", value: wait_s },
        {
          key: "time_s",
          words: "by its resistor",
          quantity: "duration",
          value: rc_s,
          instead: "resistor not known",
        },
        {
          key: "rule_s",
          words: rule_s === nameplate_s ? "by its plate" : "by the rule",
          quantity: "duration",
          value: rule_s,
        },
        { key: "energy_J", words: "It holds", quantity: "energy", value: energy_J },
      ],
      governs: "wait_s",
      because:
        rc_s === null
          ? `Its resistor is not known, so ${rule_s === nameplate_s ? "its plate" : "the rule"} governs.`
          : `${byRule ? (rule_s === nameplate_s ? "Its plate" : "The rule") : "The resistor's sum"} is the longer, and the longer governs.`,
      formula: "½·C·V²; t = R·C·ln(V₀/V); the rule: 15 min for a drive or UPS, 5 min for a bare capacitor",
      source:
        "arithmetic; waits practice; NEC 460.6 and 460.28 ask makers for 50 V in 1 or 5 min, from memory: no proof",
      validity: "Ideal decay: the dielectric gives charge back. A burnt resistor never discharges it.",
      warnings: ["Prove dead, then discharge and short it, and leave the short on."],
      ...(picture ? { picture } : {}),
    };
  },
});

/** Common practice, no source: the time depends on the metal and the skin. */
const COLD = "Bare metal below 0 °C freezes skin to it: gloves, and no bare hand.";

/** The body's own time, given or from two readings; both have to agree, and then the longer counts. */
function tauOf(p: {
  start_C: number;
  ambient_C: number;
  tau_s: number | undefined;
  second_C: number | undefined;
  apart_s: number | undefined;
}): number {
  const { start_C, ambient_C, tau_s, second_C, apart_s } = p;
  if (second_C !== undefined && apart_s === undefined) {
    throw new NoFigure("apart_s", "is missing: how long after the first was the second reading");
  }
  if (second_C === undefined && apart_s !== undefined) throw new NoFigure("second_C", "is missing: what was read then");
  const read =
    second_C === undefined || apart_s === undefined
      ? undefined
      : coolingTau_s({ first_C: start_C, second_C, ambient_C, apart_s });
  if (read === null) throw new NoFigure("second_C", "does not show it cooling towards what is around it");
  if (tau_s !== undefined && read !== undefined && Math.max(tau_s / read, read / tau_s) > SAME_TAU) {
    throw new NoFigure(
      "tau_s",
      `contradicts the readings: it says ${duration(tau_s)}, they say ${duration(read)}. Read again, or give one of them`,
    );
  }
  const tau = Math.max(tau_s ?? 0, read ?? 0);
  if (tau === 0) throw new NoFigure("tau_s", "is missing: give it, or a second reading and the time between");
  return tau;
}

/** A body colder than what is around it does not cool: the wait of one that cools would be no answer. */
function refuseWarming(p: { start_C: number; ambient_C: number; target_C: number; tau_s: number }): void {
  const { start_C, ambient_C, target_C, tau_s } = p;
  if (start_C <= target_C && ambient_C > target_C) {
    const after_s = warmUpTime_s({ start_C, ambient_C, past_C: target_C, tau_s });
    throw new NoFigure(
      "target_C",
      (units) =>
        `cannot be kept: it warms towards ${figure(ambient_C, "temperature", units)} and is past it after ${duration(after_s ?? 0)}`,
    );
  }
  if (start_C >= 0 || start_C > target_C) return;
  const thaws_s = warmUpTime_s({ start_C, ambient_C, past_C: 0, tau_s });
  throw new NoFigure(
    "start_C",
    `is below freezing: nothing cools here. ${COLD} ${
      thaws_s === null ? "Around it stays as cold" : `It is above 0 °C after ${duration(thaws_s)}`
    }`,
  );
}

export const coolDown = calculator({
  name: "cool-down",
  task: "Wait until it is harmless",
  title: "How long something hot cools",
  fields: {
    start_C: number("Temperature now", "temperature", { min: -273.15, max: 3000, example: 150 }),
    ambient_C: number("Around it", "temperature", { min: -273.15, max: 1000, example: 25 }),
    target_C: number("Down to", "temperature", { min: -273.15, max: 3000, example: 50 }),
    tau_s: size("Its own time τ", "duration", {
      max: 1e8,
      optional: true,
      example: 7200,
      hint: "or two readings below",
    }),
    second_C: number("Second reading", "temperature", { min: -273.15, max: 3000, optional: true }),
    apart_s: size("that long after the first", "duration", { optional: true }),
  },
  compute: ({ start_C, ambient_C, target_C, tau_s, second_C, apart_s }): Calculation => {
    const tau = tauOf({ start_C, ambient_C, tau_s, second_C, apart_s });
    refuseWarming({ start_C, ambient_C, target_C, tau_s: tau });
    const time_s = coolDownTime_s({ start_C, ambient_C, target_C, tau_s: tau });
    if (time_s === null) {
      throw new NoFigure(
        "target_C",
        (units) => `is never reached: it cools to ${figure(ambient_C, "temperature", units)} and no further`,
      );
    }
    const until = Math.max(time_s * 1.4, 60);
    return {
      results: [
        { key: "time_s", words: "Cool for", quantity: "duration", value: time_s },
        { key: "tau_s", words: "Its own time τ", quantity: "duration", value: tau },
      ],
      governs: "time_s",
      formula: "T = Tₐ + (T₀ − Tₐ)·e^(−t/τ)",
      source: "Newton's law of cooling; contact limits EN ISO 13732-1, from memory",
      validity: "One body of one temperature. Thick linings hold heat and give it back: measure again.",
      warnings: [
        ...(target_C > contactLimit_C(60)
          ? ["Bare metal above 51 °C burns a hand within a minute; 43 °C is the limit for eight hours."]
          : []),
        ...(target_C < 0 ? [COLD] : []),
      ],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "temperature", quantity: "temperature" },
        series: [
          {
            words: "cooling",
            points: sampled(0, until, (t) => ambient_C + (start_C - ambient_C) * Math.exp(-t / tau)),
          },
        ],
        lines: [
          { y: target_C, words: "down to" },
          { y: ambient_C, words: "around it" },
        ],
        marks: [{ x: time_s, y: Math.min(start_C, target_C), words: duration(time_s) }],
        bands: [],
      },
    };
  },
});

export const runDown = calculator({
  name: "run-down",
  task: "Wait until it is harmless",
  title: "How long a turning mass runs on",
  fields: {
    inertia_kg_m2: size("Inertia", "inertia", { max: 1e8, example: 120 }),
    speed_rpm: number("Speed", "speed", { min: 0, max: 1e6, example: 980 }),
    drag_Nm: size("Drag", "torque", {
      max: 1e8,
      optional: true,
      example: 40,
      hint: "or the coast time that was measured",
    }),
    measured_s: size("Coast time measured", "duration", { optional: true }),
  },
  compute: ({ inertia_kg_m2, speed_rpm, drag_Nm, measured_s }): Calculation => {
    const time_s = runDownTime_s({ inertia_kg_m2, speed_rpm, drag_Nm, measured_s });
    if (time_s === null)
      throw new NoFigure("drag_Nm", "is missing: give the drag, or the coast time that was measured");
    return {
      results: [
        { key: "time_s", words: "Stands still after", quantity: "duration", value: time_s },
        {
          key: "energy_J",
          words: "It holds",
          quantity: "energy",
          value: flywheelEnergy_J({ inertia_kg_m2, speed_rpm }),
        },
      ],
      governs: "time_s",
      formula: "I·ω/T with steady drag, or the time measured, the longer of both; ½·I·ω²",
      source: "arithmetic",
      validity: "Drag falls with speed, so the last turns take longer: see it stand.",
      warnings: ["A machine that stands may be turned again by flow, wind or weight: restrain it."],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "speed", quantity: "speed" },
        series: [
          {
            words: "with steady drag",
            points: [
              [0, speed_rpm],
              [time_s, 0],
            ],
          },
        ],
        lines: [],
        marks: [{ x: time_s, y: 0, words: duration(time_s) }],
        bands: [],
      },
    };
  },
});

/** Something to hold a figure in joules against. */
const energyBars = (words: string, energy_J: number): Picture => ({
  kind: "bars",
  quantity: "energy",
  log: true,
  rows: [
    { words: "a 10 kg toolbox dropped 2 m", value: 196 },
    { words: "a car at 50 km/h", value: 145_000 },
    { words, value: energy_J, governs: true },
  ],
});

const massHeight = {
  mass_kg: size("Mass", "mass", { max: 1e8, example: 300 }),
  height_m: size("Height it can fall", "length", { max: 1e4, example: 2.5 }),
} as const;

export const raisedMass = calculator({
  name: "raised-mass",
  task: "Wait until it is harmless",
  title: "What a raised part holds",
  fields: massHeight,
  compute: (inputs): Calculation => {
    const energy_J = raisedMassEnergy_J(inputs);
    return {
      results: [{ key: "energy_J", words: "It holds", quantity: "energy", value: energy_J }],
      governs: "energy_J",
      formula: "m·g·h",
      source: "arithmetic",
      validity: "The whole mass falling the whole height.",
      warnings: ["Lower it to rest, or block and pin it before the pressure that holds it is let go."],
      picture: energyBars("this part", energy_J),
    };
  },
});

export const spring = calculator({
  name: "spring",
  task: "Wait until it is harmless",
  title: "What a spring holds",
  fields: {
    stiffness_N_m: size("Stiffness", "stiffness", { max: 1e12, example: 80_000 }),
    travel_m: size("Pressed or drawn by", "length", { max: 100, example: 0.15 }),
  },
  compute: (inputs): Calculation => {
    const energy_J = springEnergy_J(inputs);
    return {
      results: [
        { key: "energy_J", words: "It holds", quantity: "energy", value: energy_J },
        {
          key: "force_N",
          words: "and pushes with",
          quantity: "force",
          value: inputs.stiffness_N_m * inputs.travel_m,
        },
      ],
      governs: "energy_J",
      formula: "½·k·x²; k·x",
      source: "arithmetic",
      validity: "A spring that follows its stiffness all the way.",
      warnings: ["Release it under control, or pin it."],
      picture: energyBars("this spring", energy_J),
    };
  },
});

export const flywheel = calculator({
  name: "flywheel",
  task: "Wait until it is harmless",
  title: "What a turning mass holds",
  fields: {
    inertia_kg_m2: size("Inertia", "inertia", { max: 1e8, example: 120 }),
    speed_rpm: size("Speed", "speed", { max: 1e6, example: 980 }),
  },
  compute: (inputs): Calculation => {
    const energy_J = flywheelEnergy_J(inputs);
    return {
      results: [{ key: "energy_J", words: "It holds", quantity: "energy", value: energy_J }],
      governs: "energy_J",
      formula: "½·I·ω²",
      source: "arithmetic",
      validity: "A stiff body at one speed.",
      warnings: ["See it stand still, then pin it."],
      picture: energyBars("this mass", energy_J),
    };
  },
});

export const accumulator = calculator({
  name: "accumulator",
  task: "Wait until it is harmless",
  title: "What an accumulator holds",
  fields: {
    volume_m3: size("Gas volume", "capacity", { max: 1e5, example: 0.05 }),
    pressure_Pa: size("Pressure, absolute", "pressure", { max: 4e8, example: 200e5 }),
    ambient_Pa: size("Pressure outside, absolute", "pressure", { max: 4e8, default: STANDARD_ATMOSPHERE_Pa }),
    gamma: number("Heat capacity ratio", "ratio", { above: 1, max: 1.67, default: 1.4 }),
  },
  compute: (inputs): Calculation => {
    const held = accumulatorEnergy(inputs);
    return {
      results: [
        { key: "isothermal_J", words: "At most (isothermal)", quantity: "energy", value: held.isothermal_J },
        {
          key: "isothermal_net_J",
          words: "less pushing the air away",
          quantity: "energy",
          value: held.isothermal_net_J,
        },
        { key: "adiabatic_J", words: "let go at once (adiabatic)", quantity: "energy", value: held.adiabatic_J },
      ],
      governs: "isothermal_J",
      because: "The gas gives out between the two bounds; the larger is planned for.",
      formula: "P·V·ln(P/Pₐ); P·V/(γ−1)·(1 − (Pₐ/P)^((γ−1)/γ))",
      source: "arithmetic of an ideal gas",
      validity: "Gas filling the whole volume: the worse.",
      warnings: ["Bleeding the oil leaves the gas precharge."],
      picture: {
        kind: "bars",
        quantity: "energy",
        log: false,
        rows: [
          { words: "isothermal", value: held.isothermal_J, governs: true },
          { words: "isothermal, net", value: held.isothermal_net_J },
          { words: "adiabatic", value: held.adiabatic_J },
        ],
      },
    };
  },
});
