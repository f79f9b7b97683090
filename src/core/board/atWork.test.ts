import fc from "fast-check";
import { atWorkSince, REST_MS, type Seen } from "./atWork";

const HOUR_MS = 3_600_000;
const now_ms = 200 * HOUR_MS;
const stay = (from_h: number, to_h: number): Seen => ({
  from_ms: now_ms - from_h * HOUR_MS,
  to_ms: now_ms - to_h * HOUR_MS,
});
const hours = (...seen: Seen[]) => {
  const since_ms = atWorkSince(seen, now_ms);
  return since_ms === null ? null : (now_ms - since_ms) / HOUR_MS;
};

test("a second permit does not begin the day anew, a rest does", () => {
  expect(hours()).toBeNull();
  expect(hours(stay(1, 0))).toBe(1);
  expect(hours(stay(13, 5), stay(1, 0))).toBe(13);
  expect(hours(stay(20, 9.5), stay(1, 0))).toBe(1);
  // Signed off and nothing since: the turn is over once they have rested.
  expect(hours(stay(13, 5))).toBe(13);
  expect(hours(stay(20, 8))).toBeNull();
  // A long stay that reaches over later ones counts whole.
  expect(hours(stay(14, 0), stay(3, 2))).toBe(14);
  // Steps signed in the night are work.
  expect(hours(stay(14, 14), stay(7, 7), stay(1, 0))).toBe(14);
});

test("as a slow reference has it: minute by minute back until nobody was seen for the length of a rest", () => {
  const minute = fc.integer({ min: 0, max: 40 * 60 });
  // Exactly a rest, a minute less, and a long stay that ends before a short one begins.
  const edges: [number, number][][] = [
    [[480, 480]],
    [[479, 479]],
    [
      [500, 400],
      [30, 10],
    ],
  ];
  const all = fc.oneof(fc.array(fc.tuple(minute, minute), { maxLength: 6 }), fc.constantFrom(...edges));
  fc.assert(
    fc.property(all, (pairs: readonly (readonly [number, number])[]) => {
      const seen = pairs.map(([a, b]) => stay(Math.max(a, b) / 60, Math.min(a, b) / 60));
      const at = (ms: number) => seen.some(({ from_ms, to_ms }) => from_ms <= ms && ms <= to_ms);
      let since: number | null = null;
      for (let ms = now_ms, last = now_ms; ms >= now_ms - 48 * HOUR_MS; ms -= 60_000) {
        if (last - ms >= REST_MS) break;
        if (at(ms)) [since, last] = [ms, ms];
      }
      expect(atWorkSince(seen, now_ms)).toBe(since);
    }),
  );
});
