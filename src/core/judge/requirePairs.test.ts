import { HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";
import { profileOf } from "../requirement/profiles";
import { workFaces } from "../trace/workFaces";
import { barrierField } from "../barrier/pairs";
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

describe("what is asked, and why", () => {
  const ACID = { ...HARMLESS, fluid: "acid", hazards: ["corrosive" as const] };
  const askedOn = (plant: SmallPlant, isFlange = false) => {
    const { graph } = plant;
    const job = plant.job([{ place: "P", how: ["open"] }]);
    const faces = workFaces(graph, job, "job");
    if (!faces.ok) throw new Error("no face");
    return requirePairs(barrierField(graph, faces.value), job, profileOf("strict"), isFlange);
  };
  const contentsOf = (plant: SmallPlant, isFlange = false) =>
    askedOn(plant, isFlange)[0]!.demands.find(({ scope }) => scope === "contents")!;
  const line = (between: (plant: SmallPlant) => SmallPlant, face: object = { contents: HARMLESS }) =>
    between(new SmallPlant().source("S", "fluid", HARMLESS).device("V-1", "fluid").item("P", "vessel", face));

  test("where something on the way asks more than the source, the reason says whose it is; else nobody is named", () => {
    const plain = contentsOf(line((p) => p.line("fluid", "S", "V-1", "P")));
    expect(plain.reason).not.toContain("holds");
    const through = contentsOf(
      line((p) => p.item("D", "vessel", { contents: ACID }).line("fluid", "S", "D", "V-1", "P")),
    );
    expect(through.reason).toMatch(/\(D holds acid\)$/);
    const unknown = contentsOf(line((p) => p.line("fluid", "S", "V-1", "P"), {}));
    expect(unknown.reason).toMatch(/\(P holds something that nobody wrote down\)$/);
  });

  test("a flange that is opened for a blind is no gap in the register; what it is written to hold counts", () => {
    expect(
      contentsOf(
        line((p) => p.line("fluid", "S", "V-1", "P"), {}),
        true,
      ).grade,
    ).toBe("proved single");
    expect(
      contentsOf(
        line((p) => p.line("fluid", "S", "V-1", "P"), { contents: ACID }),
        true,
      ).grade,
    ).toBe("proved double");
  });

  test("contents are asked of the lines they come by, pushes of every way, each with what stands there", () => {
    // Two valves in the line; round them a machine that S turns turns the one at the work.
    const plant = new SmallPlant()
      .source("S", "fluid", HARMLESS)
      .device("V-1", "fluid")
      .device("V-2", "fluid")
      .item("T", "pump")
      .item("P", "pump", { contents: HARMLESS })
      .line("fluid", "S", "V-1", "V-2", "P")
      .line("fluid", "S", "T")
      .line("shaft", "T", "P");
    const { demands } = askedOn(plant)[0]!;
    const available = (scope: string) =>
      demands.filter((one) => one.arrives === "fluid" && one.scope === scope).map((one) => one.available);
    expect(available("contents")).toEqual([2]);
    expect(available("energy")).toEqual([0]);
  });

  test("what arrives only by turning something brings no contents", () => {
    const plant = new SmallPlant()
      .source("NET", "power")
      .device("Q", "power", { kind: "isolator" })
      .item("M", "motor")
      .item("P", "pump", { contents: HARMLESS })
      .line("power", "NET", "Q", "M")
      .line("shaft", "M", "P")
      .item("X", "vessel")
      .line("fluid", "P", "X");
    const scopes = askedOn(plant)[0]!.demands.map(({ arrives, scope }) => `${arrives} ${scope}`);
    expect(scopes).toContain("fluid energy");
    expect(scopes.filter((one) => one.endsWith("contents"))).toEqual([]);
  });
});
