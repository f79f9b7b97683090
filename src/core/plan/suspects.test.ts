import { HARMFUL, SmallPlant } from "../../../tests/support/smallPlant";
import { suspectSentence } from "../words/en/suspects";
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
  test("each is a sentence", () => {
    for (const one of [...suspects(plan, null, null), { code: "stored", sources: ["AC-1", "AC-2"] } as const]) {
      expect(suspectSentence(one)).toMatch(/^[A-Z].*\.$/);
    }
  });
});
