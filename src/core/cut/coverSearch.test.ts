import fc from "fast-check";
import { metAtLeast, propertyRuns } from "../../../tests/support/runs";
import { cheapestCover, strongest, type WayConstraint } from "./coverSearch";

const DEVICES = 6;
/** The first two devices fail together: a way crosses either or both of them, and they count once. */
const units = [[0], [1], [0, 1], [2], [3], [4], [5]];
const nameOf = (unit: readonly number[]) => (unit[0]! < 2 ? "together" : String(unit[0]));
const constraint = fc
  .record({ units: fc.uniqueArray(fc.constantFrom(...units), { minLength: 1, maxLength: 4, selector: nameOf }) })
  .chain(({ units }) =>
    fc.integer({ min: 1, max: Math.min(2, units.length) }).map((atLeast): WayConstraint => ({ units, atLeast })),
  );

const holds = ({ units, atLeast }: WayConstraint, set: ReadonlySet<number>) =>
  units.filter((one) => one.some((device) => set.has(device))).length >= atLeast;

const sets = Array.from(
  { length: 2 ** DEVICES },
  (_, bits) => new Set([...Array(DEVICES).keys()].filter((device) => (bits >> device) % 2 === 1)),
);

describe("the cheapest set that hits every way often enough", () => {
  test("is what trying every set finds, and what is left out of the constraints asks for nothing more", () => {
    let leftOut = 0;
    fc.assert(
      fc.property(
        fc.array(constraint, { minLength: 1, maxLength: 8 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: DEVICES, maxLength: DEVICES }),
        (constraints, prices) => {
          const kept = strongest(constraints);
          if (kept.length < constraints.length) leftOut++;
          for (const set of sets) {
            const all = constraints.every((one) => holds(one, set));
            expect(kept.every((one) => holds(one, set))).toBe(all);
          }
          const costs = sets
            .filter((set) => constraints.every((one) => holds(one, set)))
            .map((set) => [...set].reduce((sum, device) => sum + prices[device]!, 0));
          const found = cheapestCover(kept, (device) => prices[device]!, { nodes: 100_000 });
          expect(found.bound).toBe(Math.min(...costs));
        },
      ),
      propertyRuns(300),
    );
    expect(leftOut).toBeGreaterThan(metAtLeast(100));
  });
});
