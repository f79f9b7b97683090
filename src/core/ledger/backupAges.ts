const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** One an hour for two days, one a day for five weeks, one every four weeks for two years. Common practice, no source. */
const KEPT: readonly Readonly<{ every_ms: number; for_ms: number }>[] = [
  { every_ms: HOUR_MS, for_ms: 2 * DAY_MS },
  { every_ms: DAY_MS, for_ms: 35 * DAY_MS },
  { every_ms: 28 * DAY_MS, for_ms: 730 * DAY_MS },
];

/**
 * Which backups are kept, by when they were made, in ms. Of each hour, day and four weeks the first stays, so that one which
 * is kept today is not thrown away tomorrow for a newer one of the same day; the newest stays always, and so does one that
 * is dated in the future: a clock may have been wrong. Cost: linear in their number, after sorting.
 */
export function keptBackups(made_ms: readonly number[], now_ms: number): Set<number> {
  const oldestFirst = [...made_ms].sort((a, b) => a - b);
  const kept = new Set(oldestFirst.slice(-1));
  for (const at_ms of oldestFirst) if (at_ms > now_ms) kept.add(at_ms);
  for (const { every_ms, for_ms } of KEPT) {
    let last = -Infinity;
    for (const at_ms of oldestFirst) {
      const slot = Math.floor(at_ms / every_ms);
      if (slot !== last && at_ms > now_ms - for_ms) kept.add(at_ms);
      last = slot;
    }
  }
  return kept;
}
