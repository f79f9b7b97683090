import fc from "fast-check";
import { isRound, MOST_IN_A_ROUND, ROUND_KINDS, ROUNDS, type RoundKind } from "./rounds";

/** The same rule written apart: a round as a pattern over letters, one for each type of act. */
function patternOf(kind: RoundKind): RegExp {
  const times = { once: "", perhaps: "?", any: "*", some: "+" };
  const parts = ROUNDS[kind].parts.map((part) => `(?:${letter(part.type)})${times[part.times]}`);
  return new RegExp(`^${parts.join("")}$`);
}
const TYPES = [...new Set(ROUND_KINDS.flatMap((kind) => ROUNDS[kind].parts.map(({ type }) => type))), "permit.stop"];
const letter = (type: string) => String.fromCharCode("a".charCodeAt(0) + TYPES.indexOf(type));

const acts = (types: readonly string[], named: Readonly<Record<string, unknown>>) =>
  types.map((type) => ({ type, input: named }));

test.each(ROUND_KINDS)("%s: the acts that make it up, in their order, and no others", (kind) => {
  const own = ROUNDS[kind].parts.map(({ type }) => type);
  const some = fc.array(fc.oneof({ weight: 4, arbitrary: fc.constantFrom(...own) }, fc.constantFrom(...TYPES)), {
    maxLength: 6,
  });
  const ordered = some.map((types) => [...types].sort((a, b) => own.indexOf(a) - own.indexOf(b)));
  let taken = 0;
  fc.assert(
    fc.property(fc.oneof(some, ordered), (types) => {
      const expected = types.length > 0 && patternOf(kind).test(types.map(letter).join(""));
      if (expected) taken++;
      expect(isRound(kind, acts(types, { permit: "P-1", job: "J-1" }))).toBe(expected);
    }),
    { numRuns: 1000 },
  );
  expect(taken).toBeGreaterThan(5);
});

test("no round stops work, and none goes on for ever", () => {
  for (const kind of ROUND_KINDS) expect(ROUNDS[kind].parts.map(({ type }) => type)).not.toContain("permit.stop");
  const many = Array.from({ length: MOST_IN_A_ROUND + 1 }, () => "permit.check");
  expect(isRound("permits checked", acts(many, { permit: "P-1" }))).toBe(false);
  expect(isRound("permits checked", acts(many.slice(1), { permit: "P-1" }))).toBe(true);
});

test.each(ROUND_KINDS.filter((kind) => ROUNDS[kind].same !== null))("%s speaks of one thing only", (kind) => {
  const { parts, same } = ROUNDS[kind];
  const types = parts.map(({ type }) => type);
  const named = (name: string) => ({ [same!]: name });
  expect(isRound(kind, acts(types, named("X-1")))).toBe(true);
  expect(isRound(kind, [...acts(types.slice(0, -1), named("X-1")), ...acts(types.slice(-1), named("X-2"))])).toBe(
    false,
  );
  expect(isRound(kind, acts(types, {}))).toBe(false);
});
