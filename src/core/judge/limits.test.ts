import { SmallPlant } from "../../../tests/support/smallPlant";
import { limitClashesOf } from "../guard/clashes";
import { harmsBetween } from "../guard/guardRelease";

const BRINE = { fluid: "brine", temperature_C: 20, hazards: [] };
const FACE = [{ place: "P-1", how: ["open" as const] }];
const RULES = { require: { fluid: 1 } };

/** 200 bar, let down to 12 by a valve whose relief stands behind a valve of its own; valves of PN 16 before the work. */
function letDown(protects: string[] = ["RED"]): SmallPlant {
  return new SmallPlant()
    .source("S", "fluid", { ...BRINE, pressure_Pa: 200e5 })
    .item("RED", "control valve", { limit_Pa: 12e5, device: { stops: ["fluid"], credit: false, effort: 5 } })
    .device("V-1", "fluid", { flangeClass: "PN 16", effort: 8 })
    .item("P-1", "pump")
    .item("T", "tee")
    .device("V-R", "fluid", { effort: 1 })
    .item("RV", "relief valve", { service: "relief", ...(protects.length > 0 ? { protects } : {}) })
    .item("ATM", "atmosphere")
    .line("fluid", "S", "RED", "T", "V-1", "P-1")
    .line("fluid", "T", "V-R", "RV", "ATM");
}

test("a limit holds while its relief is open, and is lost with what cuts it: the valve then counts for nothing", () => {
  const plant = letDown();
  expect(plant.check(FACE, ["V-1"], RULES).ok).toBe(true);
  const cut = plant.check(FACE, ["V-1", "V-R"], RULES);
  expect(cut.ok).toBe(false);
  expect(cut.lit.map(({ arrives }) => arrives)).toEqual(["fluid", "shaft"]);
});

test("a relief valve in its register's words, shut until it lifts, is no relief that is cut off", () => {
  const shut = { device: { stops: ["fluid" as const], credit: false, effort: 5, stands: "stopping" as const } };
  const plant = new SmallPlant()
    .source("S", "fluid", { ...BRINE, pressure_Pa: 200e5 })
    .item("RED", "control valve", { limit_Pa: 12e5, ...shut })
    .device("V-1", "fluid", { flangeClass: "PN 16" })
    .item("P-1", "pump")
    .item("RV", "relief valve", { service: "relief", protects: ["RED"], ...shut })
    .item("ATM", "atmosphere")
    .line("fluid", "S", "RED", "V-1", "P-1")
    .line("fluid", "RED", "RV", "ATM");
  expect(plant.check(FACE, ["V-1"], RULES).ok).toBe(true);
});

test("a relief without a list guards what reaches it without crossing a device, and the devices there", () => {
  // A valve before the relief: it is not drawn as anybody's, and is the only one there is.
  expect(letDown([]).check(FACE, ["V-1"], RULES).ok).toBe(true);
  expect(letDown([]).check(FACE, ["V-1", "V-R"], RULES).ok).toBe(false);
  const open = new SmallPlant()
    .source("S", "fluid", { ...BRINE, pressure_Pa: 200e5 })
    .item("RED", "control valve", { limit_Pa: 12e5, device: { stops: ["fluid"], credit: false, effort: 5 } })
    .device("V-1", "fluid", { flangeClass: "PN 16" })
    .item("P-1", "pump")
    .item("T", "tee")
    .item("RV", "relief valve", { service: "relief" })
    .device("V-R", "fluid", {})
    .item("ATM", "atmosphere")
    .line("fluid", "S", "RED", "T", "V-1", "P-1")
    .line("fluid", "T", "RV", "V-R", "ATM");
  expect(open.check(FACE, ["V-1"], RULES).ok).toBe(true);
  // What it lets go has nowhere to go.
  expect(open.check(FACE, ["V-1", "V-R"], RULES).ok).toBe(false);
});

test("of two reliefs one that is left will do", () => {
  const plant = letDown()
    .item("RV-2", "relief valve", { service: "relief", protects: ["RED"] })
    .item("ATM-2", "atmosphere")
    .line("fluid", "T", "RV-2", "ATM-2");
  expect(plant.check(FACE, ["V-1", "V-R"], RULES).ok).toBe(true);
});

test("a plan that would cut the relief goes another way, though it is dearer", () => {
  // The flare may come back: by the relief's own valve it is cheapest stopped, and so the relief is cut.
  const plant = letDown()
    .source("FL", "fluid", { ...BRINE, pressure_Pa: 1e5 })
    .device("V-3", "fluid", { effort: 6 })
    .line("fluid", "FL", "V-R")
    .line("fluid", "V-R", "V-3", "P-1");
  const made = plant.plan(FACE, { ...RULES, objective: "effort" });
  expect(made.held).toBe(true);
  expect(made.points.map(({ device }) => device)).toEqual(["V-1", "V-3"]);
});

test("pinned, what cuts the relief stays, and the plan says what that costs", () => {
  const made = letDown().plan(FACE, { ...RULES, pinned: ["V-R"] });
  expect(made.held).toBe(false);
  expect(made.shortfalls).toHaveLength(1);
  expect(made.notices.join(" ")).toContain("V-1 counts for nothing");
});

test("another job that stops the relief is a clash with the job whose points count on it, and says by which device", () => {
  const { graph } = letDown();
  const own = { number: "J-1", points: ["V-1"] };
  expect(limitClashesOf(graph, [own, { number: "J-2", points: ["V-R"] }])).toEqual([
    { device: "V-R", stoppedBy: "J-2", neededBy: "J-1", why: "relief" },
  ]);
  expect(limitClashesOf(graph, [own, { number: "J-2", points: [] }])).toEqual([]);
  // Whoever counts on nothing behind the limit needs no relief.
  expect(
    limitClashesOf(graph, [
      { number: "J-1", points: [] },
      { number: "J-2", points: ["V-R"] },
    ]),
  ).toEqual([]);
});

test("a lock that cuts the relief under live work takes its barrier away", () => {
  const plant = letDown();
  const job = plant.job(FACE, RULES);
  const live = [
    { number: "J-1", job, holds: ["V-1"], opened: [], accepted: {}, people: ["Nadia Ferro"], counts: true },
  ];
  expect(harmsBetween(plant.graph, live, [["V-1"]])).toEqual([]);
  expect(harmsBetween(plant.graph, live, [["V-1", "V-R"]])).toMatchObject([{ job: "J-1", face: "P-1", depth: 0 }]);
});
