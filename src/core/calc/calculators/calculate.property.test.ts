import fc from "fast-check";
import { propertyRuns } from "../../../../tests/support/runs";
import { answerOf, calculate, type Calculator } from "../calculator";
import { calculatorNamed, CALCULATORS } from "./calculators";
import type { Field, NumberField } from "../fields";

/** What leaning elbows, spreadsheets and other programs put into a field. */
const rubbish = fc.constantFrom<unknown>(
  0,
  -1,
  1e9,
  -1e9,
  1e300,
  1e-300,
  Number.NaN,
  Number.POSITIVE_INFINITY,
  "",
  "1,5",
  "12",
  null,
  undefined,
  true,
  [],
  {},
);

function figureFor(field: NumberField): fc.Arbitrary<unknown> {
  const low = field.above ?? field.min ?? -field.max;
  const inside = fc
    .double({ min: Math.max(low, -1e7), max: Math.min(field.max, 1e7), noNaN: true })
    .map((value) => (field.whole ? Math.round(value) : value));
  const near = (by: fc.Arbitrary<number>) =>
    by
      .map((factor) => Math.min(field.max, (field.example ?? field.default ?? 1) * factor))
      .map((value) => (field.whole ? Math.max(1, Math.round(value)) : value));
  const nearExample = near(fc.double({ min: 1, max: 1.15, noNaN: true }));
  const farOff = near(fc.double({ min: 0.1, max: 10, noNaN: true }));
  const edge = fc.constantFrom<unknown>(field.min ?? field.above ?? 0, field.max, field.above ?? 0);
  const given = fc.oneof({ weight: 40, arbitrary: nearExample }, { weight: 4, arbitrary: farOff }, inside, edge);
  return field.optional ? fc.option(given, { nil: undefined, freq: 2 }) : given;
}

function valueFor(field: Field): fc.Arbitrary<unknown> {
  switch (field.type) {
    case "number":
      return figureFor(field);
    case "choice":
      return fc.constantFrom(...field.choices);
    case "rows":
      return fc.array(
        fc.record(Object.fromEntries(Object.entries(field.columns).map(([key, column]) => [key, figureFor(column)]))),
        { maxLength: 4 },
      );
  }
}

/** Mostly sensible inputs, so that both figures and refusals come often; sometimes one is rubbish. */
function inputsFor(which: Calculator): fc.Arbitrary<Record<string, unknown>> {
  const keys = Object.keys(which.fields);
  const sensible = fc.record(
    Object.fromEntries(Object.entries(which.fields).map(([key, field]) => [key, valueFor(field)])),
  );
  const spoilt = fc
    .tuple(sensible, fc.constantFrom(...(keys.length > 0 ? keys : ["steps"])), rubbish)
    .map(([inputs, key, value]) => ({ ...inputs, [key]: value }));
  return fc.oneof({ weight: 3, arbitrary: sensible }, spoilt);
}

function numbersIn(value: unknown): number[] {
  if (typeof value === "number") return [value];
  if (typeof value === "object" && value !== null) return Object.values(value).flatMap(numbersIn);
  return [];
}

describe("every calculator, whatever comes in", () => {
  for (const which of CALCULATORS) {
    test(`${which.name} answers finite figures or one fault that names its field`, () => {
      const seen = { figures: 0, faults: 0 };
      fc.assert(
        fc.property(inputsFor(which), (raw) => {
          const done = calculate(which, raw);
          if (done.ok) {
            seen.figures++;
            const all = [...numbersIn(answerOf(done)), ...numbersIn(done.calculation.picture)];
            expect(all.filter((value) => !Number.isFinite(value))).toEqual([]);
            expect(JSON.stringify(answerOf(done))).not.toMatch(/NaN|Infinity|undefined/);
            expect(done.calculation.results.some(({ key }) => key === done.calculation.governs)).toBe(true);
          } else {
            seen.faults++;
            expect(done.message).toMatch(/^[a-zA-Z(]/);
            expect(done.message).not.toMatch(/NaN|Infinity|undefined/);
            const top = done.key.split(".")[0]!;
            expect([...Object.keys(which.fields), "steps", ""]).toContain(top);
          }
        }),
        propertyRuns(120),
      );
      // The generator makes both answers, or the property says little.
      if (which.name !== "critical-path") expect(seen.figures).toBeGreaterThan(5);
      expect(seen.faults).toBeGreaterThan(0);
    });
  }

  test("the example that the page opens with is always right", () => {
    for (const which of CALCULATORS) {
      if (which.schema) continue;
      const inputs = Object.fromEntries(
        Object.entries(which.fields).flatMap(([key, field]) =>
          field.type === "choice" || field.example === undefined ? [] : [[key, field.example]],
        ),
      );
      const done = calculate(which, inputs);
      if (!done.ok) throw new Error(`${which.name}: ${done.key} ${done.message}`);
      expect(done.calculation.picture).toBeDefined();
    }
  });
});

/** The value of one result; null where the question was refused or the figure is never reached. */
function value(name: string, inputs: Record<string, unknown>, key: string): number | null {
  const done = calculate(calculatorNamed(name)!, inputs);
  return done.ok ? (done.calculation.results.find((result) => result.key === key)?.value ?? null) : null;
}

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const larger = between(1, 5);
/** Rounding of a long sum, not a change of direction. */
const ROUNDING = 1 + 1e-7;

describe("figures go the way physics goes", () => {
  const tank = fc.record({
    shape: fc.constantFrom("vertical", "horizontal", "sphere", "cone"),
    diameter_m: between(1, 10),
    length_m: between(1, 10),
    level_m: between(0.2, 1),
    outlet_m: between(0.01, 0.1),
    cd: between(0.4, 0.8),
    pad_Pa: fc.constantFrom(0, 5e4),
  });

  test("a bigger hole never drains slower, a higher level never sooner", () => {
    fc.assert(
      fc.property(tank, larger, (drain, by) => {
        const time = value("tank-drain", drain, "time_s")!;
        expect(value("tank-drain", { ...drain, outlet_m: drain.outlet_m * by }, "time_s")!).toBeLessThanOrEqual(
          time * ROUNDING,
        );
        expect(value("tank-drain", { ...drain, level_m: drain.level_m / by }, "time_s")!).toBeLessThanOrEqual(
          time * ROUNDING,
        );
      }),
      propertyRuns(100),
    );
  });

  const vessel = fc.record({
    volume_m3: between(0.1, 100),
    start_Pa: between(2e5, 1e7),
    end_Pa: between(1.05e5, 1.9e5),
    temperature_K: between(250, 500),
    orifice_m: between(0.005, 0.1),
    cd: between(0.5, 1),
    gamma: between(1.1, 1.66),
    molar_kg: between(0.002, 0.08),
  });

  test("a bigger vent never blows down slower, a larger volume never faster; the wait is no less than either bound", () => {
    fc.assert(
      fc.property(vessel, larger, (blow, by) => {
        const time = value("blowdown", blow, "time_s")!;
        expect(value("blowdown", { ...blow, orifice_m: blow.orifice_m * by }, "time_s")!).toBeLessThanOrEqual(
          time * ROUNDING,
        );
        expect(
          value("blowdown", { ...blow, volume_m3: blow.volume_m3 * by }, "time_s")! * ROUNDING,
        ).toBeGreaterThanOrEqual(time);
        expect(time).toBe(Math.max(value("blowdown", blow, "isothermal_s")!, value("blowdown", blow, "adiabatic_s")!));
      }),
      propertyRuns(60),
    );
  });

  test("more bends never purge faster, and mixing brackets: perfect ≤ as asked ≤ poor", () => {
    fc.assert(
      fc.property(
        between(1, 500),
        between(0.05, 2),
        fc.integer({ min: 0, max: 6 }),
        between(1, 10),
        (volume_m3, rated_m3_s, bends, mixing) => {
          const manhole = { chimneys: 1, volume_m3, rated_m3_s };
          const time = value("manhole-purge", { ...manhole, bends }, "time_s")!;
          expect(value("manhole-purge", { ...manhole, bends: bends + 1 }, "time_s")!).toBeGreaterThanOrEqual(time);
          const sweep = { volume_m3, flow_m3_s: rated_m3_s, c0: 0.9, c: 0.01, mixing };
          const asked = value("purge-dilution", sweep, "time_s")!;
          expect(value("purge-dilution", sweep, "perfect_s")!).toBeLessThanOrEqual(asked * ROUNDING);
          expect(value("purge-dilution", sweep, "poor_s")! * ROUNDING).toBeGreaterThanOrEqual(asked);
        },
      ),
      propertyRuns(100),
    );
  });

  test("an accumulator's adiabatic figure lies below the isothermal ones, net below gross", () => {
    fc.assert(
      fc.property(between(1.1e5, 4e7), between(0.001, 1), (pressure_Pa, volume_m3) => {
        const held = { pressure_Pa, volume_m3 };
        const [gross, net, adiabatic] = ["isothermal_J", "isothermal_net_J", "adiabatic_J"].map((key) =>
          value("accumulator", held, key)!,
        );
        expect(net!).toBeLessThanOrEqual(gross!);
        expect(adiabatic!).toBeLessThanOrEqual(gross! * ROUNDING);
      }),
      propertyRuns(100),
    );
  });

  test("cooler targets never come sooner; a hotter start never cools sooner", () => {
    fc.assert(
      fc.property(between(60, 400), between(31, 59), between(600, 1e5), larger, (start_C, target_C, tau_s, by) => {
        const body = { start_C, ambient_C: 30, target_C, tau_s };
        const time = value("cool-down", body, "time_s")!;
        expect(value("cool-down", { ...body, start_C: start_C * by }, "time_s")!).toBeGreaterThanOrEqual(time);
        expect(
          value("cool-down", { ...body, target_C: 30 + (target_C - 30) / by }, "time_s")! * ROUNDING,
        ).toBeGreaterThanOrEqual(time);
      }),
      propertyRuns(100),
    );
  });
});
