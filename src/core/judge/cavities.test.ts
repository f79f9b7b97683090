import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";
import { workFaces } from "../trace/workFaces";
import { cavitiesOf } from "./cavities";
import { barrierField } from "./pairs";

function cavities(plant: SmallPlant, face: string, isolated: readonly string[]) {
  const { graph } = plant;
  const faces = workFaces(graph, plant.job([{ place: face, how: ["open"] }]), "job");
  if (!faces.ok) throw new Error("no face");
  const set = new Set(isolated.map((tag) => graph.itemByTag.get(tag)!));
  return cavitiesOf(barrierField(graph, faces.value), set).cavities;
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
    ["a pipe", (p: SmallPlant) => p.item("X", "pipe"), []],
    ["a valve known to stand passing", (p: SmallPlant) => p.device("X", "fluid"), []],
    ["a valve whose position nobody knows", (p: SmallPlant) => p.device("X", "fluid", { stands: "unknown" }), ["SP-1"]],
    ["a valve that stands shut", (p: SmallPlant) => p.device("X", "fluid", { stands: "stopping" }), ["SP-1"]],
    ["a check valve", (p: SmallPlant) => p.device("X", "fluid", { kind: "check valve", credit: false }), ["SP-1"]],
    ["a control valve", (p: SmallPlant) => p.device("X", "fluid", { kind: "control valve", credit: false }), ["SP-1"]],
    ["a pump", (p: SmallPlant) => p.item("X", "pump"), ["SP-1"]],
    ["a filter", (p: SmallPlant) => p.item("X", "filter"), ["SP-1"]],
    ["a kind that nobody described", (p: SmallPlant) => p.item("X", "gubbins"), ["SP-1"]],
  ] as const)("through %s", (_, add, undrained) => {
    expect(between(withMiddle(add)).undrained).toEqual(undrained);
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
