import { longestShift_h } from "../schedule/shifts";
import { shiftFault } from "./outlastsShift";

const HOUR_MS = 3_600_000;
const asked = (hours: number, longerThanShift = false) => ({
  windowFrom_ms: 5,
  windowTo_ms: 5 + hours * HOUR_MS,
  longerThanShift,
});

test.each([
  [[6, 14, 22], 8],
  [[6, 18], 12],
  [[7, 15, 23], 8],
  [[8, 16], 16],
  [[6], 24],
  [[22, 6, 14], 8],
  [[], 24],
])("of shifts from %j the longest is %d h", (hours, longest) => expect(longestShift_h(hours)).toBe(longest));

test("nobody says of a window longer than any shift that it fits into one", () => {
  expect(shiftFault(asked(8), 8)).toBeNull();
  expect(shiftFault({ ...asked(8), windowTo_ms: asked(8).windowTo_ms + 1 }, 8)).toMatchObject({
    code: "outlasts a shift",
  });
  expect(shiftFault(asked(30), 8)).toEqual({ code: "outlasts a shift", window_h: 30, shift_h: 8 });
  expect(shiftFault(asked(30, true), 8)).toBeNull();
});
