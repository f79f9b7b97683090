import fc from "fast-check";
import { keptBackups } from "./backupAges";

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const NOW_MS = Date.UTC(2026, 5, 14, 9, 20);

/** A server that makes one every hour and throws away what is not kept, from the start on. */
function afterHours(hours: number): number[] {
  let all: number[] = [];
  for (let hour = hours; hour >= 0; hour--) {
    const now_ms = NOW_MS - hour * HOUR_MS;
    all.push(now_ms);
    const kept = keptBackups(all, now_ms);
    all = all.filter((at_ms) => kept.has(at_ms));
  }
  return all;
}

test("after two years of one an hour, every hour, day and four weeks that is promised is there, and few besides", () => {
  const all = afterHours(24 * 760);
  const age = (at_ms: number) => NOW_MS - at_ms;
  const hours = all.filter((at_ms) => age(at_ms) < 2 * DAY_MS);
  expect(hours).toHaveLength(48);
  for (let day = 1; day < 34; day++) {
    expect(all.some((at_ms) => age(at_ms) >= (day - 1) * DAY_MS && age(at_ms) < (day + 1) * DAY_MS)).toBe(true);
  }
  for (let month = 1; month < 26; month++) {
    const from_ms = month * 28 * DAY_MS;
    expect(all.some((at_ms) => Math.abs(age(at_ms) - from_ms) <= 28 * DAY_MS)).toBe(true);
  }
  expect(all.length).toBeLessThan(48 + 36 + 28);
});

test("the newest is kept whatever its age, and nothing that is dated ahead is thrown away", () => {
  expect(keptBackups([NOW_MS - 5000 * DAY_MS], NOW_MS).size).toBe(1);
  expect(keptBackups([], NOW_MS).size).toBe(0);
  const ahead = [NOW_MS + HOUR_MS, NOW_MS + HOUR_MS + 1];
  expect([...keptBackups(ahead, NOW_MS)].sort()).toEqual(ahead);
});

test("what is kept was made, its order does not count, and throwing the rest away changes nothing", () => {
  const times = fc.array(fc.integer({ min: NOW_MS - 900 * DAY_MS, max: NOW_MS + DAY_MS }), { maxLength: 80 });
  fc.assert(
    fc.property(times, (made) => {
      const kept = keptBackups(made, NOW_MS);
      expect([...kept].every((at_ms) => made.includes(at_ms))).toBe(true);
      expect(keptBackups([...made].reverse(), NOW_MS)).toEqual(kept);
      expect(keptBackups([...kept], NOW_MS)).toEqual(kept);
      if (made.length > 0) expect(kept.has(Math.max(...made))).toBe(true);
    }),
  );
});
