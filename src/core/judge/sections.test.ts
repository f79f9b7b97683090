import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";
import { workFaces } from "../trace/workFaces";
import { barrierField } from "../barrier/pairs";
import { sectionsOf } from "./sections";
import { standingOf } from "./standing";

function cavities(plant: SmallPlant, face: string, isolated: readonly string[]) {
  const { graph } = plant;
  const faces = workFaces(graph, plant.job([{ place: face, how: ["open"] }]), "job");
  if (!faces.ok) throw new Error("no face");
  const set = new Set(isolated.map((tag) => graph.itemByTag.get(tag)!));
  const field = barrierField(graph, faces.value);
  return sectionsOf(field, set, standingOf(field, set));
}

/** S – V-1 – [SP-1 – middle – SP-2] – V-2 – P, with something in the middle. */
const withMiddle = (add: (plant: SmallPlant) => SmallPlant) =>
  add(new SmallPlant().source("S", "fluid", HARMFUL).device("V-1", "fluid").item("SP-1", "pipe"))
    .item("SP-2", "pipe")
    .device("V-2", "fluid")
    .item("P", "vessel")
    .line("fluid", "S", "V-1", "SP-1", "X", "SP-2", "V-2", "P")
    .bleed("BL", "SP-2")
    .bleed("BW", "P");

const between = (plant: SmallPlant) => cavities(plant, "P", ["V-1", "V-2"]).find((one) => one.zone === "between")!;

describe("what a bleed surely drains", () => {
  test.each([
    ["a pipe", (p: SmallPlant) => p.item("X", "pipe"), [], []],
    ["a valve that is opened and locked", (p: SmallPlant) => p.device("X", "fluid"), [], ["X"]],
    ["also one that stands shut", (p: SmallPlant) => p.device("X", "fluid", { stands: "stopping" }), [], ["X"]],
    ["a valve that takes no lock", (p: SmallPlant) => p.device("X", "fluid", { lockable: false }), ["SP-1", "X"], []],
    ["a blind", (p: SmallPlant) => p.device("X", "fluid", { positive: true }), ["SP-1", "X"], []],
    ["several ways", (p: SmallPlant) => p.device("X", "fluid", { positions: [[["a", "b"]]] }), ["SP-1", "X"], []],
    ["a valve that nobody described", (p: SmallPlant) => p.item("X", "valve"), ["SP-1", "X"], []],
    ["a check valve", (p: SmallPlant) => p.device("X", "fluid", { kind: "check valve" }), ["SP-1", "X"], []],
    ["a control valve", (p: SmallPlant) => p.device("X", "fluid", { kind: "control valve" }), ["SP-1", "X"], []],
    ["a pump", (p: SmallPlant) => p.item("X", "pump"), ["SP-1", "X"], []],
    ["a filter", (p: SmallPlant) => p.item("X", "filter"), ["SP-1", "X"], []],
    ["a kind that nobody described", (p: SmallPlant) => p.item("X", "gubbins"), ["SP-1", "X"], []],
  ] as const)("through %s", (_, add, undrained, opens) => {
    expect(between(withMiddle(add))).toMatchObject({ undrained, opens });
  });

  test("what does not surely pass is drained when everything beside it is, and only then", () => {
    const twoFilters = withMiddle((p) => p.item("X", "filter")).bleed("BL-1", "SP-1");
    expect(between(twoFilters).undrained).toEqual([]);
    const inARow = new SmallPlant()
      .source("S", "fluid", HARMFUL)
      .device("V-1", "fluid")
      .item("SP-1", "pipe")
      .item("F-1", "filter")
      .item("F-2", "pump")
      .item("SP-2", "pipe")
      .device("V-2", "fluid")
      .item("P", "vessel")
      .line("fluid", "S", "V-1", "SP-1", "F-1", "F-2", "SP-2", "V-2", "P")
      .bleed("BL-1", "SP-1")
      .bleed("BL-2", "SP-2");
    expect(between(inARow).undrained).toEqual(["F-1", "F-2"]);
  });

  test.each([
    ["a liquid by a bleed above it", 4, "liquid", ["SP-2"]],
    ["a liquid by a bleed below it", 1, "liquid", []],
    ["a gas by a bleed below it", 1, "gas", ["SP-2"]],
    ["a gas by a bleed above it", 4, "gas", []],
  ] as const)("%s", (_, level_m, phase, undrained) => {
    const plant = new SmallPlant()
      .source("S", "fluid", HARMFUL)
      .device("V-1", "fluid")
      .item("SP-2", "pipe", { level_m: 2, contents: { ...HARMFUL, phase } })
      .device("V-2", "fluid")
      .item("P", "vessel")
      .item("BL", "bleed", { level_m, bleed: { safe: true, gauge: true } })
      .line("fluid", "S", "V-1", "SP-2", "V-2", "P")
      .line("fluid", "SP-2", "BL");
    expect(between(plant).undrained).toEqual(undrained);
  });

  test("a temporary line, and a bleed at an isolated device, drain nothing", () => {
    const base = () =>
      new SmallPlant()
        .source("S", "fluid", HARMFUL)
        .device("V-1", "fluid")
        .item("SP-1", "pipe")
        .device("V-2", "fluid")
        .item("P", "vessel")
        .item("BL", "bleed", { bleed: { safe: true, gauge: true } })
        .line("fluid", "S", "V-1", "SP-1", "V-2", "P");
    expect(between(base().line("fluid", "SP-1", "BL")).undrained).toEqual([]);
    expect(between(base().hose("fluid", "SP-1", "BL")).undrained).toEqual(["SP-1"]);
    expect(between(base().line("fluid", "SP-1", "BL", "V-1")).undrained).toEqual(["BL", "SP-1"]);
  });

  test("a second bleed is opened where one does not do", () => {
    const plant = withMiddle((p) => p.item("X", "pump")).bleed("BL-1", "SP-1");
    expect(between(plant)).toMatchObject({ bleeds: ["BL", "BL-1"], undrained: [], barriers: ["V-1", "V-2"] });
  });
  test("no more bleeds are opened than are needed", () => {
    const plant = withMiddle((p) => p.item("X", "pipe")).bleed("BL-1", "SP-1");
    expect(between(plant).bleeds).toHaveLength(1);
  });
});

describe("spaces", () => {
  const plant = () => withMiddle((p) => p.item("X", "pipe"));
  test("one barrier makes a work zone and no space between", () => {
    const found = cavities(plant(), "P", ["V-1"]);
    expect(found).toMatchObject([{ zone: "work", barriers: ["V-1"], faces: ["P"], undrained: [] }]);
    expect(found[0]!.places).toEqual(["BL", "BW", "P", "SP-1", "SP-2", "V-2", "X"]);
  });
  test("nothing isolated makes none: it is all live", () => {
    expect(cavities(plant(), "P", [])).toEqual([]);
  });
  test("a space that another source keeps live is none", () => {
    const fed = plant().source("S-2", "fluid", HARMFUL).line("fluid", "S-2", "SP-1");
    expect(cavities(fed, "P", ["V-1", "V-2"]).map((one) => one.zone)).toEqual(["work"]);
  });
});
