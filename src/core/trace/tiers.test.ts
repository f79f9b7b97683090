import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { seededRandom } from "../../../tests/support/seededRandom";
import { SmallPlant } from "../../../tests/support/smallPlant";
import type { PlantInput } from "../plant/plantSchema";
import { readPlantValue } from "../plant/readPlantJson";
import { readJobValue } from "../request/jobFile";
import { ARC, buildStateGraph, carrierOf, placeOf, type StateGraph } from "./stateGraph";
import { ownDriveOf, tiersTo } from "./tiers";
import { trace } from "./trace";
import { faceVertices, workFaces } from "./workFaces";

/** Two pumps on one board, with an interlock from one starter to the other and a tank that feeds both. */
const pumps = () =>
  new SmallPlant()
    .source("INC", "power")
    .item("MCC", "busbar")
    .line("power", "INC", "MCC")
    .source("TANK", "fluid", { fluid: "oil", hazards: [] })
    .device("VA", "fluid")
    .device("VB", "fluid")
    .device("QA", "power", { kind: "isolator" })
    .device("QB", "power", { kind: "isolator" })
    .item("KA", "starter")
    .item("KB", "starter")
    .item("MA", "motor")
    .item("MB", "motor")
    .item("PA", "pump")
    .item("PB", "pump")
    .item("HDR", "header")
    .line("power", "MCC", "QA", "KA", "MA")
    .line("power", "MCC", "QB", "KB", "MB")
    .line("shaft", "MA", "PA")
    .line("shaft", "MB", "PB")
    .line("fluid", "TANK", "VA", "PA", "HDR")
    .line("fluid", "TANK", "VB", "PB", "HDR")
    .line("control", "KB", "KA")
    .line("control", "KA", "MA");

const rowsOf = (plant: SmallPlant, place: string) => {
  const read = trace(plant.graph, plant.job([{ place, how: ["touch"] }]));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value.sources;
};
const tierOf = (plant: SmallPlant, face: string, source: string, arrives: string) =>
  rowsOf(plant, face).find((row) => row.source === source && row.arrives === arrives)?.tier;

describe("what matters first", () => {
  test("a pump's own drive and its own liquid", () => {
    expect(tierOf(pumps(), "PA", "INC", "shaft")).toBe(1);
    expect(tierOf(pumps(), "PA", "TANK", "fluid")).toBe(1);
    expect(tierOf(pumps(), "MA", "INC", "power")).toBe(1);
    // Its own starter's control supply is its own drive's.
    expect(tierOf(pumps(), "MA", "INC", "control")).toBe(1);
  });
  test("an interlock from a neighbour's starter comes second", () => {
    const plant = new SmallPlant()
      .source("INC", "power")
      .item("MCC", "busbar")
      .item("KB", "starter")
      .item("MB", "motor")
      .item("KA", "junction")
      .line("power", "INC", "MCC", "KB", "MB")
      .line("control", "KB", "KA");
    expect(tierOf(plant, "KA", "INC", "control")).toBe(2);
  });
  test("a sister pump that is turned, and generates back over the board, comes last", () => {
    const plant = pumps().source("OTHER", "fluid").line("fluid", "OTHER", "PB");
    // Through PB, MB, KB, QB and the board to MA; from OTHER only that way to the motor, but the header joins the pumps.
    const apart = new SmallPlant()
      .source("INC", "power")
      .item("MCC", "busbar")
      .item("MA", "motor")
      .item("MB", "motor")
      .item("PB", "pump")
      .source("OTHER", "fluid")
      .line("power", "INC", "MCC", "MA")
      .line("power", "MCC", "MB")
      .line("shaft", "MB", "PB")
      .line("fluid", "OTHER", "PB");
    expect(tierOf(apart, "MA", "OTHER", "power")).toBe(3);
    expect(tierOf(apart, "MA", "INC", "power")).toBe(1);
    expect(rowsOf(plant, "MA").filter(({ tier }) => tier === 3).length).toBe(0);
  });
  test("one conversion back over a shared board counts as two", () => {
    const plant = new SmallPlant()
      .source("INC", "power")
      .item("MCC", "busbar")
      .item("MA", "motor")
      .item("MB", "motor")
      .source("WIND", "shaft")
      .line("power", "INC", "MCC", "MA")
      .line("power", "MCC", "MB")
      .line("shaft", "WIND", "MB");
    expect(tierOf(plant, "MA", "WIND", "power")).toBe(3);
    // Straight on it is one conversion.
    const straight = new SmallPlant()
      .item("MA", "junction")
      .item("MB", "motor")
      .source("WIND", "shaft")
      .item("LAMP", "junction")
      .line("shaft", "WIND", "MB")
      .line("power", "MB", "MA")
      .line("power", "MB", "LAMP");
    expect(tierOf(straight, "MA", "WIND", "power")).toBe(2);
  });
  test("a table's hydraulics are its own drive, down to the board that others hang on", () => {
    const plant = new SmallPlant()
      .source("INC", "power")
      .item("MCC", "busbar")
      .item("M", "motor")
      .item("HP", "pump")
      .device("V", "hydraulic")
      .item("CY", "cylinder")
      .item("TABLE", "tilting table")
      .item("OTHER", "motor")
      .line("power", "INC", "MCC", "M")
      .line("power", "MCC", "OTHER")
      .line("shaft", "M", "HP")
      .line("hydraulic", "HP", "V", "CY")
      .line("shaft", "CY", "TABLE");
    expect(tierOf(plant, "TABLE", "INC", "shaft")).toBe(1);
    const shared = plant.item("CY2", "cylinder").line("hydraulic", "HP", "CY2");
    expect(tierOf(shared, "TABLE", "INC", "shaft")).toBe(3);
  });
  test("medium is said only of what arrives as it was supplied", () => {
    const rows = rowsOf(pumps(), "PA").filter(({ source }) => source === "TANK");
    expect([...new Map(rows.map(({ arrives, brings }) => [arrives, brings]))]).toEqual([
      ["fluid", "oil"],
      ["shaft", null],
    ]);
  });
  test("the last lock is the device nearest the work that every way crosses, and only such", () => {
    const lockOf = (plant: SmallPlant, source: string, arrives: string) =>
      rowsOf(plant, "MA").find((row) => row.source === source && row.arrives === arrives)?.lastLock;
    const feeders = (two: boolean) => {
      const plant = new SmallPlant()
        .source("INC", "power")
        .device("Q0", "power")
        .item("BUS", "busbar")
        .device("Q1", "power")
        .device("Q2", "power")
        .item("MA", "motor")
        .line("power", "INC", "Q0", "BUS", "Q1", "MA");
      return two ? plant.line("power", "BUS", "Q2", "MA") : plant;
    };
    expect(lockOf(feeders(false), "INC", "power")).toBe("Q1");
    // Two parallel feeders: neither of them alone stops it.
    expect(lockOf(feeders(true), "INC", "power")).toBe("Q0");
  });
});

/** The least tier by every way that meets no state of (place, carrier) twice, as the definition counts it. */
function byWalks(graph: StateGraph, source: number, targets: readonly number[], own: ReadonlySet<number>): number {
  const itemOf = (vertex: number) => graph.places.itemOf[placeOf(graph, vertex)]!;
  let best = Infinity;
  const walk = (way: readonly number[], arcs: readonly number[]) => {
    const here = way.at(-1)!;
    if (targets.includes(here)) {
      best = Math.min(best, countOf(way, arcs));
      return;
    }
    for (let arc = graph.out.first[here]!; arc < graph.out.first[here + 1]!; arc++) {
      const next = graph.out.other[arc]!;
      if (!way.includes(next)) walk([...way, next], [...arcs, arc]);
    }
  };
  walk([source], []);
  return best === 0 ? 1 : best === 1 ? 2 : 3;

  function countOf(way: readonly number[], arcs: readonly number[]): number {
    let count = 0;
    arcs.forEach((arc, step) => {
      const end = way[step + 1]!;
      if (graph.out.link[arc]! >= 0 || own.has(itemOf(end))) return;
      const isCurrent = ["power", "control"].includes(carrierOf(graph, end));
      const runsBack = arcs.some(
        (later, at) =>
          at > step &&
          at < arcs.length - 1 &&
          graph.out.link[later]! >= 0 &&
          graph.out.type[later] === ARC.againstFlow &&
          consumers(way[at + 1]!, way[at]!),
      );
      count += isCurrent && runsBack ? 2 : 1;
    });
    return count;
  }
  function consumers(vertex: number, besides: number): boolean {
    for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) {
      const isNormal = graph.out.link[arc]! >= 0 && graph.out.type[arc] === ARC.plain;
      if (isNormal && placeOf(graph, graph.out.other[arc]!) !== placeOf(graph, besides)) return true;
    }
    return false;
  }
}

test("the tier is the best over all ways, on random plants", () => {
  const { numRuns, seed } = propertyRuns(1000);
  const random = seededRandom(seed);
  const met = [0, 0, 0, 0];
  for (let run = 0; run < numRuns; run++) {
    const items: PlantInput["items"] = [
      { tag: "INC", kind: "incomer", source: [{ carrier: "power" }] },
      { tag: "TANK", kind: "tank", source: [{ carrier: "fluid" }] },
      { tag: "BUS", kind: "busbar" },
    ];
    const links: PlantInput["links"] = [{ from: "INC", to: "BUS", carries: "power" }];
    type Carries = PlantInput["links"][number]["carries"];
    const line = (from: string, to: string, carries: Carries) =>
      links.push({ from, to, carries, ...(random.chance(0.15) && { normal: "none" as const }) });
    // Two or three drives on one board, some with a starter, most with a machine behind; then lines at random.
    for (let train = 0; train < 2 + random.below(2); train++) {
      const [starter, motor, machine] = [`K${train}`, `M${train}`, `P${train}`];
      if (random.chance(0.4)) {
        items.push({ tag: starter, kind: "starter" });
        line("BUS", starter, "power");
      }
      items.push({ tag: motor, kind: "motor" });
      line(items.at(-2)!.tag === starter ? starter : "BUS", motor, "power");
      items.push({ tag: machine, kind: random.pick(["pump", "jacket", "junction"]) });
      line(motor, machine, "shaft");
      if (random.chance(0.6)) line("TANK", machine, "fluid");
    }
    if (random.chance(0.5)) {
      items.push({ tag: "WIND", kind: "spring", source: [{ carrier: "shaft" }] });
      line("WIND", "M1", "shaft");
    }
    if (random.chance(0.5)) {
      items.push({ tag: "J", kind: "jacket" });
      line("TANK", "J", "fluid");
      line("J", "P0", "heat");
    }
    if (random.chance(0.5)) {
      items.push({ tag: "KX", kind: "starter" });
      line("BUS", "KX", "power");
      line("KX", "M0", "control");
    }
    for (let more = random.below(4); more > 0; more--) {
      const [a, b] = [random.pick(items).tag, random.pick(items).tag];
      if (a !== b) line(a, b, random.pick(["power", "fluid", "shaft", "control", "heat"] as const));
    }
    const face = random.pick(items.slice(3)).tag;
    const plant = readPlantValue({ format: "heavy-lantern/plant", version: 1, items, links }, "plant.json");
    const job = readJobValue({ format: "heavy-lantern/job", version: 1, faces: [{ place: face }] }, "job.json");
    if (!plant.ok || !job.ok) throw new Error(JSON.stringify([plant, job]));
    const graph = buildStateGraph(plant.value);
    const read = trace(graph, job.value);
    const faces = workFaces(graph, job.value, "job.json");
    if (!read.ok || !faces.ok) throw new Error("not read");
    const own = ownDriveOf(graph, faces.value[0]!);
    for (const [arrives, targets] of faceVertices(graph, faces.value[0]!)) {
      const tiers = tiersTo(graph, targets, own);
      for (const row of read.value.sources.filter((one) => one.arrives === arrives)) {
        const place = graph.places.resolveOne(row.source);
        if (!place.ok) throw new Error(row.source);
        const vertex = [...Array(graph.vertexCount).keys()].find(
          (one) => placeOf(graph, one) === place.place && carrierOf(graph, one) === row.carrier,
        )!;
        const wanted = byWalks(graph, vertex, targets, own);
        // Walks that meet a state twice are never better.
        expect([row.source, arrives, row.tier, items, links]).toEqual([row.source, arrives, wanted, items, links]);
        met[row.tier]!++;
        const way = tiers.wayOf(vertex);
        expect([way[0], targets.includes(way.at(-1)!)]).toEqual([vertex, true]);
      }
    }
  }
  for (const tier of [1, 2, 3]) expect(met[tier]).toBeGreaterThan(metAtLeast(50));
});
