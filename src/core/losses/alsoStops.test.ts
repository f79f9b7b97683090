import { SmallPlant } from "../../../tests/support/smallPlant";
import { demoGraph, demoJob } from "../../../tests/support/demoPlant";
import { plan } from "../plan/plan";
import { lossesOf, type Losses } from "./alsoStops";

/** Losses with these devices isolated, nothing else done: no bleed opened, nothing drained. */
function lossesWith(plant: SmallPlant, isolated: readonly string[], rest: { bleeds?: string[]; safe?: string[] } = {}) {
  const { graph } = plant;
  const indexOf = (tag: string) => graph.itemByTag.get(tag)!;
  return lossesOf(graph, new Set(isolated.map(indexOf)), new Set(), {
    isSafe: (vertex) => (rest.safe ?? []).includes(graph.places.names[graph.placeAt[vertex]!]!),
    bleeds: new Set((rest.bleeds ?? []).map(indexOf)),
    opens: new Set(),
  });
}

const said = ({ alsoStops }: Losses) =>
  alsoStops.map(({ kind, tag, by, others }) => [kind, tag, by.join(" "), others.join(" ")].join(" | ").trimEnd());

/** T-1 – V-1 – P-1 – V-2 – T-2, the pump on its own motor. */
const pumping = () =>
  new SmallPlant()
    .item("T-1", "tank", { source: [{ carrier: "fluid" }], contents: { fluid: "oil", phase: "liquid", hazards: [] } })
    .device("V-1", "fluid")
    .item("P-1", "pump")
    .device("V-2", "fluid")
    .item("T-2", "tank")
    .line("fluid", "T-1", "V-1", "P-1", "V-2", "T-2")
    .source("INC", "power")
    .device("Q-1", "power", { kind: "isolator" })
    .item("M-1", "motor", { needs: ["power"] })
    .line("power", "INC", "Q-1", "M-1")
    .line("shaft", "M-1", "P-1");

describe("a pump that goes on running", () => {
  test("cannot deliver when its only way out is shut", () => {
    expect(said(lossesWith(pumping(), ["V-2"]))).toEqual(["cannot deliver | P-1 | V-2 |"]);
  });
  test("runs dry when its only way in is shut", () => {
    expect(said(lossesWith(pumping(), ["V-1"]))).toEqual(["runs dry | P-1 | V-1 |"]);
  });
  test("is not judged when the plan stops it as well", () => {
    const { alsoStops, goesDark } = lossesWith(pumping(), ["V-2", "Q-1"]);
    expect(alsoStops.filter(({ tag }) => tag === "P-1")).toEqual([]);
    // Turned by flow or not, a motor without its supply is lost.
    expect(goesDark.map(({ tag, loses }) => [tag, loses])).toEqual([["M-1", ["power"]]]);
  });
  test("is not judged where it could not deliver before", () => {
    const plant = pumping().device("V-3", "fluid", { stands: "stopping" }).item("P-2", "pump").item("T-3", "tank");
    plant.line("fluid", "T-1", "P-2", "V-3", "T-3").line("shaft", "M-1", "P-2");
    expect(said(lossesWith(plant, ["V-3"]))).toEqual([]);
  });
  test("delivers still through a recycle to a vessel, not through one to its own suction line", () => {
    const recycle = pumping().device("V-9", "fluid").line("fluid", "P-1", "V-9", "T-1");
    expect(said(lossesWith(recycle, ["V-2"]))).toEqual([]);
    const around = pumping().item("TEE", "tee").device("V-9", "fluid").line("fluid", "P-1", "V-9", "TEE", "P-1");
    expect(said(lossesWith(around, ["V-2"]))).toEqual(["cannot deliver | P-1 | V-2 |"]);
  });
  test("draws from a drum that stands between, and circulates through it", () => {
    const plant = new SmallPlant()
      .source("H", "fluid")
      .device("V-0", "fluid")
      .item("D-1", "vessel")
      .item("P-1", "pump")
      .device("V-2", "fluid")
      .item("T-2", "tank")
      .device("V-9", "fluid")
      .line("fluid", "H", "V-0", "D-1", "P-1", "V-2", "T-2")
      .line("fluid", "P-1", "V-9", "D-1");
    expect(said(lossesWith(plant, ["V-0", "V-2"]))).toEqual([]);
    expect(said(lossesWith(plant, ["V-9", "V-2"]))).toEqual(["cannot deliver | P-1 | V-2 V-9 |"]);
  });
  test("does not deliver back through a check valve, nor into a bleed, a relief or an instrument", () => {
    const plant = new SmallPlant()
      .item("T-1", "tank", { source: [{ carrier: "fluid" }] })
      .item("T-9", "tank")
      .item("TEE", "tee")
      .item("NR", "check valve")
      .item("P-1", "pump")
      .device("V-2", "fluid")
      .item("T-2", "tank")
      .item("RV", "relief valve")
      .item("FL", "flare")
      .item("PI", "instrument")
      .line("fluid", "T-1", "P-1", "TEE", "V-2", "T-2")
      .line("fluid", "T-9", "NR", "TEE")
      .line("fluid", "TEE", "RV", "FL")
      .line("fluid", "TEE", "PI")
      .bleed("BL", "TEE");
    expect(said(lossesWith(plant, ["V-2"]))).toEqual(["cannot deliver | P-1 | V-2 |"]);
  });
  test("ends where its flow last leads when no sink is known, and that is said", () => {
    const plant = pumping().item("P-2", "pump").device("V-8", "fluid").item("R-1", "vessel").device("V-7", "fluid");
    plant.line("fluid", "T-1", "P-2", "V-8", "R-1", "V-7");
    expect(lossesWith(plant, ["V-8"]).assumedSinks).toEqual(["V-7"]);
    expect(said(lossesWith(plant, ["V-8"]))).toEqual(["cannot deliver | P-2 | V-8 |"]);
    expect(lossesWith(pumping(), ["V-2"]).assumedSinks).toEqual([]);
  });
  test("takes no item for an end of which the register says that it is none", () => {
    const plant = new SmallPlant()
      .item("T-1", "tank", { source: [{ carrier: "fluid" }] })
      .item("P-1", "pump")
      .item("TEE", "tee")
      .device("V-2", "fluid")
      .item("T-2", "tank", { sink: false })
      .item("R-1", "vessel", { sink: true })
      .device("V-3", "fluid")
      .line("fluid", "T-1", "P-1", "TEE", "V-2", "T-2")
      .line("fluid", "TEE", "V-3", "R-1");
    expect(said(lossesWith(plant, ["V-3"]))).toEqual(["cannot deliver | P-1 | V-3 |"]);
  });
  test("whose drive the plan takes passes nothing on to those who need it", () => {
    const plant = pumping()
      .item("C-1", "vessel", { needs: ["fluid"] })
      .line("fluid", "V-2", "C-1");
    expect(lossesWith(plant, ["Q-1"]).goesDark.map(({ tag }) => tag)).toEqual(["C-1", "M-1"]);
  });
  test("draws nothing from its seal gas", () => {
    const plant = pumping()
      .source("N-1", "fluid", { fluid: "nitrogen", phase: "gas", hazards: ["asphyxiant"] })
      .item("SG", "pipe", { service: "purge", protects: ["P-1"] })
      .line("fluid", "N-1", "SG", "P-1");
    expect(said(lossesWith(plant, ["V-1"]))).toEqual(["runs dry | P-1 | V-1 |"]);
  });
});

describe("a drain header that is shut", () => {
  const drained = () =>
    new SmallPlant()
      .source("H", "fluid", { fluid: "water", phase: "liquid", hazards: [] })
      .item("D-1", "vessel", { contents: { fluid: "water", hazards: [] } })
      .device("V-1", "fluid")
      .item("DH", "header", { service: "drain" })
      .device("V-2", "fluid")
      .item("S-1", "sump")
      .line("fluid", "H", "D-1", "V-1", "DH", "V-2", "S-1");

  test("backs up, with what empties into it", () => {
    expect(said(lossesWith(drained(), ["V-2"]))).toEqual(["backs up | DH | V-2 | D-1"]);
  });
  test("backs up nothing once what empties into it is cut off as well, or empty", () => {
    expect(said(lossesWith(drained(), ["V-1", "V-2"])).filter((row) => row.startsWith("backs up"))).toEqual([]);
    expect(said(lossesWith(drained(), ["V-2"], { safe: ["D-1"] }))).toEqual([]);
  });
  test("backs up into the bleeds that the plan opens", () => {
    const plant = drained().bleed("BL", "DH");
    expect(said(lossesWith(plant, ["V-1", "V-2"], { bleeds: ["BL"] }))).toEqual(["backs up | DH | V-2 | BL"]);
  });
  test("is a line where the register says it of a line", () => {
    const plant = new SmallPlant()
      .item("T-1", "tank", { source: [{ carrier: "fluid" }] })
      .item("TR-1", "pipe", { service: "condensate" })
      .device("V-2", "fluid")
      .item("S-1", "sewer")
      .line("fluid", "T-1", "TR-1", "V-2", "S-1");
    expect(said(lossesWith(plant, ["V-2"]))).toEqual(["backs up | TR-1 | V-2 | T-1"]);
  });
});

describe("protection", () => {
  const relieved = (protects: string[] = []) =>
    new SmallPlant()
      .source("H", "fluid")
      .item("D-1", "vessel")
      .device("V-1", "fluid")
      .item("D-2", "vessel")
      .device("V-3", "fluid")
      .item("RV", "relief valve", { service: "relief", protects })
      .device("V-2", "fluid")
      .item("FL", "flare")
      .line("fluid", "H", "V-1", "D-2")
      .line("fluid", "H", "D-1", "V-3", "D-2")
      .line("fluid", "D-1", "RV", "V-2", "FL");

  test("is lost behind a shut outlet; without a list it covers what reaches it without a device", () => {
    expect(said(lossesWith(relieved(), ["V-2"]))).toEqual([
      "unprotected | D-1 | V-2 | RV",
      "unprotected | H | V-2 | RV",
    ]);
  });
  test("is lost by what the plan cuts off from it, by the list", () => {
    // Back through the header pressure still reaches it.
    expect(said(lossesWith(relieved(["D-2"]), ["V-3"]))).toEqual([]);
    expect(said(lossesWith(relieved(["D-2"]), ["V-1", "V-3"]))).toEqual(["unprotected | D-2 | V-1 V-3 | RV"]);
    expect(said(lossesWith(relieved(["D-1"]), ["V-3"]))).toEqual([]);
  });
  test("of a relief valve that the register has as a device, shut until it lifts", () => {
    const plant = new SmallPlant()
      .source("H", "fluid")
      .item("D-1", "vessel")
      .item("RV", "relief valve", {
        service: "relief",
        protects: ["D-1"],
        device: { stops: ["fluid"], credit: false, effort: 5, stands: "stopping" },
      })
      .device("V-2", "fluid")
      .item("FL", "flare")
      .line("fluid", "H", "D-1", "RV", "V-2", "FL");
    expect(said(lossesWith(plant, []))).toEqual([]);
    expect(said(lossesWith(plant, ["V-2"]))).toEqual(["unprotected | D-1 | V-2 | RV"]);
  });
  test("is not missed by what is dark and drained", () => {
    expect(said(lossesWith(relieved(["D-1"]), ["V-2"], { safe: ["D-1"] }))).toEqual([]);
  });
  test("by cooling is lost when it is cut, or no longer fed", () => {
    const cooled = () =>
      new SmallPlant()
        .source("CW", "fluid")
        .device("V-1", "fluid")
        .item("CH", "header", { service: "cooling", protects: ["R-1"] })
        .device("V-2", "fluid")
        .item("R-1", "vessel")
        .line("fluid", "CW", "V-1", "CH", "V-2", "R-1");
    expect(said(lossesWith(cooled(), ["V-2"]))).toContain("unprotected | R-1 | V-2 | CH");
    expect(said(lossesWith(cooled(), ["V-1"]))).toContain("unprotected | R-1 | V-1 | CH");
    expect(said(lossesWith(cooled(), []))).toEqual([]);
  });
  test("of which nobody says what it covers is named and not judged", () => {
    const plant = new SmallPlant().source("CW", "fluid").item("CH", "header", { service: "cooling" });
    plant.line("fluid", "CW", "CH");
    expect(lossesWith(plant, []).protectsUnknown).toEqual(["CH"]);
  });
});

describe("liquid shut in", () => {
  const section = (phase: "liquid" | "gas" = "liquid") =>
    new SmallPlant()
      .source("H", "fluid", { fluid: "x", phase, hazards: [] })
      .device("V-1", "fluid")
      .item("L-1", "pipe")
      .device("V-2", "fluid")
      .item("T-2", "tank")
      .line("fluid", "H", "V-1", "L-1", "V-2", "T-2");

  test("between two shut devices is said, with the places", () => {
    expect(said(lossesWith(section(), ["V-1", "V-2"]))).toEqual(["locked in | L-1 | V-1 V-2 | L-1"]);
  });
  test("is not said of gas, with one end open, with a bleed that is opened, a relief, or a gas space", () => {
    expect(said(lossesWith(section("gas"), ["V-1", "V-2"]))).toEqual([]);
    expect(said(lossesWith(section(), ["V-1"]))).toEqual([]);
    expect(said(lossesWith(section().bleed("BL", "L-1"), ["V-1", "V-2"], { bleeds: ["BL"] }))).toEqual([]);
    expect(said(lossesWith(section().bleed("BL", "L-1"), ["V-1", "V-2"]))).toEqual([
      "locked in | L-1 | V-1 V-2 | BL L-1",
    ]);
    const eased = section().item("RV", "relief valve").line("fluid", "L-1", "RV");
    expect(said(lossesWith(eased, ["V-1", "V-2"]))).toEqual([]);
    const stub = new SmallPlant()
      .source("H", "fluid")
      .device("V-1", "fluid")
      .item("L-1", "pipe")
      .line("fluid", "H", "V-1", "L-1");
    expect(said(lossesWith(stub, ["V-1"]))).toEqual([]);
    const drum = section().item("D", "vessel").line("fluid", "L-1", "D");
    expect(said(lossesWith(drum, ["V-1", "V-2"]))).toEqual([]);
  });
  test("is not said of what stood shut in before", () => {
    const plant = new SmallPlant()
      .source("H", "fluid")
      .device("V-1", "fluid", { stands: "stopping" })
      .item("L-1", "pipe")
      .device("V-2", "fluid", { stands: "stopping" })
      .item("T-2", "tank")
      .line("fluid", "H", "V-1", "L-1", "V-2", "T-2");
    expect(said(lossesWith(plant, ["V-1", "V-2"]))).toEqual([]);
  });
});

test("on the demo, work in the effluent sump backs up the drain gully that empties into it", () => {
  const graph = demoGraph();
  const made = plan(graph, { ...demoJob("pump"), faces: [{ place: "SU-280", how: ["open"] }] });
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  expect(made.value.points.map(({ device }) => device)).toContain("V-2801");
  const row = made.value.alsoStops.find(({ kind }) => kind === "backs up");
  expect([row?.tag, row?.by]).toEqual(["DR-204", ["V-2801"]]);
});
