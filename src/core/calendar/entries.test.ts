import fc from "fast-check";
import type { PersonId } from "../people/roles";
import { CALENDAR_AHEAD_MS, CALENDAR_BACK_MS, entriesFor, type CalendarEntry } from "./entries";

const now_ms = 1_000_000_000_000;
const una = "una" as PersonId;
const entry = fc.record({
  id: fc.string({ minLength: 1, maxLength: 2 }),
  words: fc.constant("Permit ends"),
  from_ms: fc.integer({ min: now_ms - 3 * CALENDAR_BACK_MS, max: now_ms + CALENDAR_AHEAD_MS * 1.2 }),
  to_ms: fc.option(fc.integer({ min: now_ms - 3 * CALENDAR_BACK_MS, max: now_ms + CALENDAR_AHEAD_MS * 1.2 })),
  path: fc.constant("/"),
  people: fc.subarray([una, "arn" as PersonId]),
}) satisfies fc.Arbitrary<CalendarEntry>;

test("in order, each once, nobody's but theirs, and nothing that still goes on is left out", () => {
  fc.assert(
    fc.property(fc.array(entry), (all) => {
      const site = entriesFor(all, null, now_ms);
      const own = entriesFor(all, una, now_ms);
      expect(new Set(site.map(({ id }) => id)).size).toBe(site.length);
      expect(site.every((one, at) => at === 0 || one.from_ms >= site[at - 1]!.from_ms)).toBe(true);
      expect(own.every(({ people }) => people.includes(una))).toBe(true);
      const shown = new Set(site.map(({ id }) => id));
      const goesOn = all.filter(({ from_ms, to_ms }) => from_ms <= now_ms && to_ms !== null && to_ms > now_ms);
      expect(goesOn.filter(({ id }) => !shown.has(id))).toEqual([]);
      const soon = all.filter(({ from_ms }) => from_ms > now_ms && from_ms < now_ms + CALENDAR_BACK_MS);
      expect(soon.filter(({ id, to_ms }) => to_ms === null && !shown.has(id))).toEqual([]);
    }),
  );
});
