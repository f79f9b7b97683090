import { readJobValue } from "../request/jobFile";
import type { PlantInput } from "../plant/plantSchema";
import { readPlantValue } from "../plant/readPlantJson";
import { buildStateGraph } from "./stateGraph";
import { trace, type Trace } from "./trace";

type Items = PlantInput["items"];
type Links = PlantInput["links"];

function traceOf(items: Items, links: Links, faces: (string | { place: string; carriers?: string[] })[]): Trace {
  const plant = readPlantValue({ format: "heavy-lantern/plant", version: 1, items, links }, "plant.json");
  const job = readJobValue(
    {
      format: "heavy-lantern/job",
      version: 1,
      faces: faces.map((face) =>
        typeof face === "string" ? { place: face, how: ["open"] } : { how: ["open"], ...face },
      ),
    },
    "job.json",
  );
  if (!plant.ok || !job.ok) throw new Error(JSON.stringify([plant, job]));
  const read = trace(buildStateGraph(plant.value), job.value);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

const source = (tag: string, carrier: "fluid" | "power" | "control" = "fluid") => ({
  tag,
  kind: "header",
  source: [{ carrier }],
});
const valve = (tag: string) => ({ tag, kind: "valve", device: { stops: ["fluid" as const], credit: true, effort: 1 } });
const thing = (tag: string, kind = "vessel", more: object = {}) => ({ tag, kind, ...more });

describe("trace", () => {
  test("lists each source once for each carrier as it arrives, with its route", () => {
    const found = traceOf(
      [source("H"), valve("V"), thing("P", "pump")],
      [
        { from: "H", to: "V", carries: "fluid" },
        { from: "V", to: "P", carries: "fluid" },
      ],
      ["P"],
    );
    expect(found.sources.map(({ source, arrives, via, hidden }) => ({ source, arrives, via, hidden }))).toEqual([
      { source: "H", arrives: "fluid", via: ["H", "V", "P"], hidden: false },
      // Flow turns a stopped pump: the same source arrives as rotation, by a conversion.
      { source: "H", arrives: "shaft", via: ["H", "V", "P"], hidden: true },
    ]);
    expect(found.sources[0]?.devices).toEqual(["V"]);
  });

  test("of equally short routes takes the first by the code units of its place names", () => {
    const found = traceOf(
      [source("H"), thing("b"), thing("B"), thing("A2"), thing("A10"), thing("W")],
      ["b", "B", "A2", "A10"].flatMap((mid): Links => [
        { from: "H", to: mid, carries: "fluid" },
        { from: mid, to: "W", carries: "fluid" },
      ]),
      ["W"],
    );
    expect(found.sources[0]?.via).toEqual(["H", "A10", "W"]);
  });

  test("gives both the plain route and the hidden one of the same source", () => {
    // The sister pump: the tank feeds A by its suction, and by way of B backwards through A's discharge.
    const found = traceOf(
      [source("T"), thing("A", "pump"), thing("B", "pump"), thing("D", "header")],
      [
        { from: "T", to: "A", carries: "fluid" },
        { from: "T", to: "B", carries: "fluid" },
        { from: "A", to: "D", carries: "fluid" },
        { from: "B", to: "D", carries: "fluid" },
      ],
      [{ place: "A", carriers: ["fluid"] }],
    );
    expect(found.sources.map(({ via, hidden, hiddenBy }) => ({ via, hidden, hiddenBy }))).toEqual([
      { via: ["T", "A"], hidden: false, hiddenBy: [] },
      { via: ["T", "B", "D", "A"], hidden: true, hiddenBy: ["against flow"] },
    ]);
  });

  test("a neighbour's interlock is a way in of its own, and hidden", () => {
    const found = traceOf(
      [source("BUS", "power"), thing("K1", "starter"), thing("K2", "starter"), thing("X", "junction")],
      [
        { from: "BUS", to: "K1", carries: "power" },
        { from: "BUS", to: "K2", carries: "power" },
        { from: "K2", to: "X", carries: "control" },
        { from: "X", to: "K1", carries: "control" },
      ],
      ["K1"],
    );
    const interlock = found.waysIn.find((way) => way.through === "X");
    expect(interlock?.sources[0]).toMatchObject({ source: "BUS", via: ["BUS", "K2", "X", "K1"], hidden: true });
  });

  test("power from another feeder than the item's own is hidden", () => {
    const found = traceOf(
      [source("F1", "power"), source("F2", "power"), thing("M", "vessel", { feeder: "F1" })],
      [
        { from: "F1", to: "M", carries: "power" },
        { from: "F2", to: "M", carries: "power" },
      ],
      ["M"],
    );
    expect(found.sources.map(({ source, hiddenBy }) => ({ source, hiddenBy }))).toEqual([
      { source: "F1", hiddenBy: [] },
      { source: "F2", hiddenBy: ["other feeder"] },
    ]);
  });

  test("the two fluids of an exchanger do not mix; heat crosses, and the wall is told as a possible leak", () => {
    const found = traceOf(
      [source("STEAM"), source("OIL"), thing("X", "exchanger", { parts: ["shell", "tube"] })],
      [
        { from: "STEAM", to: "X.shell", carries: "fluid" },
        { from: "OIL", to: "X.tube", carries: "fluid" },
        { from: "X.shell", to: "X.tube", carries: "fluid", wall: true },
      ],
      ["X.tube"],
    );
    expect(found.sources.map(({ source, arrives }) => `${source} as ${arrives}`)).toEqual([
      "OIL as fluid",
      "STEAM as heat",
    ]);
    expect(found.findings.map(({ sentence }) => sentence)).toContain(
      "A leak through the wall at X.shell would bring fluid from STEAM to X.tube. The wall is no barrier.",
    );
  });

  test("a device converts nothing, whatever its kind", () => {
    const motorLikeBreaker = {
      tag: "Q",
      kind: "motor",
      device: { stops: ["power" as const], credit: true, effort: 1 },
    };
    const found = traceOf(
      [source("B", "power"), motorLikeBreaker, thing("W")],
      [
        { from: "B", to: "Q", carries: "power" },
        { from: "Q", to: "W", carries: "shaft" },
      ],
      ["W"],
    );
    expect(found.sources).toEqual([]);
  });

  test("no device on the way is a finding, never a silent gap", () => {
    const found = traceOf([source("H"), thing("W")], [{ from: "H", to: "W", carries: "fluid" }], ["W"]);
    expect(found.findings.map((finding) => finding.code)).toEqual(["no device", "not walked"]);
  });

  test("a bare tag of an item with parts is one face of all its parts", () => {
    const found = traceOf(
      [source("H"), thing("X", "exchanger", { parts: ["shell", "tube"] })],
      [{ from: "H", to: "X.shell", carries: "fluid" }],
      ["X"],
    );
    expect(found.sources.find((row) => row.arrives === "fluid")).toMatchObject({ face: "X", via: ["H", "X.shell"] });
  });

  test("stored energy is listed apart, with its quantity", () => {
    const found = traceOf(
      [
        source("H"),
        thing("C", "capacitor", {
          source: [
            {
              carrier: "power",
              feeding: false,
              stored: { form: "capacitor", capacitance_F: 0.0022, voltage_V: 565.7 },
            },
          ],
        }),
        thing("W"),
      ],
      [{ from: "C", to: "W", carries: "power" }],
      ["W"],
    );
    expect(found.sources).toEqual([]);
    expect(found.stored).toHaveLength(1);
    // ½ · 2.2 mF · 565.7² V² = 352.0 J, by hand
    expect(found.stored[0]?.quantity?.energy_J).toBeCloseTo(352.0, 1);
  });

  test("one-way links are obeyed and reported", () => {
    const links: Links = [{ from: "W", to: "H", carries: "fluid", oneWay: true }];
    expect(traceOf([source("H"), thing("W")], links, ["W"]).sources).toEqual([]);
    const other: Links = [{ from: "H", to: "W", carries: "fluid", oneWay: true }];
    expect(traceOf([source("H"), thing("W")], other, ["W"]).findings.map((f) => f.code)).toContain("one-way");
  });
});
