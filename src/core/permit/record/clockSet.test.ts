import fc from "fast-check";
import { propertyRuns } from "../../../../tests/support/runs";
import { inRightTime } from "./clockSet";
import type { LogEntry } from "./permitLog";

const talked = (at_ms: number): LogEntry => ({ type: "talked", at_ms, by: null });
const set = (at_ms: number): LogEntry => ({ type: "clock set", at_ms, by: null, back_s: 60, words: "the radio" });

describe("a permit's log once the clock was set right", () => {
  test("what was dated later happened before it, in its order; what was dated earlier keeps its time", () => {
    const log = [talked(5), talked(90), talked(90), talked(120), set(60), talked(61)];
    expect(inRightTime(log).map(({ at_ms }) => at_ms)).toEqual([5, 57, 58, 59, 60, 61]);
    const plain = [talked(5), talked(90)];
    expect(inRightTime(plain)).toBe(plain);
  });
  test("no entry is dated before the one that it follows, however often clocks are set", () => {
    // A clock that runs, jumps ahead now and then, and is set back to the true time.
    const step = fc.record({
      passes: fc.integer({ min: 10, max: 1000 }),
      what: fc.constantFrom("act", "ahead", "set"),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 40 }), (steps) => {
        let true_ms = 0;
        let ahead_ms = 0;
        const log: LogEntry[] = [];
        const truth: number[] = [];
        for (const { passes, what } of steps) {
          true_ms += passes;
          if (what === "ahead") ahead_ms += 5000;
          if (what === "set") ahead_ms = 0;
          log.push(what === "set" ? set(true_ms) : talked(true_ms + ahead_ms));
          truth.push(true_ms);
        }
        const read = inRightTime(log).map(({ at_ms }) => at_ms);
        const last = log.findLastIndex(({ type }) => type === "clock set");
        for (let i = 1; i < read.length; i++) expect(read[i]!).toBeGreaterThanOrEqual(read[i - 1]!);
        // Nothing of before is dated later than when the clock was last set, nor earlier than it was.
        for (let i = 0; i < last; i++) {
          expect(read[i]!).toBeLessThan(read[last]!);
          expect(read[i]! + steps.length).toBeGreaterThanOrEqual(truth[i]!);
        }
      }),
      propertyRuns(300),
    );
  });
});
