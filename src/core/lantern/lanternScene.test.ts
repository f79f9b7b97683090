import { readFileSync } from "node:fs";
import { join } from "node:path";
import { generatedPlant } from "../../../tests/support/generatedPlant";
import { plan } from "../plan/plan";
import { readJobValue } from "../request/jobFile";
import { readPlantCsv } from "../plant/readPlantCsv";
import { readPlantValue } from "../plant/readPlantJson";
import { lanternLight, lanternScene, MOST_NODES, type LanternExtent } from "./lanternScene";
import { buildStateGraph } from "../trace/stateGraph";

const file = (name: string) => ({ name, text: readFileSync(join(__dirname, "../../../demo", name), "utf8") });
const read = readPlantCsv(file("items.csv"), file("links.csv"), file("areas.csv"));
if (!read.ok) throw new Error(JSON.stringify(read.problems));
const graph = buildStateGraph(read.value);
const job = readJobValue(JSON.parse(file("jobs/pump.json").text), "job");
if (!job.ok) throw new Error("bad job");
const planned = plan(graph, job.value);
if (!planned.ok) throw new Error("no plan");
const made = planned.value;
const extent = (rest: Partial<LanternExtent>): LanternExtent => ({
  whole: false,
  open: new Set(),
  shut: new Set(),
  ...rest,
});

describe("the demo plant", () => {
  test("is about 300 items in 25 areas, each on the site plan", () => {
    expect(read.value.items.length).toBeGreaterThan(290);
    expect(read.value.areas).toHaveLength(25);
    const known = new Set(read.value.areas.map((area) => area.name));
    expect(read.value.items.filter((item) => !known.has(item.area ?? ""))).toEqual([]);
  });
  test("has every trap: what stores, what comes back, what shares a cause, what is held, what cannot be disconnected", () => {
    const { items, links } = read.value;
    const forms = new Set(items.flatMap((item) => item.sources.flatMap((source) => source.stored?.form ?? [])));
    expect([...forms].sort()).toEqual([
      "accumulator",
      "capacitor",
      "flywheel",
      "hot body",
      "raised mass",
      "spring",
      "trapped pressure",
    ]);
    expect(items.some((item) => item.sources.some((source) => source.regenerating))).toBe(true);
    expect(items.filter((item) => item.device?.commonCause).length).toBeGreaterThan(1);
    expect(items.some((item) => (item.device?.heldBy.length ?? 0) > 0)).toBe(true);
    expect(items.some((item) => item.sources.some((source) => !source.disconnectable))).toBe(true);
    expect(items.some((item) => item.device?.safety)).toBe(true);
    expect(links.some((link) => link.wall)).toBe(true);
    expect(links.some((link) => link.temporary)).toBe(true);
    expect(links.some((link) => link.oneWay)).toBe(true);
  });
});

describe("the lantern's scene", () => {
  test("near the work draws every face, point and opened bleed, and ends of links that are drawn", () => {
    const scene = lanternScene(graph, made);
    const ids = new Set(scene.nodes.map((node) => node.id));
    for (const tag of ["P-204A", "M-204A", "K-207", ...made.points.map((point) => point.device), ...made.bleeds]) {
      expect(ids).toContain(tag);
    }
    for (const edge of scene.edges) expect(ids.has(edge.from) && ids.has(edge.to)).toBe(true);
    expect(scene.nodes.length).toBeLessThan(120);
  });
  test("numbers the shut-in spaces, and marks the bleeds that are opened", () => {
    const scene = lanternScene(graph, made);
    const bleed = scene.nodes.find((node) => node.id === "BL-203")!;
    expect(bleed.opened).toBe(true);
    expect(bleed.cavity).toBeGreaterThan(0);
    expect(scene.nodes.find((node) => node.id === "H-203")!.cavity).toBe(bleed.cavity);
  });
  test("the whole region stays within 300 nodes, and folds what the person folded", () => {
    const whole = lanternScene(graph, made, extent({ whole: true }));
    expect(whole.nodes.length).toBeLessThanOrEqual(MOST_NODES);
    expect(whole.nodes.length).toBeGreaterThan(200);
    const shut = lanternScene(graph, made, extent({ whole: true, shut: new Set(["Packing hall"]) }));
    expect(shut.areas.find((area) => area.name === "Packing hall")).toMatchObject({ folded: true });
    expect(shut.nodes.find((node) => node.id === "Packing hall")).toMatchObject({ role: "area" });
    expect(shut.nodes.length).toBeLessThan(whole.nodes.length);
  });
  test("a folded area glows while anything in it is live", () => {
    const scene = lanternScene(graph, made, extent({ whole: true, shut: new Set(["Packing hall", "Tank farm"]) }));
    const light = lanternLight(
      graph,
      scene,
      made.points.map((point) => point.device),
    );
    expect(light.nodes).toContain("Packing hall");
    expect(light.nodes).not.toContain("P-204A");
  });
  test("isolating more never lights anything", () => {
    const scene = lanternScene(graph, made);
    let before = new Set(lanternLight(graph, scene, []).nodes);
    made.points.forEach((_, index) => {
      const isolated = made.points.slice(0, index + 1).map((point) => point.device);
      const now = new Set(lanternLight(graph, scene, isolated).nodes);
      expect([...now].filter((id) => !before.has(id))).toEqual([]);
      before = now;
    });
    for (const face of ["P-204A", "M-204A", "K-207"]) expect(before.has(face)).toBe(false);
  });
  test("a region of five thousand items is folded to 300 nodes at most", () => {
    const { plant, job: raw } = generatedPlant(5000, 3);
    const areas = plant.items.map((item, index) => ({ ...item, area: `Rack ${Math.floor(index / 400)}` }));
    const big = readPlantValue({ ...plant, items: areas }, "plant.json");
    const bigJob = readJobValue({ ...raw, require: { fluid: 1, power: 1, control: 1 } }, "job.json");
    if (!big.ok || !bigJob.ok) throw new Error("the generator made a bad file");
    const bigGraph = buildStateGraph(big.value);
    const bigPlan = plan(bigGraph, bigJob.value);
    if (!bigPlan.ok) throw new Error("no plan");
    const scene = lanternScene(bigGraph, bigPlan.value, extent({ whole: true }));
    expect(scene.nodes.length).toBeLessThanOrEqual(MOST_NODES);
    expect(scene.nodes.reduce((sum, node) => sum + node.places.length, 0)).toBeGreaterThan(4000);
  });
  test("the generator makes the same plant from the same seed, and another from another", () => {
    expect(generatedPlant(1000, 5)).toEqual(generatedPlant(1000, 5));
    expect(generatedPlant(1000, 5)).not.toEqual(generatedPlant(1000, 6));
  });
});
