import { QUANTITIES, QUANTITY_NAMES } from "../units/units";
import { CALCULATORS } from "./calculators/calculators";
import { meantFor, unitMeant } from "./meant";

test("what is meant is said with an example that comes out", () => {
  expect(unitMeant("percent")).toBe("as a fraction of 1: 21 % is 0.21");
  expect(unitMeant("pressure")).toBe("in Pa, absolute: 5 bar abs is 500000");
  expect(unitMeant("bore")).toBe("in m: 25 mm is 0.025");
  expect(unitMeant("kelvin")).toBe("in K: 20 °C is 293.15");
  expect(unitMeant("length")).toBe("in m");
  expect(unitMeant("count")).toBe("");
});

test("every quantity that is scaled has its own name in SI, and no two are mixed up", () => {
  for (const name of QUANTITY_NAMES) {
    const { scale, symbol } = QUANTITIES[name].metric;
    const said = unitMeant(name);
    if (scale !== 1) expect([name, said]).toEqual([name, expect.stringMatching(/^(in|as) .+: [\d.]+ .+ is [\d.e-]+$/)]);
    else if (symbol !== "" && name !== "kelvin") expect(said).toBe(`in ${symbol}`);
  }
});

test("every figure that a calculator asks is said with its unit, those of a list too", () => {
  for (const { fields } of CALCULATORS) {
    for (const [key, field] of Object.entries(fields)) {
      if (field.type === "rows") {
        for (const [column, { quantity }] of Object.entries(field.columns)) {
          expect(meantFor(fields, `${key}.1.${column}`)).toBe(unitMeant(quantity));
        }
      } else expect(meantFor(fields, key)).toBe(field.type === "choice" ? "" : unitMeant(field.quantity));
    }
  }
  expect(meantFor({}, "steps")).toBe("");
});
