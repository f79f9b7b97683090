import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { digits, duration, figure, reachFigure } from "./format";
import { readNumber } from "./readNumber";
import { fromSi, QUANTITIES, SYSTEMS, toSi, unitOf, type Quantity } from "./units";

const quantities = Object.keys(QUANTITIES) as Quantity[];

describe("units", () => {
  test("every quantity comes back the same through both systems", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...quantities),
        fc.constantFrom(...SYSTEMS),
        fc.double({ min: -1e9, max: 1e9, noNaN: true }),
        (quantity, system, value) => {
          const unit = unitOf(quantity, system);
          const back = fromSi(toSi(value, unit), unit);
          expect(Math.abs(back - value)).toBeLessThanOrEqual(1e-9 * Math.max(Math.abs(value), 1000));
        },
      ),
      propertyRuns(500),
    );
  });
  test.each([
    ["length", 1, 0.3048],
    ["pressure", 14.695949, 101_325],
    ["gauge", 100, 689_475.73],
    ["temperature", 212, 100],
    ["temperature", -40, -40],
    ["kelvin", 32, 273.15],
    ["flow", 1000, 0.4719474],
    ["mass", 50, 22.6796],
    ["volume", 1000, 28.316847],
    ["capacity", 55, 0.2081976],
    ["energy", 1, 1055.056],
  ] as const)("%s: %d in US units is %d in SI (definitions)", (quantity, us, si) => {
    expect(toSi(us, unitOf(quantity, "us"))).toBeCloseTo(si, si > 1000 ? 0 : 4);
  });
});

describe("figures as people read them", () => {
  test("four digits at most, no exponent below ten million, never a number that is none", () => {
    expect([0, 0.00123, 1.5, 98.0665, 632.4, 12_345.6].map(digits)).toEqual([
      "0",
      "0.00123",
      "1.5",
      "98.1",
      "632.4",
      "12346",
    ]);
    expect(digits(3.2e8)).toBe("3.20·10⁸");
    expect(digits(Number.NaN)).toBe("not a figure");
  });
  test("durations say the two units that matter, rounded up, so that nobody waits too little", () => {
    expect([0, 4.2, 117.4, 200, 3600, 11_588, 200_000].map(duration)).toEqual([
      "0 s",
      "4.2 s",
      "118 s",
      "3 min 20 s",
      "1 h",
      "3 h 14 min",
      "2 d 8 h",
    ]);
    expect(duration(Number.POSITIVE_INFINITY)).toBe("never");
  });
  test("the unit goes with the figure", () => {
    expect(figure(1e5, "gauge", "metric")).toBe("1 bar");
    expect(figure(1e5, "gauge", "us")).toBe("14.5 psig");
    expect(figure(0.21, "percent", "us")).toBe("21 %");
  });
  test("a reach is never said shorter than it is", () => {
    expect(reachFigure(10.668, "metric")).toBe("11 m");
    expect(reachFigure(10.668, "us")).toBe("35 ft");
    expect(reachFigure(30, "us")).toBe("99 ft");
  });
});

describe("what people type", () => {
  test.each([
    ["", "is empty"],
    ["1,5", "holds a comma"],
    ["1.5 bar", "is not a number"],
    ["--3", "is not a number"],
    ["1e999", "is too large"],
    ["Infinity", "is not a number"],
  ])("%j is refused: it %s", (text, why) => {
    const read = readNumber(text);
    expect(!read.ok && read.message).toContain(why);
  });
  test("a point, an exponent and a real minus are read", () => {
    expect([" 1.5 ", "-3", "−3", ".5", "2e3"].map((text) => readNumber(text))).toEqual(
      [1.5, -3, -3, 0.5, 2000].map((value) => ({ ok: true, value })),
    );
  });
});
