import { SHIFT_CONTACT_C } from "../energy/coolDown";
import { itemTagOf, type PlannedStep } from "../procedure/steps";
import { VESSELS } from "../plan/emptiable";
import type { Plan } from "../plan/plan";
import type { StoredEnergy } from "../energy/storedEnergy";
import type { Item } from "../plant/plant";
import type { StateGraph } from "../trace/stateGraph";
import { STANDARD_ATMOSPHERE_Pa } from "../units/units";
import { inertWait, purgeWait, sampleWaits } from "./airWaits";
import { handsFor_min } from "./effortTable";
import { ASSUMED, type Crew } from "./setup";
import { given, type Wait } from "./wait";

/** What a step takes: hands, and waits. */
export type StepWork = Readonly<{
  step: string;
  crew: Crew;
  hands_s: number;
  /** Nobody but the set-up knows how long the hands take; `hands_s` is then what is taken where it does not say. */
  handsFrom: "clean_s" | null;
  waits: readonly Wait[];
  /** Waits come before the hands, as in cooling, or after them, as in draining. */
  waitsFirst: boolean;
  /** A wait that starts with these steps and not with its own: a capacitor discharges from when it is cut off. */
  waitsFrom: readonly string[] | null;
}>;

const MINUTE_s = 60;
/** A drain nobody measured: a half-inch one. */
const NARROW_BLEED_m = 0.0125;
const UNKNOWN = {
  volume_m3: 2,
  pipe_m3: 0.2,
  gauge_Pa: 10e5,
  coast_s: 30 * MINUTE_s,
  tau_s: 4 * 3600,
} as const;
/** Sharp-edged opening, and a short nozzle for gas; textbook values. */
const CD = { liquid: 0.61, gas: 0.8 } as const;
/** A gauge is near enough to zero for the bleed to be left: 7 mbar above the outside. */
const END_Pa = 102_000;

/**
 * What each step takes, from the register and the effort table; missing figures are assumed on the slow side and named.
 * Cost: linear in steps and in what is trapped behind the points.
 */
export function workOf(steps: readonly PlannedStep[], plan: Plan, graph: StateGraph): StepWork[] {
  const itemOf = (place: string): Item | undefined =>
    graph.plant.items[graph.itemByTag.get(itemTagOf(graph, place)) ?? -1];
  const driveLocks = steps
    .filter((step) => step.kind === "lock" && step.competence === "electrical")
    .map(({ id }) => id);
  const emptied = new Set(steps.filter(({ kind }) => kind === "empty").map(({ subject }) => subject));
  return steps.map((step) => {
    const waits = waitsOf(step, plan, itemOf, emptied);
    const item = itemOf(step.subject);
    return {
      step: step.id,
      crew: step.competence ?? "anybody",
      hands_s: step.kind === "clean" ? ASSUMED.clean_s : handsFor_min(step, item?.device?.effort_min) * MINUTE_s,
      handsFrom: step.kind === "clean" ? "clean_s" : null,
      waits,
      waitsFirst: step.kind === "cool" || step.kind === "discharge" || step.kind === "run down",
      waitsFrom: step.kind === "discharge" && driveLocks.length > 0 ? driveLocks : null,
    };
  });
}

function waitsOf(
  step: PlannedStep,
  plan: Plan,
  itemOf: (place: string) => Item | undefined,
  emptied: ReadonlySet<string>,
): Wait[] {
  const item = itemOf(step.subject);
  switch (step.kind) {
    case "bleed":
      return drainWaits(step.subject, plan, itemOf, emptied);
    case "run down":
      return [runDownWait(step.subject, storedAs(item, "flywheel"))];
    case "cool":
      return [coolWait(step.subject, item)];
    case "empty":
      return [emptyWait(step.subject, plan, itemOf)];
    case "discharge":
      return [dischargeWait(step.subject, item, storedAs(item, "capacitor"))];
    case "release":
      return releaseWaits(step.subject, item);
    case "inert":
      return [inertWait(step.subject, item)];
    case "purge":
      return [purgeWait(step.subject, item)];
    case "test air":
      return [sampleWaits(step.subject, item)];
    case "clean":
    case "certify":
    case "tell":
    case "accept losses":
    case "stop":
    case "bar off":
    case "take barriers away":
    case "position":
    case "restrain":
    case "lock":
    case "verify":
    case "prove":
    case "earth":
    case "try start":
    case "close box":
    case "clear":
    case "count people":
    case "guards":
    case "take pin out":
    case "take short off":
    case "remove earth":
    case "close bleed":
    case "cap":
    case "leak test":
    case "walk line":
    case "tell all":
    case "unlock":
    case "start":
    case "watch":
    case "hand over":
    case "open box":
    case "test run":
    case "stand in":
    case "end stand-in":
      return [];
  }
}

function storedAs<F extends StoredEnergy["form"]>(
  item: Item | undefined,
  form: F,
): Extract<StoredEnergy, { form: F }> | undefined {
  const found = item?.sources.find((source) => source.stored?.form === form)?.stored;
  return found as Extract<StoredEnergy, { form: F }> | undefined;
}

type ItemOf = (place: string) => Item | undefined;

/** What several bleeds could drain goes through the widest; the others only show that nothing comes. */
function widestOf(bleeds: readonly string[], itemOf: ItemOf): string {
  const boreOf = (tag: string) => itemOf(tag)?.bleed?.bore_m ?? NARROW_BLEED_m;
  return bleeds.reduce((best, tag) => (boreOf(tag) > boreOf(best) ? tag : best));
}

/** A vessel that is emptied in a step of its own: through the widest of its drains, else by a pump. */
function emptyWait(place: string, plan: Plan, itemOf: ItemOf): Wait {
  const row = plan.darkZone.trapped.find((one) => one.place === place);
  const item = itemOf(place);
  const assumed: string[] = [];
  const volume_m3 = given(
    item?.contents?.volume_m3,
    UNKNOWN.volume_m3,
    `volume of ${place}: taken as ${UNKNOWN.volume_m3} m³`,
    assumed,
  );
  if (row === undefined || row.bleeds.length === 0) return pumpWait(place, item, volume_m3, assumed);
  const bleed = widestOf(row.bleeds, itemOf);
  return liquidWait(bleed, item, volume_m3, itemOf(bleed)?.bleed?.bore_m, assumed);
}

/** What has no drain is pumped out; full where nobody wrote down how high it stands. */
function pumpWait(place: string, item: Item | undefined, volume_m3: number, assumed: readonly string[]): Wait {
  return {
    words: `pump ${place} out`,
    calculator: "pump-out",
    inputs: { volume_m3, density_kg_m3: item?.contents?.density_kg_m3 ?? 1000 },
    fromSetup: { flow_m3_s: "pumpOut_m3_s" },
    result: "time_s",
    attended: true,
    assumed,
  };
}

/**
 * Emptying what this bleed is to drain: one wait for each thing trapped, one after the other. Vessels that are emptied in a
 * step of their own are left out.
 */
function drainWaits(bleed: string, plan: Plan, itemOf: ItemOf, emptied: ReadonlySet<string>): Wait[] {
  const bore = itemOf(bleed)?.bleed?.bore_m;
  const near = plan.darkZone.trapped.filter((row) => row.bleeds.includes(bleed));
  if (near.length === 0) {
    const assumed: string[] = [`what is trapped at ${bleed}: taken as ${UNKNOWN.pipe_m3} m³ of liquid`];
    return [liquidWait(bleed, undefined, UNKNOWN.pipe_m3, bore, assumed)];
  }
  const trapped = near.filter((row) => widestOf(row.bleeds, itemOf) === bleed && !emptied.has(row.place));
  return trapped.flatMap((row) => {
    const item = itemOf(row.place);
    // Written down as empty: nothing to wait for but to see that nothing comes.
    if (row.volume_m3 === 0 || item?.vessel?.level_m === 0) return [];
    const assumed: string[] = [];
    const usual = VESSELS.has(item?.kind ?? "") ? UNKNOWN.volume_m3 : UNKNOWN.pipe_m3;
    const volume_m3 = given(row.volume_m3, usual, `volume of ${row.place}: taken as ${usual} m³`, assumed);
    if (item?.contents?.phase === "gas") return gasWait(bleed, row.place, item, volume_m3, bore, assumed);
    return liquidWait(bleed, item, volume_m3, bore, assumed);
  });
}

function liquidWait(
  bleed: string,
  item: Item | undefined,
  volume_m3: number,
  bore: number | undefined,
  assumed: string[],
): Wait {
  const outlet_m = given(bore, NARROW_BLEED_m, `bore of ${bleed}: taken as ${NARROW_BLEED_m * 1000} mm`, assumed);
  const { vessel } = item ?? {};
  // As high as twice its width: π/4·D²·2D is the volume.
  const assumed_m = Math.cbrt((2 * volume_m3) / Math.PI);
  const diameter_m = vessel?.diameter_m ?? assumed_m;
  const length_m = vessel?.length_m ?? 2 * diameter_m;
  const shape = vessel?.shape ?? "vertical";
  const full_m = shape === "vertical" || shape === "cone" ? length_m : diameter_m;
  if (item && vessel === undefined && VESSELS.has(item.kind)) assumed.push(`shape of ${item.tag}: an upright cylinder`);
  return {
    words: `drain ${item?.tag ?? "the line"} through ${bleed}`,
    calculator: "tank-drain",
    inputs: {
      shape,
      diameter_m,
      length_m,
      level_m: Math.min(vessel?.level_m ?? full_m, full_m),
      outlet_m: Math.min(outlet_m, diameter_m),
      cd: CD.liquid,
      density_kg_m3: item?.contents?.density_kg_m3 ?? 1000,
    },
    fromSetup: { hose_m: "drainHose_m" },
    result: "time_s",
    attended: true,
    assumed,
  };
}

function gasWait(
  bleed: string,
  place: string,
  item: Item | undefined,
  volume_m3: number,
  bore: number | undefined,
  assumed: string[],
): Wait {
  const { contents } = item ?? {};
  const gauge = `pressure of ${place}: taken as ${UNKNOWN.gauge_Pa / 1e5} bar`;
  const start_Pa = given(contents?.pressure_Pa, UNKNOWN.gauge_Pa, gauge, assumed) + STANDARD_ATMOSPHERE_Pa;
  return blowdownWait(`blow ${place} down through ${bleed}`, {
    volume_m3,
    start_Pa,
    temperature_K: (contents?.temperature_C ?? 20) + 273.15,
    orifice_m: given(bore, NARROW_BLEED_m, `bore of ${bleed}: taken as ${NARROW_BLEED_m * 1000} mm`, assumed),
    gamma: contents?.gamma ?? 1.3,
    molar_kg: contents?.molar_kg ?? 0.029,
    assumed,
  });
}

function blowdownWait(
  words: string,
  p: Readonly<{
    volume_m3: number;
    start_Pa: number;
    temperature_K: number;
    orifice_m: number;
    gamma: number;
    molar_kg: number;
    assumed: readonly string[];
  }>,
): Wait {
  const { assumed, ...inputs } = p;
  return {
    words,
    calculator: "blowdown",
    // Already at rest: the sum needs a fall, and a hair of one takes no time.
    inputs: { ...inputs, start_Pa: Math.max(p.start_Pa, END_Pa + 1), end_Pa: END_Pa, cd: CD.gas },
    fromSetup: { line_length_m: "drainHose_m" },
    result: "time_s",
    attended: true,
    assumed,
  };
}

function releaseWaits(subject: string, item: Item | undefined): Wait[] {
  const stored = storedAs(item, "trapped pressure") ?? storedAs(item, "accumulator");
  if (stored === undefined) return [];
  const assumed: string[] = [`bore of its vent: taken as ${NARROW_BLEED_m * 1000} mm`];
  return [
    blowdownWait(`vent ${subject}`, {
      volume_m3: given(
        stored.volume_m3,
        UNKNOWN.volume_m3,
        `volume of ${subject}: taken as ${UNKNOWN.volume_m3} m³`,
        assumed,
      ),
      start_Pa: given(
        stored.pressure_Pa,
        UNKNOWN.gauge_Pa,
        `pressure of ${subject}: taken as ${UNKNOWN.gauge_Pa / 1e5} bar`,
        assumed,
      ),
      temperature_K: 293.15,
      orifice_m: NARROW_BLEED_m,
      gamma: 1.4,
      molar_kg: 0.028,
      assumed,
    }),
  ];
}

function runDownWait(subject: string, stored: Extract<StoredEnergy, { form: "flywheel" }> | undefined): Wait {
  const assumed: string[] = [];
  const { coast_s, drag_Nm, inertia_kg_m2, speed_rpm } = stored ?? {};
  const computable = drag_Nm !== undefined && inertia_kg_m2 !== undefined && speed_rpm !== undefined;
  const note = `coast time of ${subject}: taken as ${UNKNOWN.coast_s / MINUTE_s} min`;
  const measured_s = coast_s ?? (computable ? undefined : given(undefined, UNKNOWN.coast_s, note, assumed));
  return {
    words: `${subject} runs down`,
    calculator: "run-down",
    inputs: {
      // A measured time wins, and these then do not matter.
      inertia_kg_m2: inertia_kg_m2 ?? 1,
      speed_rpm: speed_rpm ?? 1000,
      ...(drag_Nm === undefined ? {} : { drag_Nm }),
      ...(measured_s === undefined ? {} : { measured_s }),
    },
    fromSetup: {},
    result: "time_s",
    attended: false,
    assumed,
  };
}

/** Heat lost from a bare wall to still air, W/(m²·K), and what a litre of water takes, J/(m³·K): rounded textbook values. */
const STILL_AIR_W_m2_K = 10;
const WATER_J_m3_K = 4.2e6;

/** τ of a full vessel that stands and cools by itself: ρ·c·V/(h·A), as compact as a ball, which has the least wall. */
function standingTau_s(volume_m3: number): number {
  return (WATER_J_m3_K * volume_m3) / (STILL_AIR_W_m2_K * Math.cbrt(36 * Math.PI) * volume_m3 ** (2 / 3));
}

/** A body of its own heat, or else the contents: they cool as a full vessel of water does that nobody cools. */
function coolWait(subject: string, item: Item | undefined): Wait {
  const stored = storedAs(item, "hot body");
  const assumed: string[] = [];
  const known_C = stored?.temperature_C ?? item?.contents?.temperature_C;
  const start = given(known_C, 200, `temperature of ${subject}: taken as 200 °C`, assumed);
  const volume_m3 = stored === undefined ? item?.contents?.volume_m3 : undefined;
  const tau_s = volume_m3 === undefined || volume_m3 === 0 ? UNKNOWN.tau_s : standingTau_s(volume_m3);
  const note = `cooling time τ of ${subject}: taken as ${Math.round(tau_s / 360) / 10} h`;
  const tau = given(stored?.tau_s, tau_s, note, assumed);
  return {
    words: `${subject} cools`,
    calculator: "cool-down",
    inputs: { start_C: start, target_C: SHIFT_CONTACT_C, tau_s: tau },
    fromSetup: { ambient_C: "ambient_C" },
    result: "time_s",
    attended: false,
    assumed,
  };
}

function dischargeWait(
  subject: string,
  item: Item | undefined,
  stored: Extract<StoredEnergy, { form: "capacitor" }> | undefined,
): Wait {
  const inside = item?.kind === "drive" || item?.kind === "ups";
  const assumed: string[] = [];
  const figures = {
    capacitance_F: given(stored?.capacitance_F, 0.01, `capacitance of ${subject}: taken as 10 mF`, assumed),
    voltage_V: given(stored?.voltage_V, 1000, `voltage of ${subject}: taken as 1000 V`, assumed),
  };
  if (stored?.resistance_ohm === undefined) assumed.push(`bleed resistor of ${subject}: the rule governs`);
  return {
    words: `${subject} discharges`,
    calculator: "capacitor",
    inputs: {
      ...figures,
      place: inside ? "drive or UPS" : "bare capacitor",
      ...(stored?.resistance_ohm === undefined ? {} : { resistance_ohm: stored.resistance_ohm }),
      ...(stored?.nameplate_s === undefined ? {} : { nameplate_s: stored.nameplate_s }),
    },
    fromSetup: {},
    result: "wait_s",
    attended: false,
    assumed,
  };
}
