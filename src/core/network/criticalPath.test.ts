import { BadPrecedence, criticalPath } from "./criticalPath";

const step = (id: string, duration_s: number, ...after: string[]) => ({ id, duration_s, after });

describe("the critical path", () => {
  test("worked by hand: two chains meet, the short one has slack", () => {
    const path = criticalPath([step("a", 10), step("b", 20, "a"), step("c", 5, "a"), step("d", 10, "b", "c")]);
    expect(path.length_s).toBe(40);
    expect(path.steps.map(({ early_s, late_s, slack_s }) => [early_s, late_s, slack_s])).toEqual([
      [0, 0, 0],
      [10, 10, 0],
      [10, 25, 15],
      [30, 30, 0],
    ]);
    expect(path.chain).toEqual(["a", "b", "d"]);
  });
  test("no steps take no time; a step may take none", () => {
    expect(criticalPath([])).toEqual({ length_s: 0, steps: [], chain: [] });
    expect(criticalPath([step("a", 0), step("b", 0, "a")]).length_s).toBe(0);
  });
  test("an unknown step, a step named twice and a circle are named", () => {
    expect(() => criticalPath([step("a", 1, "x")])).toThrow(
      new BadPrecedence("a", "waits for x, which is not among the steps"),
    );
    expect(() => criticalPath([step("a", 1), step("a", 2)])).toThrow("step a is there twice");
    expect(() => criticalPath([step("z", 1, "c"), step("a", 1, "c"), step("b", 1, "a"), step("c", 1, "b")])).toThrow(
      /step [abc] waits for itself/,
    );
  });
});
