import type { PersonId } from "../people/roles";
import { induct, INDUCTED_AT_MOST_YEARS, inductionMissing } from "./induction";

const DAY = 86_400_000;
const NOW = 1_800_000_000_000;
const maren = "maren" as PersonId;
const colin = "colin" as PersonId;
const firm = "Skerry Rope and Rig";
const wanted = { firm, until_ms: NOW + DAY, by: maren, now_ms: NOW };

test("it counts to the last moment of its day, is missing where nobody wrote it down, and is not asked of the site's own", () => {
  const induction = { by: maren, at_ms: NOW, until_ms: NOW + DAY };
  expect(inductionMissing({ firm, induction }, NOW + DAY)).toBeNull();
  expect(inductionMissing({ firm, induction }, NOW + DAY + 1)).toBe("over");
  expect(inductionMissing({ firm, induction: null }, NOW)).toBe("never");
  expect(inductionMissing({ firm: "", induction: null }, NOW)).toBeNull();
});

test("whoever writes the day down is beside it; saved again without a change it keeps who that was", () => {
  const made = induct(null, wanted);
  expect(made).toEqual({ ok: true, value: { by: maren, at_ms: NOW, until_ms: NOW + DAY } });
  const before = made.ok ? made.value : null;
  expect(induct(before, { ...wanted, by: colin, now_ms: NOW + 1 })).toEqual(made);
  const later = { ...wanted, until_ms: NOW + 2 * DAY, by: colin };
  expect(induct(before, later)).toMatchObject({ value: { by: colin, until_ms: NOW + 2 * DAY } });
  // Saved again once it is over, as it was: nothing is claimed, and the form can still change the rest.
  expect(induct(before, { ...wanted, now_ms: NOW + 9 * DAY })).toEqual(made);
});

test("a day that is over, or too far to be meant, is refused; without a firm there is none", () => {
  const code = (until_ms: number) => {
    const made = induct(null, { ...wanted, until_ms });
    return made.ok ? "made" : made.refusal.code;
  };
  expect([code(NOW), code(NOW + 1), code(NOW + (INDUCTED_AT_MOST_YEARS + 1) * 366 * DAY)]).toEqual([
    "date over",
    "made",
    "date too far",
  ]);
  expect(induct(null, { ...wanted, firm: "" })).toEqual({ ok: true, value: null });
});
