import { HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";
import { profileOf } from "../requirement/profiles";
import { workFaces } from "../trace/workFaces";
import { barrierField } from "./pairs";
import { requirePairs } from "./requirePairs";

/** In what forms each source arrives at the face, as it is asked about. */
function arrivals(plant: SmallPlant, place: string): string[] {
  const { graph } = plant;
  const job = plant.job([{ place, how: ["touch", "open"] }]);
  const faces = workFaces(graph, job, "job");
  if (!faces.ok) throw new Error("no face");
  const pairs = requirePairs(barrierField(graph, faces.value), job, profileOf("strict"));
  return [...new Set(pairs.flatMap(({ demands }) => demands.map(({ arrives }) => arrives)))].sort();
}

describe("in what forms an energy is asked about", () => {
  test("a cylinder on oil is not asked about air that no line brings, nor is one on air about oil", () => {
    const fed = (carrier: "hydraulic" | "pneumatic") =>
      new SmallPlant()
        .source("H", carrier, HARMLESS)
        .device("V", carrier)
        .item("C", "cylinder")
        .line(carrier, "H", "V", "C");
    expect(arrivals(fed("hydraulic"), "C")).toEqual(["gravity", "hydraulic", "shaft"]);
    expect(arrivals(fed("pneumatic"), "C")).toEqual(["gravity", "pneumatic", "shaft"]);
  });

  test("where both lines end at it, both are asked about", () => {
    const plant = new SmallPlant()
      .source("H", "hydraulic", HARMLESS)
      .source("A", "pneumatic", HARMLESS)
      .device("V", "hydraulic")
      .device("W", "pneumatic")
      .item("C", "cylinder")
      .line("hydraulic", "H", "V", "C")
      .line("pneumatic", "A", "W", "C");
    expect(arrivals(plant, "C")).toEqual(["gravity", "hydraulic", "pneumatic", "shaft"]);
  });
});
