import { demoGraph, demoJob } from "../../../tests/support/demoPlant";
import { HARMFUL, SmallPlant, tagsOf } from "../../../tests/support/smallPlant";
import { suspectSentence } from "../words/en/suspects";
import { plan as makePlan } from "./plan";
import { suspects } from "./suspects";

describe("where it may come from", () => {
  const plan = new SmallPlant()
    .source("S", "fluid", HARMFUL)
    .device("V-1", "fluid")
    .device("V-2", "fluid")
    .item("A", "vessel")
    .line("fluid", "S", "V-1", "V-2", "A")
    .source("W", "fluid", HARMFUL)
    .device("V-3", "fluid")
    .line("fluid", "W", "V-3", "A")
    .bleed("BL", "A")
    .plan([{ place: "A", how: ["open"] }]);

  test("is ranked: one device alone, then paths by their barriers, then what nobody wrote down", () => {
    const found = suspects(plan, "A", "fluid");
    expect(found[0]).toEqual({ code: "alone", device: "V-3" });
    expect(found.flatMap((one) => (one.code === "path" ? [[one.source, one.depth]] : []))).toEqual([["S", 2]]);
    expect(found.slice(-2)).toEqual([{ code: "bleeds", bleeds: ["BL"] }, { code: "not in the register" }]);
  });
  test("what the plan leaves open stands first", () => {
    const open = new SmallPlant()
      .source("N", "fluid", HARMFUL)
      .item("A", "vessel")
      .line("fluid", "N", "A")
      .plan([{ place: "A", how: ["open"] }]);
    expect(suspects(open, "A", "fluid")[0]).toEqual({
      code: "path",
      source: "N",
      carrier: "fluid",
      depth: 0,
      points: [],
    });
  });
  test("names what can come to that place as that, and always what the register does not have", () => {
    expect(suspects(plan, "B", "fluid").filter(({ code }) => code === "alone" || code === "path")).toEqual([]);
    expect(suspects(plan, "A", "power").some(({ code }) => code === "path")).toBe(false);
    expect(suspects(plan, null, null).length).toBeGreaterThan(3);
  });
  test("what is stored with nothing between stands before what is stored beyond a point", () => {
    const stored = (form: "capacitor") => ({
      source: [{ carrier: "power" as const, feeding: false, stored: { form, capacitance_F: 0.01, voltage_V: 400 } }],
    });
    const made = new SmallPlant()
      .source("S", "power")
      .item("C-near", "capacitor", stored("capacitor"))
      .item("C-far", "capacitor", stored("capacitor"))
      .device("Q-1", "power", { kind: "isolator" })
      .item("M", "motor")
      .line("power", "S", "C-far", "Q-1", "M")
      .line("power", "C-near", "M")
      .plan([{ place: "M", how: ["touch"] }]);
    expect(tagsOf(made)).toEqual(["Q-1"]);
    const found = suspects(made, "M", "power");
    expect(found).toContainEqual({ code: "stored", sources: ["C-near"] });
    expect(found).toContainEqual({ code: "stored beyond", sources: ["C-far"], points: ["Q-1"] });
    const at = (code: string) => found.findIndex((one) => one.code === code);
    expect(at("stored")).toBeLessThan(at("alone"));
    expect(at("alone")).toBeLessThan(at("stored beyond"));
  });
  test("in the demo a cylinder that is not dead is told the table that hangs on it, not an agitator far off", () => {
    const job = { ...demoJob("tipper"), faces: [{ place: "CY-260", how: ["open" as const] }] };
    const made = makePlan(demoGraph(), job);
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    const found = suspects(made.value, "CY-260", null);
    expect(found.find(({ code }) => code === "stored")).toEqual({ code: "stored", sources: ["TT-260"] });
    expect(found.find(({ code }) => code === "stored beyond")).toMatchObject({ points: ["V-2601"] });
  });
  test("each is a sentence", () => {
    for (const one of [
      ...suspects(plan, null, null),
      { code: "stored", sources: ["AC-1", "AC-2"] } as const,
      { code: "stored beyond", sources: ["AC-3"], points: ["V-1"] } as const,
    ]) {
      expect(suspectSentence(one)).toMatch(/^[A-Z].*\.$/);
    }
  });
});
