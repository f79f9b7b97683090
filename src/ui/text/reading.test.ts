import { readingUnit } from "./reading";

test("a reading in psig, °F or inches is kept as bar, °C or millimetres; volts stay volts", () => {
  const psi = readingUnit("bar", "us");
  expect(psi.symbol).toBe("psig");
  expect(psi.toLimit(1)).toBeCloseTo(0.0689476, 6);
  expect(psi.fromLimit(0.05)).toBeCloseTo(0.7252, 4);
  expect(readingUnit("°C", "us").toLimit(109.4)).toBeCloseTo(43, 9);
  expect(readingUnit("mm moved", "us")).toMatchObject({ symbol: "in moved" });
  expect(readingUnit("mm moved", "us").toLimit(1)).toBeCloseTo(25.4, 9);
  expect(readingUnit("V", "us").toLimit(5)).toBe(5);
  expect(readingUnit("bar", "metric").toLimit(0.05)).toBe(0.05);
});
