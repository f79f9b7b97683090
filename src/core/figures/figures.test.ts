import fc from "fast-check";
import { countBy, devicesOf, spreadOf } from "./figures";

test("the most first, each row once for each of its keys", () => {
  expect(countBy(["b", "a", "b", "c"], (key) => key)).toEqual([
    { key: "b", n: 2 },
    { key: "a", n: 1 },
    { key: "c", n: 1 },
  ]);
  expect(countBy([["x", "y", "x"], ["y"]], (keys) => keys)).toEqual([
    { key: "y", n: 2 },
    { key: "x", n: 1 },
  ]);
  expect(countBy([], String)).toEqual([]);
});

test("the middle and the middle half, as a spreadsheet gives them", () => {
  expect(spreadOf([])).toBeNull();
  expect(spreadOf([7])).toEqual({ n: 1, quarter: 7, half: 7, threeQuarters: 7, most: 7 });
  // QUARTILE.INC of 1, 2, 4, 8.
  expect(spreadOf([8, 1, 4, 2])).toEqual({ n: 4, quarter: 1.75, half: 3, threeQuarters: 5, most: 8 });
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 40 }), (values) => {
      const { quarter, half, threeQuarters, most } = spreadOf(values)!;
      for (const [bound, share] of [
        [quarter, 0.25],
        [half, 0.5],
        [threeQuarters, 0.75],
      ] as const) {
        // So many are not above it, and so many not below.
        expect(values.filter((one) => one <= bound).length).toBeGreaterThanOrEqual(
          Math.floor(share * (values.length - 1)) + 1,
        );
        expect(values.filter((one) => one >= bound).length).toBeGreaterThanOrEqual(
          Math.floor((1 - share) * (values.length - 1)) + 1,
        );
      }
      expect(most).toBe(Math.max(...values));
    }),
  );
});

test("a deviation counts against what should have held the path, or against its source where nothing does", () => {
  const way = { source: "S", carrier: "fluid", face: "P" };
  const plan = {
    shortfalls: [way, { ...way, source: "T" }],
    points: [
      { device: "V-1", holds: [way] },
      { device: "V-2", holds: [{ ...way, face: "Q" }] },
    ],
  };
  expect(devicesOf("S fluid P", plan)).toEqual(["V-1"]);
  expect(devicesOf("T fluid P", plan)).toEqual(["T"]);
  expect(devicesOf("X fluid P", { shortfalls: [], points: [] })).toEqual(["X"]);
});
