import { demoGraph, demoJob } from "../../../tests/support/demoPlant";
import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";
import { plan } from "../plan/plan";
import { stepsOf } from "../procedure/sequence";
import type { Job } from "../request/jobFile";
import { profileOf } from "../requirement/profiles";
import { wayOf, type Accepted } from "../plan/deviations";
import type { StateGraph } from "../trace/stateGraph";
import type { Setup } from "./setup";
import { timelineOf, type Timeline } from "./timeline";
import { timelineModel } from "./timelineModel";

const HOUR_s = 3600;
const MONDAY_SIX = Date.UTC(2026, 10, 23, 6);
const demo = demoGraph();

function timeline(
  graph: StateGraph,
  job: Job,
  setup: Setup,
  profile = "strict",
  accepted: readonly Accepted[] = [],
): Timeline {
  const made = plan(graph, job);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  const steps = stepsOf(made.value, graph, job.faces);
  const window = { from_ms: MONDAY_SIX, to_ms: MONDAY_SIX + 47 * HOUR_s * 1000 };
  const model = timelineModel({ graph, plan: made.value, job, profile: profileOf(profile), steps, window, accepted });
  return timelineOf(model, setup, MONDAY_SIX);
}

const BLOWER: Setup = { blower_m3_s: 0.47, bends: 1, mixing: 3, ambient_C: 25, drainHose_m: 0 };
const waitsOn = (made: Timeline) => made.chain.map((link) => link.wait).filter((wait) => wait !== null);

describe("a job that physics decides: entering the hardened oil day tank", () => {
  const tank = timeline(demo, demoJob("tank"), BLOWER);

  test("cooling, draining and purging are on the critical path, in that order: nothing hot is let out", () => {
    expect(tank.decidedBy).toBe("physics");
    const waits = waitsOn(tank);
    const at = (words: RegExp) => waits.findIndex((wait) => words.test(wait));
    expect(at(/^T-235 cools/)).toBeGreaterThanOrEqual(0);
    expect(at(/^drain T-235/)).toBeGreaterThan(at(/^T-235 cools/));
    expect(at(/^purge T-235/)).toBeGreaterThan(at(/^drain T-235/));
  });
  test("the durations are the calculators': the drain by Torricelli, the cooling by Newton, by hand", () => {
    const link = (words: RegExp) => tank.chain.find((one) => one.wait !== null && words.test(one.wait))!;
    const area = (d: number) => (Math.PI / 4) * d * d;
    const drain_s = (area(3.6) / (0.61 * area(0.05))) * Math.sqrt(2 / 9.80665) * Math.sqrt(5.6);
    expect(link(/^drain T-235/).duration_s / drain_s).toBeCloseTo(1, 6);
    const hosed = timeline(demo, demoJob("tank"), { ...BLOWER, drainHose_m: 20 });
    const through = hosed.chain.find((one) => one.wait?.startsWith("drain T-235"))!;
    expect(through.duration_s).toBeGreaterThan(1.5 * drain_s);
    expect(timeline(demo, demoJob("tank"), {}).assumed.join("; ")).toContain("length of the hose behind a drain");
    expect(link(/cools/).duration_s).toBeCloseTo(3 * HOUR_s * Math.log((80 - 25) / (43 - 25)), 3);
  });
  test("a second bend in the blower's hose moves the purge, the critical path and the earliest start by the same time", () => {
    const bent = timeline(demo, demoJob("tank"), { ...BLOWER, bends: 2 });
    const purge = (made: Timeline) => made.chain.find((one) => one.wait?.startsWith("purge"))!.duration_s;
    expect(purge(bent) / purge(tank)).toBeCloseTo(1 / 0.7, 9);
    const later_s = (bent.workFrom_ms - tank.workFrom_ms) / 1000;
    expect(later_s).toBeCloseTo(purge(bent) - purge(tank), 3);
    expect(bent.isolate_s - tank.isolate_s).toBeCloseTo(later_s, 3);
    expect(bent.latestStart_ms).toBeLessThan(tank.latestStart_ms);
  });
  test("the air is tested again while people are in, and permits follow each other", () => {
    expect(tank.retests.length).toBeGreaterThan(0);
    const tests_ms = tank.retests.reduce((sum, one) => sum + one.to_ms - one.from_ms, 0);
    expect(tests_ms).toBeGreaterThan(0);
    // The work stands while the air is tested again: it ends so much later.
    expect(tank.workTo_ms - tank.workFrom_ms).toBeGreaterThanOrEqual(4 * HOUR_s * 1000 + tests_ms);
    const long = timeline(demo, demoJob("tank"), { ...BLOWER, work_s: 36 * HOUR_s });
    // Three permits of twelve hours, and one more for what the tests of the air took of them.
    expect(long.permits_ms).toHaveLength(4);
    expect(long.permits_ms[0]!.to_ms).toBe(long.permits_ms[1]!.from_ms);
    expect(long.spare_ms).toBeLessThan(0);
  });
  test("what nobody set up is assumed on the slow side and named", () => {
    const bare = timeline(demo, demoJob("tank"), {});
    expect(bare.workFrom_ms).toBeGreaterThan(tank.workFrom_ms);
    expect(bare.assumed.join("; ")).toContain("the blower's rated flow");
    expect(tank.assumed.join("; ")).not.toContain("the blower's rated flow");
  });
});

describe("a job that the crew decides: eight starters", () => {
  test("one electrician makes it longer, three do not, and the chain runs through the electrician", () => {
    const alone = timeline(demo, demoJob("starters"), { drainHose_m: 0 });
    expect(alone.decidedBy).toBe("crew");
    expect(alone.crewAdds_s).toBeGreaterThan(HOUR_s);
    const three = timeline(demo, demoJob("starters"), { drainHose_m: 0, crews: { electrical: 3 } });
    expect(three.isolate_s).toBeLessThan(alone.isolate_s - HOUR_s);
    const electricians = new Set(alone.bars.filter((bar) => bar.crew === "electrical").map((bar) => bar.person));
    expect(electricians).toEqual(new Set([0]));
    expect(new Set(three.bars.filter((bar) => bar.crew === "electrical").map((bar) => bar.person)).size).toBe(3);
  });
});

describe("parts of the day", () => {
  const plant = new SmallPlant()
    .source("S", "fluid", HARMFUL)
    .device("V-1", "fluid")
    .device("V-2", "fluid")
    .item("T", "vessel")
    .line("fluid", "S", "V-1", "V-2", "T")
    .bleed("BW", "T");

  test("hot work is watched after it ends by the profile's class, with its checks, before anything is put back", () => {
    const job = plant.job([{ place: "T", how: ["hot"] }]);
    const strict = timeline(plant.graph, job, {});
    expect(strict.watchTo_ms - strict.workTo_ms).toBe(6 * HOUR_s * 1000);
    expect(strict.checks_ms.at(-1)).toBe(strict.watchTo_ms);
    const us = timeline(
      plant.graph,
      plant.job([{ place: "T", how: ["hot"] }], { profile: "us-style" }),
      {},
      "us-style",
    );
    expect(us.watchTo_ms - us.workTo_ms).toBe(1800 * 1000);
    expect(
      strict.bars.filter((bar) => bar.label.startsWith("unlock")).every((bar) => bar.start_ms >= strict.watchTo_ms),
    ).toBe(true);
  });
  test("as far as it has come: once isolated the work is all that is before the return, once restored nothing is; given up too", () => {
    const job = plant.job([{ place: "T", how: ["hot"] }]);
    const made = plan(plant.graph, job);
    if (!made.ok) throw new Error("no plan");
    const all = stepsOf(made.value, plant.graph, job.faces);
    const window = { from_ms: 0, to_ms: 24 * HOUR_s * 1000 };
    const start_ms = HOUR_s * 1000;
    const at = (isDone: (step: (typeof all)[number], i: number) => boolean, isRestoring = false) => {
      const steps = all.map((step, i) => ({ ...step, done: isDone(step, i) }));
      const given = { graph: plant.graph, plan: made.value, job, profile: profileOf("strict"), steps, window };
      const model = timelineModel({ ...given, accepted: [], isRestoring });
      return { model, timeline: timelineOf(model, {}, start_ms) };
    };
    const none = at(() => false);
    expect(none.model.stage).toBe("isolating");
    const isolated = at(({ phase }) => phase === "isolate");
    expect(isolated.model.stage).toBe("isolated");
    expect(isolated.timeline.chain).toEqual([]);
    expect(isolated.timeline.workFrom_ms).toBe(start_ms);
    // The work, its watch and the return end with the window when the work ends then, and not a moment later.
    const { endWorkBy_ms, watchTo_ms, workTo_ms, restore_s } = isolated.timeline;
    expect(endWorkBy_ms + (watchTo_ms - workTo_ms) + restore_s * 1000).toBe(window.to_ms);
    for (const over of [at(({ phase }) => phase === "isolate", true), at((_, i) => i < 3, true)]) {
      expect(over.model).toMatchObject({ stage: "restoring", isolate: [] });
      const { timeline: left } = over;
      // No work, no watch, no test of the air is drawn that is not done any more.
      expect([left.workTo_ms, left.watchTo_ms]).toEqual([start_ms, start_ms]);
      expect([left.retests, left.checks_ms, left.permits_ms, left.tooFew]).toEqual([[], [], [], []]);
      expect(left.backAt_ms).toBe(start_ms + left.restore_s * 1000);
      expect(left.bars.every(({ start_ms: from_ms }) => from_ms >= start_ms)).toBe(true);
    }
    expect(at((_, i) => i < 3, true).model.done).toBe(3);
  });
  test("steps that are done are left out, and nothing waits for them", () => {
    const job = plant.job([{ place: "T", how: ["open"] }]);
    const made = plan(plant.graph, job);
    if (!made.ok) throw new Error("no plan");
    const steps = stepsOf(made.value, plant.graph, job.faces).map((step, i) => ({ ...step, done: i < 3 }));
    const model = timelineModel({
      graph: plant.graph,
      plan: made.value,
      job,
      profile: profileOf("strict"),
      steps,
      window: { from_ms: 0, to_ms: 1 },
      accepted: [],
    });
    expect(model.done).toBe(3);
    expect(() => timelineOf(model, {}, 0)).not.toThrow();
    expect(timelineOf(model, {}, 0).bars).toHaveLength(
      new Set(timelineOf(model, {}, 0).bars.map((bar) => bar.id)).size,
    );
  });
  test("a capacitor's wait begins when the drive is cut off, not when it is proved dead", () => {
    const capacitor = new SmallPlant()
      .source("NET", "power")
      .device("Q", "power", { kind: "isolator" })
      .item("VF", "drive", {
        voltage_V: 400,
        source: [
          {
            carrier: "power",
            feeding: false,
            stored: { form: "capacitor", capacitance_F: 0.002, voltage_V: 560, resistance_ohm: 20_000 },
          },
        ],
      })
      .line("power", "NET", "Q", "VF");
    const made = timeline(capacitor.graph, capacitor.job([{ place: "VF", how: ["touch"] }]), {});
    const bar = (test: (one: Timeline["bars"][number]) => boolean) => made.bars.find(test)!;
    const wait = bar((one) => one.wait === "VF discharges");
    const lock = bar((one) => one.label === "lock Q");
    const proof = bar((one) => one.label === "prove VF (power)");
    expect(wait.start_ms).toBe(lock.end_ms);
    // A drive: 15 minutes by the rule, longer than its resistor's sum.
    expect(wait.end_ms - wait.start_ms).toBe(900_000);
    const short = bar((one) => one.label === "discharge VF" && one.wait === null);
    expect(short.start_ms).toBeGreaterThanOrEqual(Math.max(wait.end_ms, proof.end_ms));
  });
});

describe("no start while a way is held worse than asked and nobody answered for it", () => {
  const shorts = new SmallPlant()
    .source("S", "fluid", HARMFUL)
    .device("V", "fluid", { kind: "block valve" })
    .item("T", "vessel")
    .line("fluid", "S", "V", "T");
  const job = shorts.job([{ place: "T", how: ["enter"] }]);
  const made = plan(shorts.graph, job);
  if (!made.ok) throw new Error("no plan");
  const answered = made.value.shortfalls.map((one) => ({
    way: wayOf(one),
    requiredGrade: one.requiredGrade ?? "",
    acceptedGrade: one.grade as string,
    acceptedDepth: one.available,
    measures: one.measures,
  }));

  test("the plan is short, so the day names what stands against a start and gives none", () => {
    expect(answered.length).toBeGreaterThan(0);
    const day = timeline(shorts.graph, job, {});
    expect(day.mayStart_ms).toBeNull();
    expect(day.stoppedBy).toHaveLength(answered.length);
    expect(day.stoppedBy[0]).toMatch(/^S to T: .+, where .+ is asked$/);
    expect(day.workFrom_ms).toBeGreaterThan(day.start_ms);
  });
  test("once each is answered for, the start is when the steps are done; with one left open it is not", () => {
    const day = timeline(shorts.graph, job, {}, "strict", answered);
    expect(day.mayStart_ms).toBe(day.workFrom_ms);
    expect(timeline(shorts.graph, job, {}, "strict", answered.slice(1)).mayStart_ms).toBeNull();
    const worse = answered.map((one) => ({ ...one, acceptedGrade: "double block and bleed" }));
    expect(timeline(shorts.graph, job, {}, "strict", worse).mayStart_ms).toBeNull();
  });
});

test("a wait that no sum gives an end is no start either: a tank that cools in a room as warm as a hand may touch", () => {
  const warm = timeline(demo, demoJob("tank"), { ...BLOWER, ambient_C: 45 });
  expect(warm.endless).toEqual(["T-235 cools"]);
  expect(warm.mayStart_ms).toBeNull();
  const cold = timeline(demo, demoJob("tank"), BLOWER);
  expect(cold.endless).toEqual([]);
  expect(cold.mayStart_ms).toBe(cold.workFrom_ms);
});
