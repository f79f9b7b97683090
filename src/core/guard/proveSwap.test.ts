import { SmallPlant, HARMLESS } from "../../../tests/support/smallPlant";
import { proveSwap } from "./proveSwap";

/** H – V-1 – V-2 – SPADE – A, and a way round V-2 by V-3. Somebody works on A, behind V-2 and V-3. */
const plant = new SmallPlant()
  .source("H", "fluid", HARMLESS)
  .device("V-1", "fluid")
  .item("TEE-1", "tee")
  .device("V-2", "fluid")
  .device("V-3", "fluid")
  .item("TEE-2", "tee")
  .device("NR", "fluid", { credit: false })
  .device("SPADE", "fluid", { positive: true })
  .device("V-9", "fluid", { lockable: false })
  .item("A", "vessel", { contents: HARMLESS })
  .line("fluid", "H", "V-1", "TEE-1", "V-2", "TEE-2", "NR", "V-9", "SPADE", "A")
  .line("fluid", "TEE-1", "V-3", "TEE-2");
const work = {
  number: "J-1",
  job: plant.job([{ place: "A", how: ["open"] }]),
  holds: ["V-2", "V-3"],
  opened: [],
  accepted: {},
  people: ["Nell"],
  counts: true,
};
const swap = (from: string, to: string, live = [work]) => proveSwap(plant.graph, live, { jobs: ["J-1"], from, to });

describe("swapping a point under live work", () => {
  test("is proved when the new point holds every way that the old one held", () => {
    expect(swap("V-2", "V-1")).toBeNull();
  });
  test("is refused when the work would be lit, with who is there", () => {
    const live = [{ ...work, holds: ["V-1"] }];
    expect(swap("V-1", "V-2", live)).toMatchObject({
      code: "harm",
      harms: [{ face: "A", depth: 0, people: ["Nell"] }],
    });
  });
  test("is refused where only what others lock would hold the way: an isolation stands by its own locks", () => {
    const [first, second] = [
      { ...work, holds: ["V-1"] },
      { ...work, number: "J-2", holds: ["V-1"], people: ["Odd"] },
    ];
    expect(swap("V-1", "V-2", [first, second])).toMatchObject({
      code: "harm",
      harms: [{ job: "J-1", face: "A", depth: 0, people: ["Nell"] }],
    });
    expect(swap("V-1", "SPADE", [first, second])).toBeNull();
  });
  test("is refused for what is no barrier, takes no lock, or is not as good", () => {
    expect(swap("V-2", "NR")).toEqual({ code: "not a barrier", device: "NR" });
    expect(swap("V-2", "V-9")).toMatchObject({ code: "not as good" });
    expect(swap("SPADE", "V-1", [{ ...work, holds: ["SPADE"] }])).toMatchObject({ code: "not as good" });
    expect(swap("V-2", "V-77")).toEqual({ code: "unknown device", device: "V-77" });
    expect(swap("V-77", "V-2")).toEqual({ code: "unknown device", device: "V-77" });
    expect(swap("TEE-1", "V-2")).toEqual({ code: "unknown device", device: "TEE-1" });
  });
  test("is refused for a device that another job needs passing", () => {
    const other = { ...work, number: "J-2", job: plant.job([{ place: "TEE-1" }], { mustPass: ["V-1"] }), holds: [] };
    expect(swap("V-2", "V-1", [work, other])).toEqual({ code: "needed passing", device: "V-1", job: "J-2" });
  });
});
