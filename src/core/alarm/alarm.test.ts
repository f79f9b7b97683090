import type { PersonId } from "../people/roles";
import { answer, levelOf, nextLevel_ms, unansweredWords, type Alarm } from "./alarm";

const alarm: Alarm = { seq: 7, subject: "P-0001", at_ms: 1_000_000, answered: null };
const after = (s: number) => alarm.at_ms + 1000 * s;
const IDA = "ida" as PersonId;

test("what nobody answers becomes more after two, five and fifteen minutes, to the second", () => {
  const levels = [0, 119, 120, 299, 300, 899, 900, 1e6].map((s) => levelOf(alarm, after(s)));
  expect(levels).toEqual([0, 0, 1, 1, 2, 2, 3, 3]);
  expect([0, 119, 120, 300, 899].map((s) => nextLevel_ms(alarm, after(s)))).toEqual(
    [120, 120, 300, 900, 900].map(after),
  );
  expect(nextLevel_ms(alarm, after(900))).toBeNull();
});

test("an answered alarm becomes no more, and is answered once", () => {
  const answered = answer(alarm, { by: IDA, at_ms: after(30) }, (id) => id);
  if (!answered.ok) throw new Error();
  expect(levelOf(answered.value, after(1000))).toBe(0);
  expect(nextLevel_ms(answered.value, after(40))).toBeNull();
  expect(answer(answered.value, { by: "ben" as PersonId, at_ms: after(40) }, (id) => id)).toMatchObject({
    refusal: { code: "already done", by: "ida" },
  });
});

test("it says for how long nobody came, once that is long", () => {
  expect([100, 130, 400, 8000].map((s) => unansweredWords(alarm, after(s)))).toEqual([
    null,
    "Nobody has answered for 2 min.",
    "Nobody has answered for 6 min.",
    "Nobody has answered for 2 h.",
  ]);
});
