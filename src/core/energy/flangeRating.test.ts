import { flangeRating_Pa } from "./flangeRating";

describe("what a flange of a class bears near ambient", () => {
  test.each([
    ["PN 16", 16],
    ["PN16", 16],
    ["pn 2.5", 2.5],
    ["16", 16],
    ["100", 100],
    ["PN 160", 160],
    // Classes, and a bare number above every pressure number, are classes: 150 is not 150 bar.
    ["150", 15.9],
    ["class 150", 15.9],
    ["150#", 15.9],
    ["150 lb", 15.9],
    ["Class 300", 41.4],
    ["2500", 344.7],
  ])("%s: %d bar", (text, bar) => {
    expect(flangeRating_Pa(text)! / 1e5).toBeCloseTo(bar, 6);
  });
  test.each([
    ["", null],
    ["160", null],
    ["class 16", null],
    ["DIN", null],
    ["16 bar", null],
    [undefined, null],
  ])("%s is no class that is known", (text, expected) => {
    expect(flangeRating_Pa(text)).toBe(expected);
  });
});
