import { meant, SHEET } from "./keys";
import { PLACES } from "./places";

test("g and a letter go to each place, and no letter to two", () => {
  expect(PLACES.map(({ key }) => meant(key, true))).toEqual(PLACES.map(({ href }) => ({ go: href })));
  expect(new Set(PLACES.map(({ key }) => key)).size).toBe(PLACES.length);
});

test("by itself a letter means nothing, g waits for another, ? opens the sheet", () => {
  expect(["p", "x", "g", "?"].map((key) => meant(key, false))).toEqual([null, null, { waits: true }, { sheet: true }]);
  expect(["x", "?", "g"].map((key) => meant(key, true))).toEqual([null, null, null]);
});

test("the sheet names every place", () => {
  expect(PLACES.every(({ key }) => SHEET.some(([keys]) => keys === `g ${key}`))).toBe(true);
});
