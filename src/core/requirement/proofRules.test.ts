import { staleProofs } from "../isolation/staleProofs";
import { profileOf } from "./profiles";
import { airRetests_ms, readsAs } from "./proofRules";

const HOUR_MS = 3_600_000;

describe("what an instrument reads", () => {
  test.each([
    ["inside its error", 0, 0.04, 0.05, true],
    ["just at its error", 0, 0.05, 0.05, true],
    ["outside it", 0, 0.06, 0.05, false],
    ["below, outside it", 0, -0.06, 0.05, false],
    ["a surface that is warmer than the air", 22, 24.1, 2, false],
    ["a surface as warm as the air", 22, 23.9, 2, true],
    ["nothing known of its error", 0, 0, null, false],
    ["nothing read", 0, null, 1, false],
    ["an error below nought", 0, 0, -1, false],
    ["no number", 0, NaN, 1, false],
  ])("%s", (_, expected, reading, error, is) => {
    expect(readsAs({ expected, reading, error })).toBe(is);
  });
});

test("an isolation left for more than an hour is proved again, and so is one where nobody was seen since", () => {
  const { absence_min, proofGoodFor_h: goodFor_h } = profileOf("strict");
  const stale = (left_s: number) =>
    staleProofs([{ label: "prove P", at_ms: 0, wrongClock: false }], {
      now_ms: left_s * 1000,
      lastThere_ms: null,
      litUntil_ms: null,
      foundAgain_ms: null,
      goodFor_h,
      absence_min,
    }).length;
  expect([3600, 3601].map(stale)).toEqual([0, 1]);
});

describe("when air is tested again", () => {
  const due = (p: Omit<Parameters<typeof airRetests_ms>[0], "every_s">) =>
    airRetests_ms({ ...p, every_s: 7200 }).map((at) => at / HOUR_MS);

  test("after every break, at each shift change, and never later than the interval", () => {
    const asked = { returns_ms: [3 * HOUR_MS], shifts_ms: [6.5 * HOUR_MS] };
    expect(due({ from_ms: 0, to_ms: 8 * HOUR_MS, ...asked })).toEqual([2, 3, 5, 6.5]);
    expect(due({ from_ms: 0, to_ms: HOUR_MS })).toEqual([]);
  });
  test("not at the start, not at the end, and not for what is before or after", () => {
    const returns_ms = [0, 1, 2, 5, 6, 9].map((hour) => hour * HOUR_MS);
    expect(due({ from_ms: HOUR_MS, to_ms: 6 * HOUR_MS, returns_ms })).toEqual([2, 4, 5]);
    expect(due({ from_ms: 0, to_ms: 2 * HOUR_MS })).toEqual([]);
    expect(due({ from_ms: 0, to_ms: 4 * HOUR_MS })).toEqual([2]);
  });
  test("once, where a break ends at a shift change", () => {
    const at = [3 * HOUR_MS];
    expect(due({ from_ms: 0, to_ms: 4 * HOUR_MS, returns_ms: at, shifts_ms: at })).toEqual([2, 3]);
  });
});
