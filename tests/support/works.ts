import fc from "fast-check";
import type { Work, WorkSpot, WorkZone } from "../../src/core/conflict/work";

export const HOUR_MS = 3_600_000;

/** A job of eight hours that touches nobody. */
export function work(job: string, more: Partial<Work> = {}): Work {
  return {
    job,
    title: job,
    from_ms: 0,
    to_ms: 8 * HOUR_MS,
    isUnderWay: false,
    spots: [],
    zones: [],
    people: [],
    stops: [],
    loses: [],
    needs: [],
    gear: [],
    ...more,
  };
}

const some = (names: string) => fc.subarray([...names], { minLength: 0, maxLength: 3 });
const hour = (most: number) => fc.integer({ min: 0, max: most * 4 }).map((quarters) => (quarters * HOUR_MS) / 4);
const at = {
  x_m: fc.integer({ min: 0, max: 60 }),
  y_m: fc.integer({ min: 0, max: 40 }),
  level_m: fc.constantFrom(-2, 0, 5, 12),
  isKnown: fc.integer({ min: 0, max: 19 }).map((n) => n > 0),
};
const spot: fc.Arbitrary<WorkSpot> = fc.record({
  tag: fc.constantFrom(..."abcdefghijkl"),
  ...at,
  isOpened: fc.boolean(),
});
const zone: fc.Arbitrary<WorkZone> = fc
  .record({
    what: fc.constantFrom(
      "flame" as const,
      "keep-out" as const,
      "lift" as const,
      "exhaust" as const,
      "overhead" as const,
    ),
    by: fc.constantFrom("P-1", "P-2", "P-3"),
    name: fc.constantFrom("rotor", "space"),
    ...at,
    reach_m: fc.constantFrom(3, 6, 10.668, 25),
    from_ms: hour(72),
    to_ms: hour(24),
  })
  .map(({ from_ms, to_ms, ...rest }) => ({ ...rest, from_ms, to_ms: from_ms + to_ms }));

/** A handful of jobs over three days on a small site, which touch each other now and then. */
export const anyWorks: fc.Arbitrary<Work[]> = fc
  .array(
    fc
      .record({
        from_ms: hour(72),
        to_ms: hour(24),
        isUnderWay: fc.boolean(),
        spots: fc.array(spot, { maxLength: 3 }),
        zones: fc.array(zone, { maxLength: 2 }),
        people: some("ABCDEFGHIJKLMNOP"),
        stops: some("qrstuvwxyz"),
        loses: some("qrstuvwxyz"),
        needs: some("qrstuvwxyz"),
        gear: some("0123456789"),
      })
      .map((one) => ({ ...one, to_ms: one.from_ms + one.to_ms })),
    { minLength: 2, maxLength: 12 },
  )
  .map((works) => works.map((one, index) => work(`J-${String(index + 1).padStart(2, "0")}`, one)));
