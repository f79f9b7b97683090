import { blankThickness_m } from "./blankThickness";

describe("blank thickness", () => {
  const blank = { gasket_m: 0.2191, pressure_Pa: 1e6, stress_Pa: 138e6 };

  test("219.1 mm at 1.0 MPa in plate of 138 MPa needs 8.08 mm (ASME B31.3, 304.5.3, arithmetic)", () => {
    expect(blankThickness_m(blank) * 1000).toBeCloseTo(8.08, 2);
  });
  test("without pressure only the corrosion allowance is left", () => {
    expect(blankThickness_m({ ...blank, pressure_Pa: 0, corrosion_m: 0.0015 })).toBe(0.0015);
  });
  test("nonsense is refused by name", () => {
    expect(() => blankThickness_m({ ...blank, gasket_m: 0 })).toThrow(/gasket_m must be above 0/);
    expect(() => blankThickness_m({ ...blank, pressure_Pa: Number.NaN })).toThrow(/pressure_Pa/);
  });
});
