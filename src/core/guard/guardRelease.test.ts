import fc from "fast-check";
import { engineCase, smallCase } from "../../../tests/support/plantArbitrary";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";
import { check } from "../plan/check";
import { clashesOf } from "./clashes";
import { guardRelease, type LiveJob } from "./guardRelease";
import { regionChange } from "../plan/regionChange";

describe("lifting beside live work", () => {
  test("is refused exactly when the remaining devices leave a way with fewer barriers than it has and needs", () => {
    let refused = 0;
    let allowed = 0;
    fc.assert(
      fc.property(smallCase, fc.nat(), (small, pick) => {
        const { graph, job } = engineCase({ ...small, job: { ...small.job, require: { fluid: 2, power: 1 } } });
        const devices = graph.plant.items.filter((item) => item.device).map((item) => item.tag);
        const lift = devices[pick % devices.length]!;
        const live: LiveJob[] = [
          {
            number: "J-1",
            job,
            holds: devices.filter((tag) => tag !== lift),
            opened: [],
            accepted: {},
            people: [],
            counts: true,
          },
          {
            number: "J-2",
            job: { ...job, faces: [] },
            holds: [lift],
            opened: [],
            accepted: {},
            people: [],
            counts: true,
          },
        ];
        const harms = guardRelease(graph, live, [{ job: "J-2", device: lift }]);
        // The same asked another way: what a set of devices holds, before and after, by check.
        const routes = (isolated: string[]) => {
          const made = check(graph, { ...job, isolated });
          if (!made.ok) throw new Error("refused");
          return new Map(made.value.routes.map((route) => [`${route.source} ${route.carrier} ${route.face}`, route]));
        };
        const [was, is] = [routes(devices), routes(devices.filter((tag) => tag !== lift))];
        const worse = [...is].filter(([key, route]) => route.depth < Math.min(route.required, was.get(key)!.depth));
        expect(harms.length > 0).toBe(worse.length > 0);
        expect(new Set(harms.map((harm) => `${harm.source} ${harm.face}`))).toEqual(
          new Set(worse.map(([, route]) => `${route.source} ${route.face}`)),
        );
        if (harms.length > 0) refused++;
        else allowed++;
      }),
      propertyRuns(200),
    );
    expect(refused).toBeGreaterThan(metAtLeast(15));
    expect(allowed).toBeGreaterThan(metAtLeast(15));
  });

  const plant = new SmallPlant()
    .source("S", "fluid", HARMFUL)
    .device("V-1", "fluid")
    .device("V-2", "fluid")
    .item("P", "vessel")
    .line("fluid", "S", "V-1", "V-2", "P");
  const work: LiveJob = {
    number: "J-1",
    job: plant.job([{ place: "P", how: ["open"] }]),
    holds: ["V-1", "V-2"],
    opened: [],
    accepted: {},
    people: ["Nell", "Otto"],
    counts: true,
  };

  test("a second barrier counts: down to one of the two asked is a harm, with the people on", () => {
    const own = [work, { ...work, number: "J-2", job: { ...work.job, faces: [] }, holds: ["V-1"] }];
    const release = [
      { job: "J-1", device: "V-1" },
      { job: "J-2", device: "V-1" },
    ];
    expect(guardRelease(plant.graph, own, release)).toEqual([
      {
        job: "J-1",
        face: "P",
        source: "S",
        depth: 1,
        needs: 2,
        grade: "unproved single",
        asked: "unproved double",
        people: ["Nell", "Otto"],
      },
    ]);
  });
  test("what a person accepted is what must be left, no more", () => {
    const accepted = [{ ...work, accepted: { "S fluid P": { grade: "unproved single", depth: 1 } } }];
    expect(guardRelease(plant.graph, accepted, [{ job: "J-1", device: "V-1" }])).toEqual([]);
    const both = ["V-1", "V-2"].map((device) => ({ job: "J-1", device }));
    expect(guardRelease(plant.graph, accepted, both)).toMatchObject([{ depth: 0, needs: 1 }]);
  });
  test("a job that is not proven yet loses nothing with another's lock, for it never counted on it", () => {
    const walking = { ...work, holds: ["V-1"], counts: false };
    const other = { ...work, number: "J-2", job: { ...work.job, faces: [] }, holds: ["V-2"] };
    const release = [{ job: "J-2", device: "V-2" }];
    expect(guardRelease(plant.graph, [walking, other], release)).toEqual([]);
    expect(guardRelease(plant.graph, [{ ...walking, counts: true }, other], release)).toMatchObject([{ depth: 1 }]);
    // Its own lock it does count on.
    expect(guardRelease(plant.graph, [walking], [{ job: "J-1", device: "V-1" }])).toMatchObject([
      { depth: 0, needs: 1 },
    ]);
  });
  test("a face that the register no longer has cannot be shown to be dark", () => {
    const gone = [{ ...work, job: plant.job([{ place: "GONE" }]) }];
    expect(guardRelease(plant.graph, gone, [])).toMatchObject([{ face: "GONE", source: "the register" }]);
  });
});

test("a device that one job stops and another needs passing is a clash, and not with oneself", () => {
  expect(
    clashesOf([
      { number: "J-1", points: ["V-1", "V-2"], mustPass: ["V-9"] },
      { number: "J-2", points: ["V-9"], mustPass: ["V-2", "V-9"] },
    ]),
  ).toEqual([
    { device: "V-9", stoppedBy: "J-2", neededBy: "J-1", why: "asked" },
    { device: "V-2", stoppedBy: "J-1", neededBy: "J-2", why: "asked" },
  ]);
});

describe("what changed near a plan", () => {
  const line = () =>
    new SmallPlant().source("S", "fluid").device("V-1", "fluid").item("P", "vessel").line("fluid", "S", "V-1", "P");
  const far = (plant: SmallPlant) => plant.item("X", "vessel").item("Y", "vessel").line("fluid", "X", "Y");
  const named = ["S", "V-1", "P"];

  test("nothing, when only something far away did", () => {
    const change = regionChange(line().graph, far(line()).graph, named);
    expect(change).toEqual({ added: [], removed: [], changed: [] });
  });
  test("a new branch at a place of the plan", () => {
    const change = regionChange(line().graph, line().source("S-2", "fluid").line("fluid", "S-2", "P").graph, named);
    expect(change).toEqual({ added: ["S-2"], removed: [], changed: ["P"] });
  });
  test("an item that is gone, and a device that lost its credit", () => {
    const after = new SmallPlant()
      .source("S", "fluid")
      .device("V-1", "fluid", { credit: false })
      .line("fluid", "S", "V-1");
    expect(regionChange(line().graph, after.graph, named)).toEqual({ added: [], removed: ["P"], changed: ["V-1"] });
  });
});
