import fc from "fast-check";
import { CLOCK_STEP_MS, steppedBy_ms, type Clocks } from "./clockWatch";

const at = (wall_ms: number, up_ms: number, boot = "a"): Clocks => ({ wall_ms, up_ms, boot });

test("time that goes by is no step, however much of it; a clock that is set is, by what it was set", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 1e12 }),
      fc.integer({ min: 0, max: 1e10 }),
      fc.integer({ min: -1e9, max: 1e9 }),
      (wall, gone, set) => {
        const stepped = steppedBy_ms(at(wall, 5000), at(wall + gone + set, 5000 + gone));
        expect(stepped).toBe(Math.abs(set) > CLOCK_STEP_MS ? set : null);
      },
    ),
  );
});

test("over a new start of the machine, or where a start is not told from the next, nobody knows", () => {
  expect(steppedBy_ms(at(0, 9e6), at(9e9, 10, "b"))).toBeNull();
  expect(steppedBy_ms(at(0, 0, ""), at(9e9, 0, ""))).toBeNull();
});
