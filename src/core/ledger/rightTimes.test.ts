import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { rightTimes } from "./rightTimes";

test("once a clock is set right nothing lies later than now, nothing before now moves, and the order stays", () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 3000 })), fc.integer({ min: 1000, max: 2000 }), (times, now_ms) => {
      const right = rightTimes(times, now_ms);
      for (const at_ms of times) {
        expect(right(at_ms)).toBeLessThanOrEqual(now_ms);
        if (at_ms <= now_ms) expect(right(at_ms)).toBe(at_ms);
      }
      const later = [...new Set(times)].filter((at_ms) => at_ms > now_ms).sort((a, b) => a - b);
      for (let i = 1; i < later.length; i++) expect(right(later[i]!)).toBeGreaterThan(right(later[i - 1]!));
    }),
    propertyRuns(300),
  );
});
