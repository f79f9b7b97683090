import { reviewDue_ms } from "./review";

const DAY_MS = 86_400_000;
const standing = { approved_ms: 0, isRestored: false };
const review = (day: number, next: number) => ({
  at_ms: day * DAY_MS,
  next_ms: next * DAY_MS,
  reason: "waits for a part",
});

test("the first review falls an interval after the approval", () => {
  expect(reviewDue_ms(standing, [], 7 * 86_400)).toBe(7 * DAY_MS);
});
test("after a review it falls when that review said, whichever order they are listed in", () => {
  expect(reviewDue_ms(standing, [review(6, 9), review(9, 12)], 7 * 86_400)).toBe(12 * DAY_MS);
  expect(reviewDue_ms(standing, [review(9, 12), review(6, 9)], 7 * 86_400)).toBe(12 * DAY_MS);
});
test("what is restored needs none", () => {
  expect(reviewDue_ms({ ...standing, isRestored: true }, [review(1, 2)], 7 * 86_400)).toBeNull();
});
