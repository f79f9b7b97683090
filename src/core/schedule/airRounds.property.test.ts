import fc from "fast-check";
import { instrumentsFor } from "../atmosphere/testPoints";
import { propertyRuns } from "../../../tests/support/runs";
import { roundsOf } from "./airRounds";
import type { Wait } from "./wait";

const FROM_ms = Date.UTC(2026, 10, 23, 6);
const GOVERNS = { "manhole-purge": "longer", capacitor: "longer" } as const;

/** A round of so many points, 60 s each and nothing to wait for but that. */
const round = (points: number): Wait => ({
  words: "test the air of V again",
  calculator: "sample-wait",
  inputs: { points, each_s: 60, round_s: 1200, bore_m: 0.004, hose_m: 1e-12, pump_m3_s: 1, t90_s: 0 },
  fromSetup: { instruments: "testers" },
  result: "all_s",
  attended: true,
  assumed: [],
});

const asked = (every_s: number, points: number, shifts_ms: readonly number[]) => ({
  airRetest_s: every_s,
  airRounds: [round(points)],
  governs: GOVERNS,
  shifts_ms,
});

describe("rounds of air tests while work goes on", () => {
  const days = fc.record({
    every_s: fc.integer({ min: 3600, max: 8 * 3600 }),
    points: fc.integer({ min: 1, max: 100 }),
    work_s: fc.integer({ min: 60, max: 40 * 3600 }),
    shifts_h: fc.uniqueArray(fc.integer({ min: 1, max: 39 }), { maxLength: 4 }),
  });

  test("minute by minute nobody works in a round, nor on readings that are too old, and the work is all done", () => {
    fc.assert(
      fc.property(days, ({ every_s, points, work_s, shifts_h }) => {
        const shifts_ms = shifts_h.map((hours) => FROM_ms + hours * 3_600_000);
        const made = roundsOf(asked(every_s, points, shifts_ms), {}, { from_ms: FROM_ms, work_s });
        expect(made.tooFew).toEqual([]);
        const longest_ms = 1_200_000;
        // The round before the start began at the latest when it ends with the start.
        const took_ms = made.retests.reduce((most, one) => Math.max(most, one.to_ms - one.from_ms), 60_000);
        expect(took_ms).toBeLessThanOrEqual(longest_ms);
        let [worked_ms, oldest_ms] = [0, 0];
        for (let at = FROM_ms; at < made.workTo_ms; at += 60_000) {
          if (made.retests.some((one) => at >= one.from_ms && at < one.to_ms)) continue;
          worked_ms += 60_000;
          const last = made.retests.filter((one) => one.to_ms <= at).at(-1);
          oldest_ms = Math.max(oldest_ms, at - (last?.to_ms ?? FROM_ms) + took_ms);
        }
        expect(oldest_ms).toBeLessThanOrEqual(every_s * 1000);
        expect(Math.abs(worked_ms - work_s * 1000)).toBeLessThanOrEqual((2 * made.retests.length + 2) * 60_000);
      }),
      propertyRuns(100),
    );
  });

  test("too few instruments for a round of twenty minutes are said with how many are asked, and no round is drawn", () => {
    const two = roundsOf(asked(7200, 97, []), { testers: 2 }, { from_ms: FROM_ms, work_s: 36_000 });
    expect(two.retests).toEqual([]);
    expect(two.tooFew.join()).toMatch(/a round takes 49 min, at most 20 min; 5 instruments are asked/);
    const five = roundsOf(asked(7200, 97, []), { testers: 5 }, { from_ms: FROM_ms, work_s: 36_000 });
    expect(five.tooFew).toEqual([]);
    expect(five.retests.length).toBeGreaterThan(0);
  });

  test("rounds that fill the time after which they are due again leave none for work, and that is said", () => {
    const many = { ...asked(1800, 60, []), airRounds: [round(60), round(60)] };
    const made = roundsOf(many, { testers: 4 }, { from_ms: FROM_ms, work_s: 3600 });
    expect(made.tooFew.join()).toMatch(/all rounds together take 30 min of the 30 min/);
    expect(made.retests).toEqual([]);
  });
});

test("as many instruments as are said to be enough are, by dealing the points out; one fewer is not", () => {
  const ends_s = (points: number, each_s: number, instruments: number) => {
    const free = Array.from({ length: instruments }, () => 0);
    for (let i = 0; i < points; i++) free[free.indexOf(Math.min(...free))]! += each_s;
    return Math.max(...free);
  };
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 120 }),
      fc.integer({ min: 20, max: 1500 }),
      fc.integer({ min: 600, max: 1800 }),
      (points, each_s, within_s) => {
        const needed = instrumentsFor(points, each_s, within_s);
        if (needed === null) return expect(each_s).toBeGreaterThan(within_s);
        expect(ends_s(points, each_s, needed)).toBeLessThanOrEqual(within_s);
        if (needed > 1) expect(ends_s(points, each_s, needed - 1)).toBeGreaterThan(within_s);
      },
    ),
    propertyRuns(300),
  );
});
