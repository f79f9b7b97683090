import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { storedEnergySchema, storedQuantity, wayToMakeHarmless, type StoredEnergy } from "./storedEnergy";

const energy = (stored: StoredEnergy) => storedQuantity(stored).energy_J;

/** Arithmetic from first principles; each value worked by hand. */
describe("stored energy", () => {
  test("a capacitor of 2.2 mF at 565.7 V holds ½·0.0022·565.7² = 352 J", () => {
    expect(energy({ form: "capacitor", capacitance_F: 0.0022, voltage_V: 565.7 })).toBeCloseTo(352.02, 1);
  });
  test("650 kg raised 1.8 m hold 650·9.80665·1.8 = 11.47 kJ", () => {
    expect(energy({ form: "raised mass", mass_kg: 650, height_m: 1.8 })).toBeCloseTo(11_473.8, 1);
  });
  test("a spring of 12 kN/m drawn 150 mm holds ½·12000·0.15² = 135 J", () => {
    expect(energy({ form: "spring", stiffness_N_m: 12_000, travel_m: 0.15 })).toBeCloseTo(135, 9);
  });
  test("120 kg·m² at 980 rpm hold ½·120·102.63² = 632 kJ", () => {
    expect(energy({ form: "flywheel", inertia_kg_m2: 120, speed_rpm: 980 })! / 1000).toBeCloseTo(631.9, 1);
  });
  test("4 m³ of air at 8.01 bar absolute hold 8.01e5·4/0.4·(1 − (1.01325/8.01325)^0.2857) = 3.58 MJ", () => {
    const held = energy({ form: "trapped pressure", volume_m3: 4, pressure_Pa: 801_325 })!;
    expect(held / 1e6).toBeCloseTo((8.01325 * 0.4 * (1 - (1.01325 / 8.01325) ** (0.4 / 1.4))) / 0.4, 6);
    expect(held / 1e6).toBeCloseTo(3.575, 2);
  });
  test("at or below the atmosphere a gas holds nothing to give out", () => {
    expect(energy({ form: "accumulator", volume_m3: 1, pressure_Pa: 101_325 })).toBe(0);
    expect(energy({ form: "accumulator", volume_m3: 1, pressure_Pa: 50_000 })).toBe(0);
  });
  test("what is missing is named, and there is no figure until it is known", () => {
    expect(storedQuantity({ form: "raised mass", mass_kg: 650 })).toMatchObject({
      energy_J: null,
      missing: ["height_m"],
    });
    expect(storedQuantity({ form: "capacitor" }).missing).toEqual(["capacitance_F", "voltage_V"]);
    expect(energy({ form: "hot body", temperature_C: 110 })).toBeNull();
  });
  test("more of anything never holds less", () => {
    const figure = fc.double({ min: 0.001, max: 1e6, noNaN: true });
    fc.assert(
      fc.property(figure, figure, fc.double({ min: 1, max: 10, noNaN: true }), (a, b, factor) => {
        const forms = (x: number, y: number): StoredEnergy[] => [
          { form: "capacitor", capacitance_F: x, voltage_V: y },
          { form: "raised mass", mass_kg: x, height_m: y },
          { form: "spring", stiffness_N_m: x, travel_m: y },
          { form: "flywheel", inertia_kg_m2: x, speed_rpm: y },
          { form: "accumulator", volume_m3: x, pressure_Pa: y },
        ];
        forms(a, b).forEach((stored, i) => {
          expect(energy(forms(a * factor, b)[i]!)!).toBeGreaterThanOrEqual(energy(stored)!);
          expect(energy(forms(a, b * factor)[i]!)!).toBeGreaterThanOrEqual(energy(stored)!);
        });
      }),
      propertyRuns(200),
    );
  });
  test("the register refuses zero, negative and endless figures", () => {
    for (const mass_kg of [0, -1, Infinity, Number.NaN, "650"]) {
      expect(storedEnergySchema.safeParse({ form: "raised mass", mass_kg }).success).toBe(false);
    }
    expect(storedEnergySchema.safeParse({ form: "perpetual" }).success).toBe(false);
  });
  test("every form says what to do, and the unknown is treated as live", () => {
    const forms = [
      "capacitor",
      "accumulator",
      "raised mass",
      "spring",
      "flywheel",
      "trapped pressure",
      "hot body",
    ] as const;
    const said = forms.map((form) => wayToMakeHarmless({ form }));
    expect(new Set(said).size).toBe(forms.length);
    expect(wayToMakeHarmless(undefined)).toMatch(/treat it as live/);
    expect(wayToMakeHarmless({ form: "capacitor" })).toMatch(/prove dead, then discharge, short and earth/);
  });
});
