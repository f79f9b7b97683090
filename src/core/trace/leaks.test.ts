import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { SmallPlant } from "../../../tests/support/smallPlant";
import { leaksTo } from "./leaks";
import { placeName } from "./stateGraph";
import { trace } from "./trace";
import { workFaces } from "./workFaces";

const N = 8;
type Link = readonly [from: number, to: number, oneWay: boolean];
const shape = fc.record({
  links: fc.array(fc.tuple(fc.nat(N - 1), fc.nat(N - 1), fc.boolean()), { minLength: 4, maxLength: 12 }),
  sources: fc.uniqueArray(fc.nat(N - 1), { minLength: 1, maxLength: 3 }),
  wall: fc.tuple(fc.nat(N - 1), fc.nat(N - 1)).filter(([a, b]) => a !== b),
});

function plantOf(links: readonly Link[], sources: readonly number[], wall: Link | null, isWall: boolean): SmallPlant {
  const plant = new SmallPlant();
  for (let i = 0; i < N; i++) {
    if (sources.includes(i)) plant.source(`X-${i}`, "fluid");
    else plant.item(`X-${i}`, "vessel");
  }
  for (const [a, b, oneWay] of links)
    if (a !== b) plant.link(`X-${a}`, `X-${b}`, "fluid", oneWay ? { oneWay: true } : {});
  if (wall) plant.link(`X-${wall[0]}`, `X-${wall[1]}`, "fluid", isWall ? { wall: true } : {});
  return plant;
}

const FACE = [{ place: "X-0", how: ["open" as const] }];
function reaching(plant: SmallPlant): string[] {
  const found = trace(plant.graph, plant.job(FACE));
  if (!found.ok) throw new Error("no face");
  return [...new Set(found.value.sources.filter(({ arrives }) => arrives === "fluid").map(({ source }) => source))];
}

test("a wall brings what a line in its place would bring, and nothing else", () => {
  let met = 0;
  fc.assert(
    fc.property(shape, ({ links, sources, wall: [a, b] }) => {
      const walled = plantOf(links, sources, [a, b, false], true);
      const faces = workFaces(walled.graph, walled.job(FACE), "job");
      if (!faces.ok) throw new Error("no face");
      const leaks = leaksTo(walled.graph, faces.value).map(({ source }) => placeName(walled.graph, source.vertex));
      const [without, joined] = [
        reaching(plantOf(links, sources, null, false)),
        reaching(plantOf(links, sources, [a, b, false], false)),
      ];
      // The wall itself is no way.
      expect(reaching(walled)).toEqual(without);
      for (const source of joined) if (!without.includes(source)) expect(leaks).toContain(source);
      for (const source of leaks) expect(joined).toContain(source);
      met += leaks.length;
    }),
    propertyRuns(150),
  );
  expect(met).toBeGreaterThan(0);
});

test("what crosses is the fluid, not a push that a pump makes of a shaft", () => {
  const plant = new SmallPlant()
    .source("M", "shaft")
    .item("PU", "pump")
    .item("A", "vessel")
    .item("B", "vessel")
    .line("shaft", "M", "PU")
    .line("fluid", "PU", "A")
    .link("A", "B", "fluid", { wall: true });
  const faces = workFaces(plant.graph, plant.job([{ place: "B", how: ["open"] }]), "job");
  if (!faces.ok) throw new Error("no face");
  expect(leaksTo(plant.graph, faces.value)).toEqual([]);
});
