import { lossesOf } from "../../../src/core/losses/alsoStops";
import type { PlantInput } from "../../../src/core/plant/plantSchema";
import { readPlantValue } from "../../../src/core/plant/readPlantJson";
import { buildStateGraph } from "../../../src/core/trace/stateGraph";
import { metAtLeast, propertyRuns } from "../../support/runs";
import { seededRandom } from "../../support/seededRandom";
import { lossesByPaths } from "./byPaths";

type Random = ReturnType<typeof seededRandom>;
const KINDS = [
  ["pump", 5],
  ["tank", 1],
  ["vessel", 2],
  ["tee", 3],
  ["valve", 8],
  ["check valve", 2],
  ["header", 2],
  ["instrument", 1],
  ["bleed", 1],
  ["relief valve", 1],
  ["sewer", 1],
] as const;
const SOME = KINDS.flatMap(([kind, often]) => Array.from({ length: often }, () => kind));

/** A plant of one carrier, up to 9 places, joined at random; a third of its lines flow either way. */
function randomPlant(random: Random): { plant: PlantInput; isolated: string[] } {
  const items: PlantInput["items"] = [{ tag: "S", kind: "header", source: [{ carrier: "fluid" }] }];
  const count = 4 + random.below(6);
  for (let index = 0; index < count; index++) {
    const kind = SOME[random.below(SOME.length)]!;
    items.push({
      tag: `${kind.charAt(0).toUpperCase()}${index}`,
      kind,
      ...(kind === "valve" && {
        device: {
          stops: ["fluid"],
          credit: random.chance(0.9),
          effort: 1,
          stands: random.chance(0.2) ? "stopping" : "passing",
        },
      }),
      ...(kind === "bleed" && { bleed: { safe: true } }),
      ...(random.chance(0.08) && { sink: random.chance(0.5) }),
      ...(random.chance(0.3) && {
        service: (["drain", "vent", "overflow", "condensate", "purge", "relief"] as const)[random.below(6)]!,
      }),
    });
  }
  const links: PlantInput["links"] = [];
  const tags = items.map(({ tag }) => tag);
  for (let index = 1; index < tags.length; index++) links.push(lineOf(tags[random.below(index)]!, tags[index]!));
  for (let more = random.below(5); more > 0; more--) {
    const [a, b] = [tags[random.below(tags.length)]!, tags[random.below(tags.length)]!];
    if (a !== b) links.push(lineOf(a, b));
  }
  return {
    plant: { format: "heavy-lantern/plant", version: 1, items, links },
    isolated: items.filter(({ device }) => device?.credit && random.chance(0.5)).map(({ tag }) => tag),
  };

  function lineOf(a: string, b: string): PlantInput["links"][number] {
    const [from, to] = random.chance(0.7) ? [a, b] : [b, a];
    const temporary = random.chance(0.05) ? { temporary: { from: "2026-11-01", until: "2026-12-01" } } : {};
    return { from, to, carries: "fluid", ...(random.chance(0.3) && { normal: "none" as const }), ...temporary };
  }
}

test("what cannot deliver, runs dry or backs up is what every simple path says", () => {
  const { numRuns, seed } = propertyRuns(6000);
  const random = seededRandom(seed);
  const met = new Map<string, number>();
  for (let run = 0; run < numRuns; run++) {
    const { plant, isolated } = randomPlant(random);
    const read = readPlantValue(plant, "plant.json");
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const graph = buildStateGraph(read.value);
    const losses = lossesOf(graph, new Set(isolated.map((tag) => graph.itemByTag.get(tag)!)), new Set(), {
      isSafe: () => false,
      bleeds: new Set(),
      opens: new Set(),
    });
    const found = losses.alsoStops
      .filter(({ kind }) => kind !== "unprotected" && kind !== "locked in")
      .map(({ kind, tag }) => `${kind} ${tag}`)
      .sort();
    const wanted = lossesByPaths(plant, isolated);
    // The whole plant is shown with what differs.
    if (found.join() !== wanted.join()) throw new Error(JSON.stringify({ found, wanted, isolated, plant }));
    for (const row of losses.alsoStops) {
      met.set(row.kind, (met.get(row.kind) ?? 0) + 1);
      // What causes it is of the plan.
      expect(row.by.length).toBeGreaterThan(0);
      for (const tag of row.by) expect(isolated).toContain(tag);
    }
  }
  for (const kind of ["cannot deliver", "runs dry", "backs up"]) {
    expect(met.get(kind) ?? 0).toBeGreaterThan(metAtLeast(60));
  }
});
