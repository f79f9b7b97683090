import fc from "fast-check";
import { firstTimes } from "./firstTimes";

const HOUR = 3_600_000;
const hours = fc.integer({ min: -200, max: 200 }).map((h) => h * HOUR);

test("never in the past, never empty, never longer than the kind allows, and within a window that is not over", () => {
  fc.assert(
    fc.property(hours, hours, hours, fc.constantFrom(12, 24, 168), (now_ms, windowFrom_ms, length, longest_h) => {
      const windowTo_ms = windowFrom_ms + Math.abs(length) + HOUR;
      const { from_ms, to_ms } = firstTimes({ now_ms, windowFrom_ms, windowTo_ms, longest_h });
      expect(from_ms).toBeGreaterThanOrEqual(now_ms);
      expect(to_ms).toBeGreaterThan(from_ms);
      expect(to_ms - from_ms).toBeLessThanOrEqual(longest_h * HOUR);
      if (windowTo_ms > now_ms) {
        expect(from_ms).toBeGreaterThanOrEqual(windowFrom_ms);
        expect(to_ms).toBeLessThanOrEqual(windowTo_ms);
      }
    }),
  );
});

test("a window of tomorrow is offered as it is, one that is over as eight hours from now", () => {
  const times = { windowFrom_ms: 10 * HOUR, windowTo_ms: 16 * HOUR, longest_h: 12 };
  expect(firstTimes({ ...times, now_ms: 0 })).toEqual({ from_ms: 10 * HOUR, to_ms: 16 * HOUR });
  expect(firstTimes({ ...times, now_ms: 20 * HOUR })).toEqual({ from_ms: 20 * HOUR, to_ms: 28 * HOUR });
});
