import { HARMFUL, HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";
import { holds, onNewPlant } from "./onNewPlant";

const faces = [{ place: "P", how: ["open" as const] }];

/** Water, a valve, a vessel with a bleed; before the valve a line, and a branch of it that leads nowhere. */
function line(far?: (plant: SmallPlant) => SmallPlant) {
  const plant = new SmallPlant()
    .source("S", "fluid", HARMLESS)
    .item("A", "header")
    .item("B", "header")
    .item("C", "header")
    .device("V-1", "fluid")
    .item("P", "vessel", { contents: HARMLESS })
    .bleed("BL-1", "P")
    .item("D", "header")
    .item("E", "header")
    .line("fluid", "S", "A", "B", "C", "V-1", "P")
    .line("fluid", "A", "D", "E");
  return far ? far(plant) : plant;
}

function fate(after: SmallPlant, before = line()) {
  const made = before.plan(faces);
  expect(made.held).toBe(true);
  const isolated = made.points.map(({ device }) => device);
  return onNewPlant(before.graph, after.graph, before.job(faces), made, isolated);
}

test("it holds where nothing changed, and where what changed asks nothing", () => {
  expect(holds(fate(line()))).toBe(true);
  expect(holds(fate(line((plant) => plant.item("X", "vessel").line("fluid", "A", "X"))))).toBe(true);
});

test("a source joined far from every point is found by what it asks of the barriers", () => {
  const found = fate(line((plant) => plant.source("S-2", "fluid", HARMFUL).line("fluid", "S-2", "E")));
  expect(found.change).toEqual({ added: [], removed: [], changed: [] });
  expect(found.short.map(({ source, depth, grade }) => [source, depth, grade])).toEqual([["S-2", 1, "proved single"]]);
  expect(holds(found)).toBe(false);
});

test("a way past the points lights the work", () => {
  const found = fate(line((plant) => plant.line("fluid", "A", "P")));
  expect(found.short[0]).toMatchObject({ source: "S", depth: 0 });
});

test("a work location that is gone, and a point that is no barrier any more, are never said to hold", () => {
  const gone = new SmallPlant()
    .source("S", "fluid", HARMLESS)
    .device("V-1", "fluid")
    .item("Q", "vessel")
    .line("fluid", "S", "V-1", "Q");
  expect(fate(gone)).toMatchObject({ missingFaces: ["P"], lostPoints: [] });
  expect(holds(fate(gone))).toBe(false);
  const base = (device: (plant: SmallPlant) => SmallPlant) =>
    device(new SmallPlant().source("S", "fluid", HARMLESS).item("P", "vessel", { contents: HARMLESS }))
      .bleed("BL-1", "P")
      .line("fluid", "S", "V-1", "P");
  for (const after of [
    base((plant) => plant.device("V-1", "fluid", { credit: false })),
    base((plant) => plant.item("V-1", "pump")),
  ]) {
    const found = fate(after);
    expect(found.lostPoints).toEqual(["V-1"]);
    expect(holds(found)).toBe(false);
  }
});

test("what was short when it was approved is no news; what is worse than then is", () => {
  const one = () => new SmallPlant().source("S", "fluid", HARMFUL).device("V-1", "fluid").item("P", "vessel");
  const before = one().bleed("BL-1", "P").line("fluid", "S", "V-1", "P");
  const made = before.plan(faces);
  expect(made.held).toBe(false);
  const job = before.job(faces);
  expect(holds(onNewPlant(before.graph, before.graph, job, made, ["V-1"]))).toBe(true);
  const noBleed = one().line("fluid", "S", "V-1", "P");
  expect(onNewPlant(before.graph, noBleed.graph, job, made, ["V-1"]).short).toMatchObject([
    { grade: "unproved single" },
  ]);
});
