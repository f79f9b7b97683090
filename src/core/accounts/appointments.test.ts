import fc from "fast-check";
import { appoint, inForce, type Appointed } from "./appointments";
import { COMPETENCES, type Competence, type PersonId } from "../people/roles";

const DAY = 86_400_000;
const NOW = 1_800_000_000_000;
const maren = "maren" as PersonId;
const colin = "colin" as PersonId;
const NONE = { competences: [], appointed: {} };
const appointed = (before: Parameters<typeof appoint>[0], wanted: Partial<Parameters<typeof appoint>[1]>) => {
  const made = appoint(before, { competences: ["electrical"], until: {}, by: maren, now_ms: NOW, ...wanted });
  if (!made.ok) throw new Error(made.refusal.code);
  return made.value;
};

test("what has an end counts to the last moment of it, and not after; what has none counts on", () => {
  const one = appointed(NONE, { competences: ["electrical", "process"], until: { electrical: NOW + DAY } });
  expect(inForce(one, NOW)).toEqual(["electrical", "process"]);
  expect(inForce(one, NOW + DAY)).toEqual(["electrical", "process"]);
  expect(inForce(one, NOW + DAY + 1)).toEqual(["process"]);
  // From before anybody wrote down by whom.
  expect(inForce({ competences: ["mechanical"], appointed: {} }, NOW)).toEqual(["mechanical"]);
});

test("who gave it and when stays with what stays as it was; a new end is a new appointment", () => {
  const first = appointed(NONE, { until: { electrical: NOW + DAY } });
  const saved = appointed(first, { until: { electrical: NOW + DAY }, by: colin, now_ms: NOW + 1000 });
  expect(saved.appointed.electrical).toEqual({ by: maren, at_ms: NOW, until_ms: NOW + DAY });
  const later = appointed(first, { until: { electrical: NOW + 2 * DAY }, by: colin, now_ms: NOW + 1000 });
  expect(later.appointed.electrical).toEqual({ by: colin, at_ms: NOW + 1000, until_ms: NOW + 2 * DAY });
  expect(appointed(first, { competences: [] })).toEqual(NONE);
  // Over, and left as it is: nobody is assessed by saving a form, and nobody is kept from changing the rest.
  expect(appointed(first, { until: { electrical: NOW + DAY }, now_ms: NOW + 9 * DAY }).appointed.electrical?.by).toBe(
    maren,
  );
});

test("an end that is over, or beyond what an assessment speaks for, is refused", () => {
  const said = (until_ms: number) => {
    const made = appoint(NONE, {
      competences: ["electrical"],
      until: { electrical: until_ms },
      by: maren,
      now_ms: NOW,
    });
    return made.ok ? "given" : made.refusal.code;
  };
  expect([NOW - 1, NOW, NOW + 1, NOW + 6 * 365 * DAY].map(said)).toEqual([
    "date over",
    "date over",
    "given",
    "date too far",
  ]);
});

test("nothing counts that was not given, and nothing longer than its end", () => {
  const some = fc.subarray([...COMPETENCES]);
  fc.assert(
    fc.property(
      some,
      some,
      fc.integer({ min: 1, max: 1000 }),
      fc.integer({ min: 0, max: 2000 }),
      (has, gets, days, after) => {
        const before = { competences: has, appointed: {} as Appointed };
        const until = Object.fromEntries(gets.map((one) => [one, NOW + days * DAY])) as Record<Competence, number>;
        const counts = inForce(appointed(before, { competences: gets, until }), NOW + after * DAY);
        expect(counts).toEqual(after <= days ? COMPETENCES.filter((one) => gets.includes(one)) : []);
      },
    ),
  );
});
