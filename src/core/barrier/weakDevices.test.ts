import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { SmallPlant } from "../../../tests/support/smallPlant";
import { weakDevices } from "./weakDevices";

const CONTENTS = { fluid: "brine", temperature_C: 20, hazards: [] };
const weak = (plant: SmallPlant) => {
  const { graph } = plant;
  return Object.fromEntries([...weakDevices(graph)].map(([item, one]) => [graph.plant.items[item]!.tag, one]));
};

test("against what may come from anywhere, one way only where the line is one way", () => {
  const plant = new SmallPlant()
    .source("LOW", "fluid", { ...CONTENTS, pressure_Pa: 5e5 })
    .device("V-1", "fluid", { flangeClass: "PN 10" })
    .device("V-2", "fluid", { flangeClass: "PN 10" })
    .source("HIGH", "fluid", { ...CONTENTS, pressure_Pa: 30e5 })
    .line("fluid", "LOW", "V-1")
    .link("V-1", "V-2", "fluid", { oneWay: true })
    .line("fluid", "V-2", "HIGH");
  expect(weak(plant)).toEqual({
    "V-2": { flangeClass: "PN 10", rated_Pa: 10e5, pressure_Pa: 30e5, from: "HIGH" },
  });
});

test("pressure that nobody wrote down, and classes that nobody knows, are asked about elsewhere", () => {
  const plant = new SmallPlant()
    .source("S", "fluid", { ...CONTENTS, pressure_Pa: undefined })
    .device("V-1", "fluid", { flangeClass: "PN 10" })
    .source("T", "fluid", { ...CONTENTS, pressure_Pa: 99e5 })
    .device("V-2", "fluid", { flangeClass: "as the line" })
    .line("fluid", "S", "V-1")
    .line("fluid", "T", "V-2");
  expect(weak(plant)).toEqual({});
});

test("of a device that stops more than what flows, by what flows; of one that stops nothing that flows, never", () => {
  const plant = new SmallPlant()
    .source("S", "fluid", { ...CONTENTS, pressure_Pa: 30e5 })
    .item("V-1", "valve", {
      device: { stops: ["fluid", "heat"], credit: true, effort: 5, flangeClass: "PN 16" },
    })
    .item("Q-1", "isolator", { device: { stops: ["power"], credit: true, effort: 5, flangeClass: "PN 6" } })
    .line("fluid", "S", "V-1", "Q-1");
  expect(Object.keys(weak(plant))).toEqual(["V-1"]);
});

test("a source of another energy brings no pressure, whatever it holds", () => {
  const plant = new SmallPlant()
    .item("M", "motor", { source: [{ carrier: "power" }], contents: { ...CONTENTS, pressure_Pa: 99e5 } })
    .item("X", "vessel", { source: [{ carrier: "heat" }], contents: { ...CONTENTS, pressure_Pa: 99e5 } })
    .source("S", "fluid", { ...CONTENTS, pressure_Pa: 5e5 })
    .device("V-1", "fluid", { flangeClass: "PN 10" })
    .line("fluid", "S", "V-1", "X")
    .line("power", "M", "V-1");
  expect(weak(plant)).toEqual({});
});

test("on random plants: as said again by closing the links over all pairs of places", () => {
  const N = 7;
  const shape = fc.record({
    links: fc.array(fc.tuple(fc.nat(N - 1), fc.nat(N - 1), fc.boolean()), { minLength: 3, maxLength: 14 }),
    // In bar; 0 is no source.
    sources: fc.array(fc.constantFrom(0, 0, 3, 8, 12, 30), { minLength: N, maxLength: N }),
  });
  let met = 0;
  fc.assert(
    fc.property(shape, ({ links, sources }) => {
      const plant = new SmallPlant();
      const tag = (i: number) => `X-${i}`;
      sources.forEach((bar, i) => {
        if (bar > 0) plant.source(tag(i), "fluid", { ...CONTENTS, pressure_Pa: bar * 1e5 });
        else plant.device(tag(i), "fluid", { flangeClass: "PN 10" });
      });
      const reaches = sources.map((_, i) => sources.map((__, j) => i === j));
      for (const [a, b, oneWay] of links) {
        if (a === b) continue;
        plant.link(tag(a), tag(b), "fluid", oneWay ? { oneWay: true } : {});
        reaches[a]![b] = true;
        if (!oneWay) reaches[b]![a] = true;
      }
      for (let k = 0; k < N; k++)
        for (let i = 0; i < N; i++)
          for (let j = 0; j < N; j++) if (reaches[i]![k] && reaches[k]![j]) reaches[i]![j] = true;
      const expected = sources.flatMap((bar, i) => {
        const most = Math.max(0, ...sources.filter((_, j) => reaches[j]![i]));
        return bar === 0 && most > 10 ? [[tag(i), most * 1e5]] : [];
      });
      met += expected.length;
      expect(Object.entries(weak(plant)).map(([at, { pressure_Pa }]) => [at, pressure_Pa])).toEqual(expected);
    }),
    propertyRuns(200),
  );
  expect(met).toBeGreaterThan(0);
});

test("a relief on the way lets no more pass than it is sized for, on that way only", () => {
  const plant = (limit_Pa?: number) =>
    new SmallPlant()
      .source("S", "fluid", { ...CONTENTS, pressure_Pa: 200e5 })
      .item("RV", "vessel", limit_Pa === undefined ? {} : { limit_Pa })
      .device("V-1", "fluid", { flangeClass: "PN 16" })
      .device("V-2", "fluid", { flangeClass: "PN 16" })
      .line("fluid", "S", "RV", "V-1")
      .line("fluid", "S", "V-2");
  expect(Object.keys(weak(plant()))).toEqual(["V-1", "V-2"]);
  expect(Object.keys(weak(plant(12e5)))).toEqual(["V-2"]);
  expect(weak(plant(20e5))["V-1"]).toMatchObject({ pressure_Pa: 20e5, from: "S" });
  // A second way round the relief.
  expect(Object.keys(weak(plant(12e5).line("fluid", "V-2", "V-1")))).toEqual(["V-1", "V-2"]);
});
