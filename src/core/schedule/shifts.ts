/** Hours of the site's clock at which a shift ends and the next begins, where a site says nothing. Common practice, no source. */
export const SHIFT_HOURS: readonly number[] = [6, 14, 22];

/** Hours as a site writes them down, such as "6, 18"; null where they are no hours. */
export function readShiftHours(text: string): number[] | null {
  const hours = text.split(",").map((hour) => (/^\d{1,2}$/.test(hour.trim()) ? Number(hour) : NaN));
  const sound = hours.every((hour) => hour >= 0 && hour <= 23) && new Set(hours).size === hours.length;
  return sound ? hours.sort((a, b) => a - b) : null;
}

/** The longest shift by the site's hours, h: what lasts longer is taken over by others at least once. */
export function longestShift_h(hours: readonly number[] = SHIFT_HOURS): number {
  const sorted = [...hours].sort((a, b) => a - b);
  if (sorted.length === 0) return 24;
  return Math.max(...sorted.map((hour, i) => (sorted[i + 1] ?? sorted[0]! + 24) - hour));
}

const QUARTER_MS = 3_600_000 / 4;

/**
 * Every shift change between two moments, in ms, the first included. `clock` reads the site's clock, so that days of 23 and
 * 25 hours have theirs too. Looked for by quarters, for zones that are not a whole hour off. Cost: linear in the time.
 */
export function shiftChangesBetween(
  from_ms: number,
  to_ms: number,
  clock: (at_ms: number) => Readonly<{ hour: number; minute: number }>,
  hours: readonly number[] = SHIFT_HOURS,
): number[] {
  const found: number[] = [];
  for (let at = Math.ceil(from_ms / QUARTER_MS) * QUARTER_MS; at < to_ms; at += QUARTER_MS) {
    const { hour, minute } = clock(at);
    if (minute === 0 && hours.some((change) => change === hour)) found.push(at);
  }
  return found;
}
