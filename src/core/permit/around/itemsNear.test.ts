import fc from "fast-check";
import { propertyRuns } from "../../../../tests/support/runs";
import type { Area, Item, Plant } from "../../plant/plant";
import { itemsNear, rectDistance_m } from "./itemsNear";

const spot = fc.record({
  x_m: fc.integer({ min: -60, max: 60 }),
  y_m: fc.double({ min: -60, max: 60, noNaN: true }),
});
const area: fc.Arbitrary<Area> = fc.record({
  name: fc.constantFrom("A", "B", "C"),
  x_m: fc.integer({ min: -50, max: 50 }),
  y_m: fc.integer({ min: -50, max: 50 }),
  width_m: fc.integer({ min: 1, max: 40 }),
  depth_m: fc.integer({ min: 1, max: 40 }),
  level_m: fc.constant(0),
});
const item = fc
  .record({
    place: fc.option(spot),
    area: fc.constantFrom("A", "B", "C", "nowhere", undefined),
    diameter_m: fc.option(fc.integer({ min: 1, max: 30 })),
  })
  .map(({ place, area, diameter_m }): Partial<Item> => ({
    kind: "tank",
    ...place,
    ...(area === undefined ? {} : { area }),
    vessel: { shape: "vertical", diameter_m: diameter_m ?? 0.001 },
  }));

test("the same items as by looking at every one of them, with the same distances and in the same order", () => {
  let found = 0;
  fc.assert(
    fc.property(
      fc.array(item, { maxLength: 30 }),
      fc.uniqueArray(area, { selector: ({ name }) => name, maxLength: 3 }),
      spot,
      fc.constantFrom(0, 1, 10.7, 16, 33),
      (items, areas, at, reach_m) => {
        const plant = { items, areas, links: [], kinds: [] } as unknown as Plant;
        const expected = plant.items.flatMap((one) => {
          const own = areas.find(({ name }) => name === one.area);
          const isPlaced = one.x_m !== undefined && one.y_m !== undefined;
          // To its wall; what has no area that is known may stand anywhere.
          const distance_m = isPlaced
            ? Math.max(0, Math.hypot(one.x_m! - at.x_m, one.y_m! - at.y_m) - one.vessel!.diameter_m / 2)
            : own
              ? rectDistance_m(own, at)
              : 0;
          return distance_m <= reach_m ? [{ item: one, distance_m, isPlaced }] : [];
        });
        expect(itemsNear(plant, at, reach_m)).toEqual(expected);
        found += expected.length;
      },
    ),
    propertyRuns(500),
  );
  expect(found).toBeGreaterThan(0);
});
