import fc from "fast-check";
import { anyWorks, HOUR_MS, work } from "../../../tests/support/works";
import { conflictsBetween } from "./pair";
import { conflictsOf, findConflicts, sharedPoints } from "./search";
import { firstFree_ms, shifted, waysOut } from "./waysOut";

/** Everybody with everybody else: what the index must find and nothing more. */
function allPairs(works: Parameters<typeof findConflicts>[0]): string[] {
  const found = works.flatMap((one, i) => works.slice(i + 1).flatMap((other) => conflictsBetween(one, other)));
  return [...new Set(found.map(({ id }) => id))].sort();
}

test("the search by index and sweep finds what comparing all pairs finds", () => {
  let some = 0;
  fc.assert(
    fc.property(anyWorks, (works) => {
      const found = findConflicts(works);
      some += found.length;
      expect(found.map(({ id }) => id).sort()).toEqual(allPairs(works));
    }),
    { numRuns: 300 },
  );
  expect(some).toBeGreaterThan(300);
});

test("the order of the jobs changes nothing", () => {
  fc.assert(
    fc.property(anyWorks, fc.nat(), (works, turn) => {
      const turned = [...works.slice(turn % works.length), ...works.slice(0, turn % works.length)].reverse();
      expect(findConflicts(turned)).toEqual(findConflicts(works));
    }),
    { numRuns: 60 },
  );
});

test("a job moved to its first free moment touches nobody, and no quarter of an hour before is free", () => {
  fc.assert(
    fc.property(anyWorks, ([one, ...others]) => {
      const by_ms = firstFree_ms(one!, others);
      if (by_ms === null) return;
      expect(conflictsOf(shifted(one!, by_ms), others)).toEqual([]);
      for (let earlier = 0; earlier < by_ms; earlier += HOUR_MS / 4) {
        expect(conflictsOf(shifted(one!, earlier), others)).not.toEqual([]);
      }
    }),
    { numRuns: 100 },
  );
});

const spot = (tag: string, x_m: number, more = {}) => ({
  tag,
  x_m,
  y_m: 0,
  level_m: 0,
  isKnown: true,
  isOpened: false,
  ...more,
});
const flame = (more = {}) => ({
  what: "flame" as const,
  by: "P-1",
  name: "grinding",
  x_m: 0,
  y_m: 0,
  level_m: 0,
  isKnown: true,
  reach_m: 10.668,
  from_ms: 0,
  to_ms: 8 * HOUR_MS,
  ...more,
});
const kinds = (...works: ReturnType<typeof work>[]) => findConflicts(works).map(({ kind }) => kind);

test("a flame reaches an end that another opens within 35 ft, and not one beyond", () => {
  const hot = work("J-1", { zones: [flame()] });
  expect(kinds(hot, work("J-2", { spots: [spot("V-1", 10.6, { isOpened: true })] }))).toEqual(["flame and open end"]);
  expect(kinds(hot, work("J-2", { spots: [spot("V-1", 10.7, { isOpened: true })] }))).toEqual([]);
  expect(kinds(hot, work("J-2", { spots: [spot("V-1", 5)] }))).toEqual([]);
});

test("sparks get farther on a floor below", () => {
  const hot = work("J-1", { zones: [flame({ level_m: 18 })] });
  const below = (x_m: number) => work("J-2", { spots: [spot("V-1", x_m, { isOpened: true })] });
  expect(kinds(hot, below(30))).toEqual(["flame and open end"]);
  expect(kinds(hot, below(60))).toEqual([]);
});

test("what stands somewhere unknown may stand in reach", () => {
  const hot = work("J-1", { zones: [flame()] });
  const lost = work("J-2", { spots: [spot("V-1", 500, { isKnown: false, isOpened: true })] });
  expect(kinds(hot, lost)).toEqual(["flame and open end"]);
  expect(findConflicts([hot, lost])[0]!.distance_m).toBeNull();
});

test("nothing falls upwards, and what is lifted is over people on every floor", () => {
  const high = work("J-1", { zones: [flame({ what: "overhead", level_m: 12, reach_m: 6 })] });
  const lifting = work("J-1", { zones: [flame({ what: "lift", name: "rotor", reach_m: 6 })] });
  expect(kinds(high, work("J-2", { spots: [spot("V-1", 2)] }))).toEqual(["work overhead"]);
  expect(kinds(high, work("J-2", { spots: [spot("V-1", 2, { level_m: 12 })] }))).toEqual([]);
  expect(kinds(lifting, work("J-2", { spots: [spot("V-1", 2, { level_m: 12 })] }))).toEqual(["lift over people"]);
});

test("one ends as the other begins: they do not meet", () => {
  const early = work("J-1", { people: ["ana"], to_ms: 4 * HOUR_MS });
  expect(kinds(early, work("J-2", { people: ["ana"], from_ms: 4 * HOUR_MS }))).toEqual([]);
  expect(kinds(early, work("J-2", { people: ["ana"], from_ms: 4 * HOUR_MS - 1 }))).toEqual(["same people"]);
});

test("a permit that runs past its job's window still reaches", () => {
  const hot = work("J-1", { to_ms: HOUR_MS, zones: [flame({ from_ms: 0, to_ms: 20 * HOUR_MS })] });
  const later = work("J-2", {
    from_ms: 15 * HOUR_MS,
    to_ms: 16 * HOUR_MS,
    spots: [spot("V-1", 1, { isOpened: true })],
  });
  expect(kinds(hot, later)).toEqual(["flame and open end"]);
});

test("one stops what another needs", () => {
  const stopping = work("J-1", { stops: ["Q-1"], loses: ["B-7"] });
  expect(findConflicts([stopping, work("J-2", { needs: ["B-7"] })])).toMatchObject([
    { kind: "needed and stopped", of: "J-1", with: "J-2", reached: ["B-7"] },
  ]);
  expect(kinds(work("J-1", { needs: ["B-7"] }), work("J-2", { needs: ["B-7"] }))).toEqual([]);
});

test("a way out moves the job that can still wait to a moment that is free", () => {
  const now = work("J-1", { people: ["ana"], isUnderWay: true, to_ms: 4 * HOUR_MS });
  const next = work("J-2", { people: ["ana"], from_ms: 2 * HOUR_MS, to_ms: 5 * HOUR_MS });
  const third = work("J-3", { people: ["ana"], from_ms: 5 * HOUR_MS, to_ms: 6 * HOUR_MS });
  const [conflict] = findConflicts([now, next, third]);
  expect(waysOut(conflict!, [now, next, third])).toEqual([
    { way: "shift", job: "J-2", by_ms: 4 * HOUR_MS, from_ms: 6 * HOUR_MS },
    { way: "another person" },
  ]);
  expect(waysOut(conflict!, [now, { ...next, isUnderWay: true }])).toEqual([{ way: "another person" }]);
});

test("points that several hold at one time are named with all who hold them", () => {
  const held = (job: string, from_h: number, stops: string[]) =>
    work(job, { from_ms: from_h * HOUR_MS, to_ms: (from_h + 4) * HOUR_MS, stops });
  const works = [held("J-3", 0, ["V-1", "V-2"]), held("J-1", 3, ["V-1"]), held("J-2", 9, ["V-2", "V-1"])];
  expect(sharedPoints(works)).toEqual([{ point: "V-1", jobs: ["J-1", "J-2", "J-3"] }]);
  expect(findConflicts(works)).toEqual([]);
});
