import { calculatorNamed } from "@/core/calc/calculators/calculators";
import { calculate } from "@/core/calc/calculator";
import { approachLimit } from "@/core/energy/approachLimits";
import { BODY_CURRENT, conductorPairs, EARTH_STAKE_m } from "@/core/energy/electricalFigures";
import { AFTER_WATCHES, checksDue_s, HOT_WORK } from "@/core/fire/hotWork";
import { calc, refused } from "../support/calc";

/** Electricity, hot work and planning. Each figure stands beside where it was published. */

describe("electrical", () => {
  test("10 pairs with neutral, 6 without, 3 for single phase (practice)", () => {
    expect(conductorPairs("three-phase with neutral")).toHaveLength(10);
    expect(conductorPairs("three-phase without neutral")).toHaveLength(6);
    expect(conductorPairs("single-phase")).toEqual([
      ["L", "N"],
      ["L", "E"],
      ["N", "E"],
    ]);
  });
  test("230 V over 0.35 Ω draw 657.14 A, over 0.15 Ω 1533 A (arithmetic)", () => {
    expect(calc("fault-current", { voltage_V: 230, impedance_ohm: 0.35 }).current_A).toBeCloseTo(657.14, 2);
    expect(calc("fault-current", { voltage_V: 230, impedance_ohm: 0.15 }).current_A).toBeCloseTo(1533.33, 2);
  });
  test.each([
    [0.03, 1667],
    [0.1, 500],
    [0.3, 167],
    [0.5, 100],
  ])("%d A residual: at most %d Ω (BS 7671 table 41.5, from memory)", (residual_A, ohm) => {
    expect(Math.round(calc("touch-resistance", { residual_A }).resistance_ohm!)).toBe(ohm);
  });
  test("approach: 151–750 V 0.3 and 1.07 m; 751 V–15 kV 0.66 and 1.5 m (NFPA 70E-2021 table 130.4, from memory); 0.7 m at 10 kV (practice)", () => {
    const near = (profile: string, voltage_V: number) => calc("approach-distance", { voltage_V, profile });
    for (const volts of [151, 750])
      expect(near("us-style", volts)).toMatchObject({ restricted_m: 0.3, limited_m: 1.07 });
    for (const volts of [751, 15_000])
      expect(near("us-style", volts)).toMatchObject({ restricted_m: 0.66, limited_m: 1.5 });
    expect(near("uk-style", 10_000)).toMatchObject({ restricted_m: 0.7 });
    expect(refused("approach-distance", { voltage_V: 48 })).toMatch(/^voltage_V is up to 50 V/);
    expect(refused("approach-distance", { voltage_V: 110_000 })).toMatch(/^voltage_V is beyond/);
  });
  test("the bench and the permit give the same approach limits at every voltage and profile, and strict is never nearer", () => {
    for (const profile of ["strict", "us-style", "uk-style"]) {
      for (const voltage_V of [51, 150, 151, 400, 750, 751, 1000, 1001, 10_000, 15_000, 15_001, 36_000]) {
        const { restricted_m, limited_m } = calc("approach-distance", { voltage_V, profile });
        expect(approachLimit(profile, voltage_V)).toMatchObject({ restricted_m, limited_m });
        const strict = approachLimit("strict", voltage_V)!;
        expect(strict.restricted_m).toBeGreaterThanOrEqual(restricted_m!);
        expect(strict.limited_m).toBeGreaterThanOrEqual(limited_m!);
      }
    }
  });
  test("an earth stake goes 0.6 m deep at least (practice)", () => {
    expect(EARTH_STAKE_m).toBe(0.6);
  });
  test("10 mA hurts, some 40 mA for a second may stop the heart (IEC 60479-1, from memory)", () => {
    expect(BODY_CURRENT).toEqual({ painful_A: 0.01, mayStopTheHeart_A: 0.04 });
  });
  test("back-feed: the low side of a 10 kV/100 V transformer gives 100 times on the high side (arithmetic)", () => {
    expect(calc("back-feed", { applied_V: 50, appliedSide_V: 100, otherSide_V: 10_000 })).toMatchObject({
      voltage_V: 5000,
      times: 100,
    });
  });
});

describe("hot work", () => {
  test("35 ft clear: 10.7 m (29 CFR 1910.252(a)(2), NFPA 51B, from memory); cylinders 25 ft (practice); at most 24 h (practice)", () => {
    expect(HOT_WORK.clear_m).toBeCloseTo(35 * 0.3048, 3);
    expect(HOT_WORK.cylinders_m).toBeCloseTo(25 * 0.3048, 9);
    expect(HOT_WORK.longest_s).toBe(86_400);
  });
  test("after-watch: 30 min (29 CFR 1910.252), 60 min (NFPA 51B since 2019), from memory; classes (practice)", () => {
    const hours = (id: string) => {
      const watch = AFTER_WATCHES.find((one) => one.id === id)!;
      return [watch.continuous_s / 3600, watch.checks_s / 3600, watch.finalCheck];
    };
    expect(hours("30 min")).toEqual([0.5, 0, false]);
    expect(hours("60 min")).toEqual([1, 0, false]);
    expect(hours("class 2")).toEqual([1, 3, false]);
    expect(hours("class 3")).toEqual([3, 3, true]);
    expect(hours("class 4")).toEqual([24, 3, true]);
  });
  test("checks fall after the continuous part, no further apart than asked, the last at the end (practice)", () => {
    const watch = AFTER_WATCHES.find((one) => one.id === "class 3")!;
    const due = checksDue_s(watch);
    expect(due.at(-1)).toBe(6 * 3600);
    [watch.continuous_s, ...due].slice(1).forEach((at, i) => {
      expect(at - [watch.continuous_s, ...due][i]!).toBeLessThanOrEqual(watch.every_s);
    });
  });
  test("several people with a flame on one permit ask a safety approver (practice)", () => {
    const zone = (welders: number, permits: number) =>
      calculate(calculatorNamed("hot-work-zone")!, { height_m: 0, welders, permits });
    const asked = (done: ReturnType<typeof zone>) => done.ok && done.calculation.because !== undefined;
    expect(asked(zone(2, 1))).toBe(true);
    expect(asked(zone(2, 2))).toBe(false);
  });
});

describe("work planning (practice)", () => {
  test("a six-hole hasp on a six-hole hasp carries 5 + 6 locks; on the box one lock each, on the points one each at every point", () => {
    const box = (people: number) => calc("hasps", { people, points: 4, school: "on the box" });
    expect(box(1).hasps).toBe(0);
    expect(box(6)).toMatchObject({ hasps: 1, personal_locks: 6 });
    expect(box(11)).toMatchObject({ hasps: 2, carries: 11 });
    expect(box(12).hasps).toBe(3);
    expect(calc("hasps", { people: 5, points: 4, school: "on every point" })).toMatchObject({
      hasps: 4,
      personal_locks: 20,
    });
  });
});
