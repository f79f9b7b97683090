import { SmallPlant } from "../../../tests/support/smallPlant";
import { workFaces } from "../trace/workFaces";
import { MINUTES_A_LOCK, priceOf } from "./costs";
import { MINUTES_A_CONSUMER } from "../losses/outage";
import { barrierField } from "../barrier/pairs";

/** S – A – B – P, with a consumer that hangs between A and B. */
const plant = new SmallPlant()
  .source("S", "fluid")
  .device("A", "fluid", { effort: 10 })
  .item("TEE", "tee")
  .device("B", "fluid", { effort: 10 })
  .item("P", "vessel")
  .item("C", "vessel", { needs: ["fluid"] })
  .line("fluid", "S", "A", "TEE", "B", "P")
  .line("fluid", "TEE", "C");
const { graph } = plant;
const faces = workFaces(graph, plant.job([{ place: "P" }]), "job");
if (!faces.ok) throw new Error("no face");
const field = barrierField(graph, faces.value);
const price = (objective: Parameters<typeof priceOf>[1], school: "work" | "supply" = "work") => {
  const of = priceOf(field, objective, school, new Set());
  return [of(graph.itemByTag.get("A")!), of(graph.itemByTag.get("B")!)];
};

describe("the price of a device", () => {
  test("under effort is its effort in hundredths of a minute", () => {
    expect(price("effort")).toEqual([1000, 1000]);
  });
  test("quickest adds the handling of a lock", () => {
    expect(price("quickest")).toEqual([1000 + MINUTES_A_LOCK * 100, 1000 + MINUTES_A_LOCK * 100]);
  });
  test("balanced grows a tenth with each link from the work, or from the source, and with who depends on it", () => {
    // A is 3 links from P and 1 from S; B is 1 from P and 3 from S. C depends on A.
    const consumer = MINUTES_A_CONSUMER * 100;
    expect(price("balanced", "work")).toEqual([1300 + consumer, 1100]);
    expect(price("balanced", "supply")).toEqual([1100 + consumer, 1300]);
  });
  test("least outage puts one consumer before any effort, fewest locks one lock", () => {
    const [a, b] = price("least outage") as [number, number];
    expect(b).toBe(1000);
    expect(a - b).toBeGreaterThan(100 * 1000);
    const [one] = price("fewest locks") as [number];
    expect(2 * one - one).toBeGreaterThan(100 * 1000);
  });
  test("is a whole number always, for the flow counts exactly", () => {
    for (const objective of ["effort", "balanced", "fewest locks", "least outage", "quickest"] as const) {
      for (const value of price(objective)) expect(Number.isSafeInteger(value)).toBe(true);
    }
  });
});
