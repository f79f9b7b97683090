import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";
import { guardRelease } from "./guardRelease";
import { liftHarms, reachedBy, type StandingJob } from "./liftHarms";

/** S – V-1 – V-2 – A, and from between the valves V-3 – B: V-1 stands before both works. */
const plant = new SmallPlant()
  .source("S", "fluid", HARMFUL)
  .device("V-1", "fluid")
  .item("TEE", "tee")
  .device("V-2", "fluid")
  .device("V-3", "fluid")
  .item("A", "vessel")
  .item("B", "vessel")
  .line("fluid", "S", "V-1", "TEE", "V-2", "A")
  .line("fluid", "TEE", "V-3", "B");
const at = (number: string, place: string, isolation: string, holds: string[], people: string[] = []): StandingJob => ({
  number,
  isolation,
  job: plant.job([{ place, how: ["open"] }]),
  holds,
  opened: [],
  accepted: {},
  people,
  counts: true,
});
const nobody = new Set<string>();

describe("lifting a point of an isolation whose own work is over", () => {
  const own = at("J-1", "A", "S-1", ["V-1", "V-2"]);
  const other = at("J-2", "B", "S-2", ["V-3"], ["Nell"]);

  test("its own work location may be reached, the neighbour that counts on the same lock may not", () => {
    expect(liftHarms(plant.graph, [own, other], { isolation: "S-1", device: "V-2", agreed: nobody })).toEqual([]);
    expect(liftHarms(plant.graph, [own, other], { isolation: "S-1", device: "V-1", agreed: nobody })).toMatchObject([
      { job: "J-2", face: "B", depth: 1, needs: 2, people: ["Nell"] },
    ]);
  });
  test("a point that the neighbour holds as well stays locked for it: nobody is harmed", () => {
    const holds = at("J-2", "B", "S-2", ["V-1", "V-3"], ["Nell"]);
    expect(liftHarms(plant.graph, [own, holds], { isolation: "S-1", device: "V-1", agreed: nobody })).toEqual([]);
  });
  test("only the isolation's own hold is let go, whoever else holds by the same device", () => {
    const twice = [own, at("J-3", "A", "S-3", ["V-1"]), other];
    expect(liftHarms(plant.graph, twice, { isolation: "S-1", device: "V-1", agreed: nobody })).toEqual([]);
    expect(liftHarms(plant.graph, twice, { isolation: "S-3", device: "V-1", agreed: nobody })).toEqual([]);
  });
  test("a holder who agreed to a test is not asked again, unless somebody is there", () => {
    const lift = { isolation: "S-1", device: "V-1", agreed: new Set(["J-2"]) };
    expect(liftHarms(plant.graph, [own, { ...other, people: [] }], lift)).toEqual([]);
    expect(liftHarms(plant.graph, [own, other], lift)).toHaveLength(1);
    expect(liftHarms(plant.graph, [own, { ...other, people: [] }], { ...lift, agreed: nobody })).toHaveLength(1);
  });
  test("whom a lift reaches is told beforehand: its own jobs, and those that would lose a barrier, each once", () => {
    const live = [other, at("J-0", "A", "S-1", ["V-1", "V-2"]), own, at("J-9", "A", "S-9", ["V-1", "V-2"])];
    expect(reachedBy(plant.graph, live, { isolation: "S-1", devices: ["V-2"] })).toEqual(["J-0", "J-1"]);
    const alone = live.slice(0, 3);
    expect(reachedBy(plant.graph, alone, { isolation: "S-1", devices: ["V-1"] })).toEqual(["J-0", "J-1", "J-2"]);
    expect(reachedBy(plant.graph, alone, { isolation: "S-2", devices: ["V-3"] })).toEqual(["J-2"]);
  });
});

describe("harms, the worst first", () => {
  const holds = ["V-1", "V-2", "V-3"];
  const lift = (live: StandingJob[], ...devices: string[]) =>
    guardRelease(
      plant.graph,
      live,
      live.flatMap(({ number }) => devices.map((device) => ({ job: number, device }))),
    );

  test("what would be reached stands before what loses one of two barriers", () => {
    const live = [at("J-1", "A", "S-1", holds), at("J-2", "B", "S-2", holds)];
    expect(lift(live, "V-1", "V-3").map(({ face, depth }) => [face, depth])).toEqual([
      ["B", 0],
      ["A", 1],
    ]);
    expect(lift(live, "V-1", "V-2").map(({ face, depth }) => [face, depth])).toEqual([
      ["A", 0],
      ["B", 1],
    ]);
  });
  test("a job without a work location loses nothing", () => {
    const one = at("J-1", "A", "S-1", holds);
    const idle = { ...one, job: { ...one.job, faces: [] } };
    expect(lift([idle], "V-1", "V-2")).toEqual([]);
  });
});

describe("a job that asks plain numbers of barriers", () => {
  const holds = ["V-1", "V-2", "V-3"];
  const plain = (numbers: Record<string, number>, more: Partial<StandingJob> = {}): StandingJob => {
    const both = [
      { place: "A", how: ["open" as const] },
      { place: "B", how: ["open" as const] },
    ];
    return { ...at("J-1", "A", "S-1", holds), job: { ...plant.job(both), require: numbers }, ...more };
  };
  const lift = (one: StandingJob, ...devices: string[]) =>
    guardRelease(
      plant.graph,
      [one],
      devices.map((device) => ({ job: "J-1", device })),
    ).map(({ face, source, depth, needs }) => [face, source, depth, needs]);

  test("each work location is asked for itself", () => {
    expect(lift(plain({ fluid: 2 }), "V-2")).toEqual([["A", "S", 1, 2]]);
    expect(lift(plain({ fluid: 2 }), "V-3")).toEqual([["B", "S", 1, 2]]);
    expect(lift(plain({ fluid: 1 }), "V-2")).toEqual([]);
  });
  test("where nothing is asked nothing is lost", () => {
    expect(lift(plain({ fluid: 0 }), "V-1", "V-2", "V-3")).toEqual([]);
  });
  test("no more is asked than stood there and than was accepted", () => {
    expect(lift(plain({ fluid: 2 }, { holds: ["V-1"] }), "V-1")).toEqual([
      ["A", "S", 0, 1],
      ["B", "S", 0, 1],
    ]);
    const accepted = { "S fluid A": { grade: "unproved single", depth: 1 } };
    expect(lift(plain({ fluid: 2 }, { accepted }), "V-1")).toEqual([["B", "S", 1, 2]]);
  });
});
