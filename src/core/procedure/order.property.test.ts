import { trickyPlant } from "../../../tests/reference/judge/trickyPlant";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { seededRandom } from "../../../tests/support/seededRandom";
import type { PlantInput } from "../plant/plantSchema";
import { readPlantValue } from "../plant/readPlantJson";
import { standInsOf, wayOf } from "../plan/deviations";
import { plan } from "../plan/plan";
import { profileOf } from "../requirement/profiles";
import { readJobValue } from "../request/jobFile";
import { buildStateGraph } from "../trace/stateGraph";
import { stepsOf } from "./sequence";
import { driveFirst, type PlannedStep, type StepKind } from "./steps";

type Step = PlannedStep & { stage: 1 | 2; drive: boolean };
type Which = (step: Step) => boolean;
const isA =
  (...kinds: StepKind[]): Which =>
  ({ kind, phase }) =>
    kinds.includes(kind) && phase !== "restore";
const back =
  (...kinds: StepKind[]): Which =>
  ({ kind, phase }) =>
    kinds.includes(kind) && phase === "restore";
const both =
  (...tests: Which[]): Which =>
  (step) =>
    tests.every((test) => test(step));
const blind: Which = ({ stage }) => stage === 2;
const valve: Which = ({ stage }) => stage === 1;
const drive: Which = (step) => step.drive;
const line: Which = (step) => !step.drive;
const everything: Which = ({ phase }) => phase === "isolate";

/** Every first comes before every second, near or far; `same` where only at the same thing. Common practice, no source. */
const RULES: readonly Readonly<{ name: string; first: Which; second: Which; same?: true }>[] = [
  { name: "tell, then anything", first: isA("tell"), second: isA("stop", "accept losses", "lock") },
  { name: "losses signed before the first lock", first: isA("accept losses"), second: isA("lock", "bleed", "prove") },
  { name: "stop before locking", first: isA("stop"), second: isA("lock", "restrain", "run down") },
  {
    name: "drives before their lines",
    first: both(isA("lock"), drive, valve),
    second: both(isA("lock"), line, valve),
  },
  { name: "barred off before anything is let out", first: isA("bar off"), second: isA("bleed", "empty", "release") },
  { name: "barred off before a flange is opened", first: isA("bar off"), second: both(isA("lock"), blind) },
  { name: "barred off before it is earthed", first: isA("bar off"), second: isA("earth", "discharge") },
  { name: "turned to its hatch before anything is locked", first: isA("position"), second: isA("lock") },
  { name: "a lock is hung before it is looked at", first: isA("lock"), second: isA("verify"), same: true },
  { name: "locks before bleeds", first: both(isA("lock", "verify"), valve), second: isA("bleed") },
  { name: "restrained before pressure is let go", first: isA("restrain"), second: isA("bleed", "release") },
  { name: "bled before a flange is opened", first: isA("bleed"), second: both(isA("lock"), blind) },
  { name: "locked before a flange is opened", first: both(isA("lock"), valve), second: both(isA("lock"), blind) },
  { name: "all locked before anything is proved", first: isA("lock", "verify", "bleed"), second: isA("prove") },
  { name: "released before it is proved", first: isA("release", "run down"), second: isA("prove") },
  {
    name: "proved dead before shorting",
    first: (step) => isA("prove")(step) && step.carrier === "power",
    second: isA("discharge", "earth"),
  },
  { name: "shorted before earthed", first: isA("discharge"), second: isA("earth") },
  { name: "cooled before what is in it is let out", first: isA("cool"), second: isA("empty"), same: true },
  {
    name: "locked and held up before a vessel is emptied",
    first: (step) => isA("lock", "verify", "restrain")(step) && valve(step),
    second: isA("empty"),
  },
  {
    name: "locked, bled and released before a vessel is cleaned",
    first: isA("lock", "verify", "bleed", "release", "restrain"),
    second: isA("clean"),
  },
  { name: "emptied before it is cleaned", first: isA("empty"), second: isA("clean"), same: true },
  { name: "cleaned before it is certified", first: isA("clean"), second: isA("certify"), same: true },
  {
    name: "empty, clean and certified before the air is changed",
    first: isA("empty", "clean", "certify"),
    second: isA("inert", "purge"),
  },
  {
    name: "empty before it is proved without pressure",
    first: isA("empty"),
    second: (step) => isA("prove")(step) && (step.carrier === "fluid" || step.carrier === "bulk"),
  },
  { name: "inert before air", first: isA("inert"), second: isA("purge"), same: true },
  {
    name: "locked and cooled before the air is changed",
    first: isA("lock", "bleed", "cool"),
    second: isA("inert", "purge"),
  },
  { name: "purged before it is tested", first: isA("purge"), second: isA("test air") },
  {
    name: "proved and earthed before trying to start",
    first: isA("prove", "earth", "test air"),
    second: isA("try start"),
  },
  { name: "locked and bled before what stands in", first: isA("lock", "verify", "bleed"), second: isA("stand in") },
  { name: "what stands in before it is relied on", first: isA("stand in"), second: isA("prove", "try start") },
  { name: "the box last", first: everything, second: isA("close box") },
  {
    name: "people and tools out before anything is undone",
    first: back("clear", "count people", "guards"),
    second: back("unlock", "close bleed", "remove earth", "take short off", "cap"),
  },
  {
    name: "people out and lines walked before what stood in is taken back",
    first: back("clear", "count people", "walk line"),
    second: back("end stand-in"),
  },
  {
    name: "what stood in is back before a lock comes off",
    first: back("end stand-in"),
    second: both(back("unlock"), valve),
  },
  { name: "what stood in is back before the start", first: back("end stand-in"), second: back("start") },
  { name: "blinds out before bleeds shut", first: both(back("unlock"), blind), second: back("close bleed") },
  {
    name: "bleeds shut and ends capped before the leak test",
    first: back("close bleed", "cap"),
    second: back("leak test"),
  },
  {
    name: "tested, walked and told before a lock comes off",
    first: back("leak test", "walk line", "tell all"),
    second: both(back("unlock"), valve),
  },
  {
    name: "earths and shorts off before a lock comes off",
    first: back("remove earth", "take short off"),
    second: both(back("unlock"), valve),
  },
  { name: "lines before drives", first: both(back("unlock"), valve, line), second: both(back("unlock"), valve, drive) },
  { name: "pins last", first: back("unlock"), second: back("take pin out") },
  {
    name: "everything before the start",
    first: back("unlock", "take pin out", "walk line", "tell all"),
    second: back("start"),
  },
  { name: "barriers last", first: back("unlock", "start", "watch"), second: back("take barriers away") },
  { name: "no barrier left when it is handed over", first: back("take barriers away"), second: back("hand over") },
  { name: "watched before it is handed over", first: back("start", "watch"), second: back("hand over") },
];

const HELD: NonNullable<PlantInput["items"][number]["source"]> = [
  { carrier: "gravity", feeding: false, stored: { form: "raised mass", mass_kg: 300, height_m: 2 } },
  { carrier: "power", feeding: false, stored: { form: "capacitor", capacitance_F: 0.002, voltage_V: 500 } },
  { carrier: "shaft", feeding: false, stored: { form: "flywheel", inertia_kg_m2: 3, speed_rpm: 900 } },
  { carrier: "fluid", feeding: false, stored: { form: "trapped pressure", volume_m3: 1, pressure_Pa: 5e5 } },
  { carrier: "fluid", feeding: false, stored: { form: "hot body", temperature_C: 150, tau_s: 9000 } },
];

test("on any plant the steps keep their order", () => {
  const { numRuns, seed } = propertyRuns(250);
  const random = seededRandom(seed);
  const met = new Map<string, number>();
  for (let run = 0; run < numRuns; run++) {
    const { plant, job } = trickyPlant(random);
    for (const item of plant.items) {
      if (item.device || item.bleed || item.source) continue;
      if (random.chance(0.2)) item.source = [random.pick(HELD)];
      if (random.chance(0.3)) item.contents = { fluid: "oil", hazards: random.chance(0.5) ? ["flammable"] : [] };
      if (random.chance(0.2)) item.needs = [random.pick(["fluid", "power"] as const)];
      if (random.chance(0.2)) item.voltage_V = random.pick([230, 6600]);
      if (random.chance(0.3)) item.space = { turned: true };
    }
    // A face with power of its own is touched, so that it is earthed.
    const net = { tag: "EL", kind: "incomer", source: [{ carrier: "power" as const }] };
    const sw = {
      tag: "QS",
      kind: "breaker",
      device: { stops: ["power" as const], credit: true, lockable: true, effort: 3 },
    };
    const place = job.faces[0]!.place;
    const whole = plant.items.find(({ tag }) => tag === place)!;
    const powered = random.chance(0.5) && (whole.parts ?? []).length === 0;
    if (powered && random.chance(0.6)) whole.source = [HELD[1]!];
    const made: PlantInput = powered
      ? {
          ...plant,
          items: [...plant.items, net, sw],
          links: [
            ...plant.links,
            { from: "EL", to: "QS", carries: "power" },
            { from: "QS", to: place, carries: "power" },
          ],
        }
      : plant;
    const read = readPlantValue(made, "plant.json");
    const asked = readJobValue(job, "job.json");
    if (!read.ok || !asked.ok) throw new Error(JSON.stringify([read, asked]));
    const graph = buildStateGraph(read.value);
    const found = plan(graph, asked.value);
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    const stageOf = new Map(found.value.points.map(({ device, stage }) => [device, stage]));
    const stops = new Map(found.value.points.map((point) => [point.device, point.stops]));
    const accepted = found.value.shortfalls.map((one) => ({
      way: wayOf(one),
      requiredGrade: one.requiredGrade ?? "",
      acceptedGrade: one.grade,
      acceptedDepth: one.available,
      measures: ["watcher"],
    }));
    const standIns = standInsOf(found.value, accepted, profileOf(found.value.profile));
    const steps = stepsOf(found.value, graph, asked.value.faces, standIns).map((step): Step => ({
      ...step,
      stage: stageOf.get(step.subject) ?? 1,
      drive: stops.has(step.subject) && driveFirst(stops.get(step.subject)!) === 0,
    }));
    const before = closure(steps);
    for (const { name, first, second, same } of RULES) {
      for (const a of steps.filter(first)) {
        for (const b of steps.filter(second)) {
          if (a === b || (same && a.subject !== b.subject)) continue;
          met.set(name, (met.get(name) ?? 0) + 1);
          if (!before.get(b.id)!.has(a.id)) {
            throw new Error(
              `${name}: ${a.kind} ${a.subject} is not before ${b.kind} ${b.subject}\n${JSON.stringify({ made, job })}`,
            );
          }
        }
      }
    }
  }
  for (const { name } of RULES) expect([name, (met.get(name) ?? 0) >= metAtLeast(10)]).toEqual([name, true]);
});

/** Everything that must be done before each step, near and far. */
function closure(steps: readonly Step[]): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  const of = (id: string): Set<string> => {
    const known = found.get(id);
    if (known) return known;
    const all = new Set<string>();
    found.set(id, all);
    for (const one of steps.find((step) => step.id === id)!.after) {
      all.add(one);
      for (const far of of(one)) all.add(far);
    }
    return all;
  };
  for (const { id } of steps) of(id);
  return found;
}
