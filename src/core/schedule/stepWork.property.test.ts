import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { SmallPlant } from "../../../tests/support/smallPlant";
import { stepsOf } from "../procedure/sequence";
import type { Setup } from "./setup";
import { timeOf } from "./stepTime";
import { workOf } from "./stepWork";

type Register = Readonly<{
  phase?: "liquid" | "gas" | "two-phase" | "solid";
  volume_m3?: number;
  pressure_Pa?: number;
  bore_m?: number;
  shape?: "vertical" | "horizontal" | "sphere" | "cone";
  level_m?: number;
}>;

const missing = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined });
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const register: fc.Arbitrary<Register> = fc.record({
  phase: missing(fc.constantFrom("liquid" as const, "gas" as const, "two-phase" as const)),
  volume_m3: missing(fc.oneof(fc.constant(0), between(0.01, 200))),
  pressure_Pa: missing(between(-1e5, 4e6)),
  bore_m: missing(between(0.005, 0.3)),
  shape: missing(fc.constantFrom("vertical" as const, "horizontal" as const, "sphere" as const, "cone" as const)),
  level_m: missing(fc.oneof(fc.constant(0), between(0.01, 12))),
});
const setups: fc.Arbitrary<Setup> = fc.record({
  blower_m3_s: missing(between(0.01, 2)),
  bends: missing(fc.integer({ min: 0, max: 6 })),
  mixing: missing(between(1, 10)),
  ambient_C: missing(between(-20, 42)),
}) as fc.Arbitrary<Setup>;

/** A vessel that people enter, with a drain, behind two valves; the register says as much of it as is given. */
function waitsFor({ phase, volume_m3, pressure_Pa, bore_m, shape, level_m }: Register, setup: Setup) {
  const plant = new SmallPlant()
    .source("S", "fluid", { fluid: "oil", hazards: [] })
    .device("V-1", "fluid")
    .item("SP", "pipe")
    .device("V-2", "fluid")
    .item("T", "vessel", {
      contents: { fluid: "oil", hazards: [], phase, volume_m3, pressure_Pa },
      vessel: shape && { shape, diameter_m: 3, length_m: 5, level_m },
      source: [{ carrier: "heat", feeding: false, stored: { form: "hot body", temperature_C: 120, tau_s: 7200 } }],
    })
    .item("BL", "bleed", { bleed: { safe: true, gauge: true, bore_m } })
    .line("fluid", "S", "V-1", "SP", "V-2", "T", "BL");
  const faces = [{ place: "T", how: ["enter" as const] }];
  const steps = stepsOf(plant.plan(faces), plant.graph, plant.job(faces).faces);
  const works = workOf(steps, plant.plan(faces), plant.graph);
  return works.flatMap((work) => work.waits.map((wait) => timeOf(wait, setup)));
}
const total = (times: readonly { duration_s: number }[]) => times.reduce((sum, time) => sum + time.duration_s, 0);

describe("what steps take", () => {
  test("is a finite figure whatever the register leaves out, and every missing figure is named", () => {
    fc.assert(
      fc.property(register, setups, (said, setup) => {
        const times = waitsFor(said, setup);
        for (const time of times) {
          expect(Number.isFinite(time.duration_s) && time.duration_s >= 0).toBe(true);
          expect([time.words, time.never]).toEqual([time.words, null]);
        }
        const assumed = times.flatMap((time) => time.assumed).join("; ");
        const drains = said.volume_m3 !== 0 && !(said.shape && said.level_m === 0);
        expect(assumed.includes("bore of BL")).toBe(drains && said.bore_m === undefined);
        if (setup.blower_m3_s === undefined) expect(assumed).toContain("blower");
      }),
      propertyRuns(60),
    );
  });

  test("a wider drain, fewer bends and better mixing never make the day longer", () => {
    fc.assert(
      fc.property(register, setups, between(1, 4), (said, setup, by) => {
        const known = { ...said, bore_m: said.bore_m ?? 0.02 };
        const usual = total(waitsFor(known, setup));
        const ROUNDING = 1 + 1e-6;
        expect(total(waitsFor({ ...known, bore_m: known.bore_m * by }, setup))).toBeLessThanOrEqual(usual * ROUNDING);
        expect(total(waitsFor(known, { ...setup, bends: 0, mixing: 1 }))).toBeLessThanOrEqual(usual * ROUNDING);
      }),
      propertyRuns(40),
    );
  });
});
