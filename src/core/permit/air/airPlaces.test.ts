import fc from "fast-check";
import { DETAILS } from "../../../../tests/support/permits";
import { propertyRuns } from "../../../../tests/support/runs";
import { TEST_SPACING_m, testPoints } from "../../atmosphere/testPoints";
import { airPlaces } from "./airPlaces";

const entry = (more: object) =>
  ({ ...DETAILS["confined space entry"], ...more }) as (typeof DETAILS)["confined space entry"];

test("a wide space is read to the side as well, from inside, each place by a name of its own", () => {
  const { points, inside } = airPlaces(entry({ depth_m: 2, travel_m: 0, width_m: 2.4, corners: 0, ducts: 0 }));
  // Three depths on three lines.
  expect(points).toHaveLength(9);
  expect(new Set(points).size).toBe(9);
  expect(inside).toEqual(points.filter((point) => point.includes("to the side")));
});

test("nobody wrote down how wide it is: it is read as one that is wide", () => {
  const known = (width_m: number) => airPlaces(entry({ travel_m: 0, width_m })).points.length;
  const unknown = airPlaces(entry({ travel_m: 0, width_m: undefined })).points.length;
  expect(unknown).toBe(known(2.4));
  expect(unknown).toBeGreaterThan(known(1.2));
  expect(airPlaces(entry({ travel_m: 6, width_m: undefined })).points.length).toBe(
    airPlaces(entry({ travel_m: 6, width_m: 6 })).points.length,
  );
});

test("no place in a space is farther than the spacing from where its air is read, along any side of it", () => {
  const side = fc.double({ min: 0, max: 9, noNaN: true });
  const share = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(side, side, side, share, share, share, (depth_m, travel_m, width_m, down, along, over) => {
      const all = testPoints({ depth_m, travel_m, width_m, corners: 0, ducts: 0 });
      const near = all.some(
        (point) =>
          Math.abs(point.depth_m - down * depth_m) <= TEST_SPACING_m / 2 + 1e-6 &&
          Math.abs(point.travel_m - along * travel_m) <= TEST_SPACING_m / 2 + 1e-6 &&
          Math.abs(point.aside_m - over * width_m) <= TEST_SPACING_m + 1e-6,
      );
      expect(near).toBe(true);
      const { points } = airPlaces(entry({ depth_m, travel_m, width_m, corners: 2, ducts: 1 }));
      expect(new Set(points).size).toBe(points.length);
    }),
    propertyRuns(300),
  );
});
