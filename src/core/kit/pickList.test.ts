import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";
import { stepsOf } from "../procedure/sequence";
import { boltsFor } from "./boltTable";
import { pickList } from "./pickList";
import { haspsFor, carriedBy } from "../gear/hasps";

const plant = new SmallPlant()
  .source("S", "fluid", HARMFUL)
  .device("V-1", "fluid", { bore_m: 0.08 })
  .item("SP-1", "pipe")
  .device("V-2", "fluid", { bore_m: 0.2 })
  .device("SPADE", "fluid", { kind: "blind", positive: true, bore_m: 0.08, flangeClass: "150" })
  .item("T", "vessel")
  .source("NET", "power")
  .device("CB", "power", { kind: "breaker" })
  .item("M", "motor", { voltage_V: 11_000 })
  .line("fluid", "S", "V-1", "SP-1", "V-2", "SPADE", "T")
  .line("power", "NET", "CB", "M")
  .bleed("BL", "SP-1")
  .bleed("BW", "T");

function picked(faces: Parameters<SmallPlant["plan"]>[0], setup = {}) {
  const { graph } = plant;
  const plan = plant.plan(faces);
  const steps = stepsOf(plan, graph, plant.job(faces).faces);
  return new Map(pickList(plan, steps, graph, setup).map((line) => [`${line.thing} ${line.size}`.trim(), line]));
}

describe("the pick list", () => {
  test("entering: blind with gaskets and bolts by line size, covers and chains by bore, blower, gas instrument", () => {
    const lines = picked([{ place: "T", how: ["enter"] }], { people: 8 });
    expect(lines.get("blind DN 80, class 150")?.for).toEqual(["SPADE"]);
    expect(lines.get("gasket DN 80, class 150")?.count).toBe(4);
    expect(lines.get("bolt with nuts, long enough for the blind DN 80, class 150")?.count).toBe(4);
    expect(lines.get("valve cover DN 80")?.for).toEqual(["V-1"]);
    expect(lines.get("chain")?.for).toEqual(["V-2"]);
    expect(lines.has("blower with hose")).toBe(true);
    expect(lines.has("gas instrument with hose, bump-tested")).toBe(true);
    // Nobody wrote down what T holds: it may burn, and is swept out with inert gas before air is let in.
    expect(lines.get("inert gas hose and gauge")?.for).toEqual(["T"]);
  });
  test("both schools: eight locks and two hasps on the box, or eight at every point with hasps there", () => {
    const box = picked([{ place: "T", how: ["enter"] }], { people: 8 });
    expect(box.get("personal lock")?.count).toBe(8);
    expect(box.get("hasp 6 holes")).toMatchObject({ count: 2, for: ["lock box"] });
    const points = picked([{ place: "T", how: ["enter"] }], { people: 8, lockSchool: "on every point" });
    const locks = points.get("isolation lock with tag")!.for.filter((tag) => !tag.startsWith("B")).length;
    expect(points.get("personal lock")?.count).toBe(8 * locks);
    expect(points.get("hasp 6 holes")?.count).toBe(2 * locks);
  });
  test("high voltage conductors: breaker clamp, earths, tester with proving unit; not twice for two proofs", () => {
    const lines = picked([{ place: "M", how: ["touch"] }]);
    expect(lines.get("breaker clamp")?.for).toEqual(["CB"]);
    expect(lines.get("portable earth, set of three")?.for).toEqual(["M"]);
    expect(lines.get("voltage tester with proving unit")?.count).toBe(1);
  });
  test("a bleed whose size nobody wrote down is a line that says so", () => {
    expect([...picked([{ place: "T", how: ["open"] }]).keys()]).toContain("bleed hose size not in the register");
  });
});

test("bolts by ASME B16.5 (from memory): 80 mm class 150 four, 100 mm eight, 300 mm class 300 sixteen; else count them", () => {
  expect([boltsFor(0.08, "150"), boltsFor(0.1, "class 150"), boltsFor(0.3, "300"), boltsFor(0.1, "flat")]).toEqual([
    4,
    8,
    16,
    null,
  ]);
});

test("a chain of hasps carries what it must, and one fewer would not", () => {
  for (let locks = 1; locks <= 60; locks++) {
    const hasps = haspsFor(locks);
    expect(carriedBy(hasps)).toBeGreaterThanOrEqual(locks);
    if (hasps > 0) expect(carriedBy(hasps - 1)).toBeLessThan(locks);
  }
});
