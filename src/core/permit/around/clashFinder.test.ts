import fc from "fast-check";
import { DETAILS } from "../../../../tests/support/permits";
import { propertyRuns } from "../../../../tests/support/runs";
import type { PersonId } from "../../people/roles";
import { PERMIT_KINDS } from "../kinds/kinds";
import { clashFinder } from "./clashFinder";
import { crossChecks, type PermitInPlace } from "./crossChecks";

const some = (names: readonly string[]) => fc.subarray([...names], { maxLength: 2 });
const metres = fc.integer({ min: 0, max: 60 });

const permit = (number: string): fc.Arbitrary<PermitInPlace> =>
  fc.record({
    number: fc.constant(number),
    job: fc.constantFrom("J-1", "J-2", "J-3"),
    details: fc.constantFrom(...PERMIT_KINDS).chain((kind) => {
      const details = DETAILS[kind];
      return fc
        .record({ x_m: metres, y_m: metres, ventilation: fc.constantFrom("", "FAN-1") })
        .map((at) => ({ ...details, ...("x_m" in details || "ventilation" in details ? at : {}) }) as typeof details);
    }),
    isolations: some(["S-1", "S-2", "S-3"]),
    faces: some(["P-1", "P-2", "P-3", "P-4"]).chain((tags) =>
      fc.tuple(
        ...tags.map((tag) =>
          fc.record({
            tag: fc.constant(tag),
            how: fc.constantFrom(["open"] as const, ["touch"] as const),
            x_m: metres,
            level_m: fc.constantFrom(-5, 0, 12),
            y_m: metres,
            known: fc.boolean(),
          }),
        ),
      ),
    ),
    people: some(["ada", "ben", "cas", "dov"]).map((ids) => ids as PersonId[]),
    lifts: fc.array(fc.record({ what: fc.constant("a roll"), x_m: metres, y_m: metres }), { maxLength: 1 }),
    loses: some(["FAN-1", "P-9"]),
  });

test("finding by what is shared gives what asking everybody gives", () => {
  let touching = 0;
  fc.assert(
    fc.property(fc.tuple(...Array.from({ length: 9 }, (_, i) => permit(`P-${i + 1}`))), (permits) => {
      const find = clashFinder(permits);
      for (const one of permits) {
        const asked = crossChecks(one, permits);
        expect(find(one)).toEqual(asked);
        touching += asked.length;
      }
    }),
    propertyRuns(100),
  );
  expect(touching).toBeGreaterThan(100);
});
