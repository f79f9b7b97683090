import { plan } from "@/core/plan/plan";
import { stepsOf } from "@/core/procedure/sequence";
import { readJobValue, type Job } from "@/core/request/jobFile";
import { profileOf } from "@/core/requirement/profiles";
import type { Setup } from "@/core/schedule/setup";
import { timelineOf, type Timeline } from "@/core/schedule/timeline";
import { timelineModel } from "@/core/schedule/timelineModel";
import { demoGraph, demoJob } from "../support/demoPlant";

/**
 * Three vessels of the demo from shutdown to the first step inside, each wait worked on paper from what its register says: drain by
 * Torricelli, cool by Newton, sweep and purge by dilution, air by the hose. The demo and its set-up are invented.
 */
const HOUR_s = 3600;
const SIX = Date.UTC(2026, 10, 23, 6);
const SETUP: Setup = {
  blower_m3_s: 0.47,
  bends: 1,
  mixing: 3,
  ambient_C: 25,
  inert_m3_s: 0.05,
  hose_m: 10,
  hoseBore_m: 0.004,
  pump_m3_s: 0.5e-3 / 60,
  t90_s: 30,
  drainHose_m: 10,
  pumpOut_m3_s: 0.002,
  clean_s: 6 * HOUR_s,
};
const demo = demoGraph();

function dayOf(job: Job): Timeline {
  const made = plan(demo, job);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  const window = { from_ms: SIX, to_ms: SIX + 47 * HOUR_s * 1000 };
  const steps = stepsOf(made.value, demo, job.faces);
  const model = timelineModel({
    graph: demo,
    plan: made.value,
    job,
    profile: profileOf("strict"),
    steps,
    window,
    accepted: [],
  });
  return timelineOf(model, SETUP, SIX);
}

function entering(place: string): Job {
  const read = readJobValue(
    { format: "heavy-lantern/job", version: 1, faces: [{ place, how: ["enter"] }] },
    "job.json",
  );
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

const g = 9.80665;
/** Kármán's friction of a rough pipe, 0.15 mm of roughness: 1/√f = 2·log(3.7·D/ε). What a handbook's chart shows at its right. */
const rough = (bore_m: number) => (2 * Math.log10((3.7 * bore_m) / 0.15e-3)) ** -2;
/** Round and upright, through a sharp-edged hole at its bottom and ten metres of hose of its bore, down to the last 20 mm. */
const drains_s = (diameter_m: number, hole_m: number, from_m: number) =>
  (diameter_m / hole_m) ** 2 *
  Math.sqrt((2 / g) * (1 / 0.61 ** 2 + (rough(hole_m) * 10) / hole_m)) *
  (Math.sqrt(from_m) - Math.sqrt(0.02));
/** A pump of two litres a second moves seven tenths of it uphill. */
const pumps_s = (volume_m3: number) => volume_m3 / (0.7 * 0.002);
/** To 43 °C, what bare metal may have that is touched all day, in air of 25 °C. */
const cools_s = (from_C: number, tau_s: number) => tau_s * Math.log((from_C - 25) / (43 - 25));
/** A ball of water, 10 W/(m²·K) at its wall: ρ·c·V over h·A, V/A a sixth of its diameter. */
const standsHot_s = (volume_m3: number) => ((4.2e6 / 10) * Math.cbrt((6 * volume_m3) / Math.PI)) / 6;
/** The hose emptied by its pump, twice the instrument's T90, a minute to go there and write it down: 135 s. */
const sampled_s = (each: number) => each * (((Math.PI / 4) * 0.004 ** 2 * 10) / (0.5e-3 / 60) + 2 * 30 + 60);
/** The first bend leaves 70 % of the blower. */
const BLOWS_m3_s = 0.47 * 0.7;

/** The time of the one wait with these words, and what the day says of it. */
function wait(day: Timeline, words: RegExp): number {
  const found = Object.values(day.times)
    .flat()
    .filter((one) => words.test(one.words));
  expect(found).toHaveLength(1);
  return found[0]!.duration_s;
}
const near = (found: number, byHand: number) => expect(found / byHand).toBeCloseTo(1, 6);
/** Longer than on paper, where the pipe is as rough as can be and the last of it runs as fast as the first; by a tenth at most. */
function aLittleLonger(found: number, byHand: number): void {
  expect(found / byHand).toBeGreaterThan(0.97);
  expect(found / byHand).toBeLessThan(1.1);
}

/** The start is the whole of the deciding chain after the beginning, waits and hands. */
function startsAfterItsChain(day: Timeline): void {
  const chain_s = day.chain.reduce((sum, { duration_s }) => sum + duration_s, 0);
  near(day.isolate_s, chain_s);
  near((day.workFrom_ms - SIX) / 1000, chain_s);
}

describe("the hardened oil day tank: 3.6 m across, 5.6 m of oil at 80 °C that loses 1/e of its heat in 3 h", () => {
  const day = dayOf(demoJob("tank"));
  test("cools, drains through its 50 mm drain", () => {
    near(wait(day, /^T-235 cools/), cools_s(80, 3 * HOUR_s));
    aLittleLonger(wait(day, /^drain T-235/), drains_s(3.6, 0.05, 5.6));
  });
  test("is purged by the sum, for it is more than the twenty minutes of the rule: nobody knows of what, so down to 1 %", () => {
    const sum_s = ((3 * 60) / BLOWS_m3_s) * Math.log(100);
    expect(sum_s).toBeGreaterThan(20 * 60);
    near(wait(day, /^purge T-235/), sum_s);
  });
  test("its air: six depths on four lines each way, and the mouth of a duct, 97 places; eight in twenty minutes, so 13 testers", () => {
    near(wait(day, /^wait for the samples/), sampled_s(8));
    expect(Math.ceil((6 * 4 * 4 + 1) / 8)).toBe(13);
  });
  test("is washed out for the six hours that were said", () => {
    const washed = day.bars.filter(({ label, wait: words }) => label.startsWith("clean") && words === null);
    expect(washed.map(({ start_ms, end_ms }) => (end_ms - start_ms) / 1000)).toEqual([6 * HOUR_s]);
  });
  test("work may start after the whole chain, and not before", () => {
    startsAfterItsChain(day);
    expect(day.mayStart_ms).toBe(day.workFrom_ms);
  });
});

describe("the autoclave: 1.9 m across, 2.4 m of oil at 170 °C under hydrogen, 9 m³", () => {
  const day = dayOf(demoJob("autoclave"));
  test("nobody measured how it cools: by its mass in still air; nothing surely drains it: it is pumped", () => {
    near(wait(day, /^pump A-230 out/), pumps_s(9));
    near(wait(day, /^A-230 cools/), cools_s(170, standsHot_s(9)));
  });
  test("is swept with nitrogen before air, its oxygen to 2 % by gas that holds 0.1 %", () => {
    near(wait(day, /^sweep A-230/), ((3 * 9) / 0.05) * Math.log((0.209 - 0.001) / (0.02 - 0.001)));
  });
  test("is purged for the rule's twenty minutes: hydrogen down to a tenth of its 4 % takes less", () => {
    expect(((3 * 9) / BLOWS_m3_s) * Math.log(1 / 0.004)).toBeLessThan(20 * 60);
    near(wait(day, /^purge A-230/), 20 * 60);
  });
  test("its air: four depths, three places along and across, 36 places by five testers, eight each", () => {
    near(wait(day, /^wait for the samples/), sampled_s(8));
  });
  test("no start is promised while its shortfalls stand, however long one waits", () => {
    startsAfterItsChain(day);
    expect(day.stoppedBy.length).toBeGreaterThan(0);
    expect(day.mayStart_ms).toBeNull();
  });
});

describe("the deodoriser: 2 m across, 3 m of oil at 230 °C under vacuum, 14 m³, trays in it", () => {
  const day = dayOf(entering("D-240"));
  test("cools for days, and only then is pumped out: nothing surely drains it", () => {
    near(wait(day, /^D-240 cools/), cools_s(230, standsHot_s(14)));
    near(wait(day, /^pump D-240 out/), pumps_s(14));
    const order = day.chain.map(({ wait: words }) => words ?? "");
    expect(order.findIndex((words) => words.startsWith("pump D-240"))).toBeGreaterThan(order.indexOf("D-240 cools"));
  });
  test("is purged for the rule's twenty minutes, which is longer than the sum", () => {
    expect(((3 * 14) / BLOWS_m3_s) * Math.log(100)).toBeLessThan(20 * 60);
    near(wait(day, /^purge D-240/), 20 * 60);
  });
  test("its air: five depths on three by three lines, eight corners high and low, the mouth of a duct: 62 places, eight testers", () => {
    near(wait(day, /^wait for the samples/), sampled_s(Math.ceil((5 * 3 * 3 + 2 * 8 + 1) / 8)));
  });
  test("no start is promised while its shortfalls stand", () => {
    startsAfterItsChain(day);
    expect(day.mayStart_ms).toBeNull();
  });
});
