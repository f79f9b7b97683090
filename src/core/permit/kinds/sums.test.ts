import { DETAILS } from "../../../../tests/support/permits";
import { calculate } from "../../calc/calculator";
import { calculatorNamed } from "../../calc/calculators/calculators";
import { exampleOf } from "../../calc/address";
import { PROFILES } from "../../requirement/profiles";
import type { PermitDetails } from "./details";
import { sumsOf } from "./sums";

const entry = DETAILS["confined space entry"] as Extract<PermitDetails, { kind: "confined space entry" }>;
const hot = DETAILS["hot work"] as Extract<PermitDetails, { kind: "hot work" }>;
const electrical = DETAILS["electrical work"] as Extract<PermitDetails, { kind: "electrical work" }>;

const all: PermitDetails[] = [
  ...Object.values(DETAILS),
  { ...hot, works: ["welding"], height_m: 6, inEquipment: true },
  { ...electrical, live: true, sanction: true },
];

describe("the sums that a permit asks", () => {
  test.each(PROFILES.map(({ id }) => id))("are calculators, and take what the permit says: %s", (profile) => {
    for (const details of all) {
      for (const { calculator, inputs } of sumsOf(details, profile)) {
        const which = calculatorNamed(calculator)!;
        expect([calculator, which === undefined]).toEqual([calculator, false]);
        expect(Object.keys(inputs).filter((key) => !(key in which.fields))).toEqual([]);
        const done = calculate(which, { ...exampleOf(which.fields), ...inputs });
        // Nothing that the permit says is refused; what it does not say may be.
        if (!done.ok)
          expect([calculator, Object.keys(inputs)]).toEqual([calculator, expect.not.arrayContaining([done.key])]);
      }
    }
  });
  test("should the blower stand: 2 people at moderate work spoil 20 m³ to half a per cent of carbon dioxide, by hand", () => {
    const [asked] = sumsOf({ ...entry, volume_m3: 20, most: 2 }, "strict");
    const done = calculate(calculatorNamed(asked!.calculator)!, asked!.inputs);
    if (!done.ok) throw new Error(done.message);
    const least = done.calculation.results.find(({ key }) => key === done.calculation.governs)!.value!;
    // 0.45 % of 20 m³ at some 1.2 to 1.8 litres of carbon dioxide a minute each: 25 to 38 minutes.
    expect(least).toBeGreaterThan(25 * 60);
    expect(least).toBeLessThan(38 * 60);
  });
  test("what a permit itself computes is not asked again: its purge, its zone, its keep-out", () => {
    const names = all.flatMap((details) => sumsOf(details, "strict").map(({ calculator }) => calculator));
    for (const own of ["manhole-purge", "hot-work-zone", "gas-energy", "sample-wait"]) expect(names).not.toContain(own);
  });
});
