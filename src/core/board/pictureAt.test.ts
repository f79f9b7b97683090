import { pictureAt } from "./pictureAt";
import { countSteps, valueAt, type JobTrack, type PermitTrack, type SiteTracks, type Spot } from "./tracks";

const HOUR = 3_600_000;
const spot: Spot = { x_m: 10, y_m: 5, level_m: 0, area: "Yard", isKnown: true };

const permit = (more: Partial<PermitTrack> = {}): PermitTrack => ({
  number: "P-1",
  job: "J-1",
  title: "Weld",
  kind: "hot work",
  spot,
  validFrom_ms: 2 * HOUR,
  validTo_ms: 10 * HOUR,
  states: [
    [1 * HOUR, "draft"],
    [2 * HOUR, "issued"],
    [3 * HOUR, "live"],
    [5 * HOUR, "suspended"],
    [6 * HOUR, "live"],
  ],
  on: [[3 * HOUR, 2]],
  inside: [
    [4 * HOUR, 1],
    [5 * HOUR, 0],
  ],
  purging: [],
  reaches: [{ what: "flame", reach_m: 10.668 }],
  opens: ["V-1"],
  ...more,
});
const job = (more: Partial<JobTrack> = {}): JobTrack => ({
  number: "J-1",
  title: "Weld",
  spot,
  from_ms: 2 * HOUR,
  to_ms: 12 * HOUR,
  asked_ms: HOUR / 2,
  isUnderWay: false,
  over_ms: null,
  lifts: [{ what: "rotor", spot }],
  ...more,
});
const site = (more: Partial<SiteTracks> = {}): SiteTracks => ({
  permits: [permit()],
  jobs: [job()],
  locks: [],
  heads: [],
  ...more,
});
const NOW = 7 * HOUR;

test("looking back shows what was so then, step by step", () => {
  const phases = [1.5, 2.5, 3.5, 5.5, 6.5].map((at) =>
    pictureAt(site(), at * HOUR, NOW).works.map(({ phase }) => phase),
  );
  expect(phases).toEqual([[], ["issued"], ["active"], ["stopped"], ["active"]]);
  expect([3.5, 4.5, 5.5].map((at) => pictureAt(site(), at * HOUR, NOW).inside)).toEqual([0, 1, 0]);
});

test("before a permit is out, the job is planned within its window; before it was asked for, it is not there", () => {
  const early = site({ jobs: [job({ from_ms: HOUR })] });
  expect(pictureAt(early, 1.5 * HOUR, NOW).works).toMatchObject([{ number: "J-1", phase: "planned" }]);
  expect(pictureAt(early, 0.25 * HOUR, NOW).works).toEqual([]);
});

test("a flame, a load and an open end are there while the work is in force, not while it is only issued", () => {
  const seen = (at: number) => {
    const { zones, openEnds } = pictureAt(site(), at * HOUR, NOW);
    return [...zones.map(({ what }) => what), ...openEnds.map(({ tag }) => tag)];
  };
  expect(seen(2.5)).toEqual([]);
  expect(seen(3.5)).toEqual(["flame", "lift", "V-1"]);
  expect(seen(5.5)).toEqual(["flame", "lift", "V-1"]);
});

test("after now it shows what is planned, and claims nobody on or inside", () => {
  const later = pictureAt(site(), 9 * HOUR, NOW);
  expect(later.works).toMatchObject([{ number: "P-1", phase: "planned", on: 0, inside: 0 }]);
  expect(later.zones.every(({ isPlanned }) => isPlanned)).toBe(true);
  expect(later.openEnds).toEqual([]);
  // Its time is over: what remains of the job's window is planned without it.
  expect(pictureAt(site(), 11 * HOUR, NOW).works).toMatchObject([{ number: "J-1", phase: "planned" }]);
});

test("what was closed is planned no more, and stays where it was in the past", () => {
  const over = site({
    permits: [permit({ states: [...permit().states, [6.5 * HOUR, "closed"]] })],
    jobs: [job({ over_ms: 6.75 * HOUR })],
  });
  expect(pictureAt(over, 6.25 * HOUR, NOW).works).toHaveLength(1);
  expect(pictureAt(over, 6.9 * HOUR, NOW).works).toEqual([]);
  expect(pictureAt(over, 9 * HOUR, NOW).works).toEqual([]);
});

test("a lock is there from when it was hung until it came off, and what hangs now hangs in what is planned", () => {
  const locks = [
    { tag: "A", spot, hung: [[2 * HOUR, 4 * HOUR] as const] },
    { tag: "B", spot, hung: [[HOUR, 1.2 * HOUR] as const, [3 * HOUR, null] as const] },
  ];
  const tags = (at: number) => pictureAt(site({ locks }), at * HOUR, NOW).locked.map(({ tag }) => tag);
  expect([0.5, 1.1, 2.5, 3.5, 4, 9].map(tags)).toEqual([[], ["B"], ["A"], ["A", "B"], ["B"], ["B"]]);
});

test("who came and went: counted at every moment, and nobody twice", () => {
  const steps = countSteps([
    { from_ms: 10, to_ms: 30 },
    { from_ms: 20, to_ms: null },
    { from_ms: 25, to_ms: 25 },
    { from_ms: 30, to_ms: 40 },
  ]);
  expect([5, 10, 20, 25, 30, 40, 99].map((at) => valueAt(steps, at) ?? 0)).toEqual([0, 1, 2, 2, 2, 1, 1]);
});
