/** Figures of a time that is over: counts and times, of what the record holds and nothing else. */

export type Count = Readonly<{ key: string; n: number }>;

/** How often each key is there, the most first, then by the key. Cost: n log n. */
export function countBy<T>(rows: readonly T[], keysOf: (row: T) => string | readonly string[]): Count[] {
  const counts = new Map<string, number>();
  for (const row of rows) {
    for (const key of new Set([keysOf(row)].flat())) counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return [...counts]
    .map(([key, n]) => ({ key, n }))
    .sort((a, b) => b.n - a.n || (a.key < b.key ? -1 : a.key > b.key ? 1 : 0));
}

export type Spread = Readonly<{ n: number; quarter: number; half: number; threeQuarters: number; most: number }>;

/**
 * The middle of some values, the bounds of the middle half of them and the largest; null of none. Between two values by straight
 * line, as spreadsheets do (Hyndman and Fan 1996, definition 7).
 */
export function spreadOf(values: readonly number[]): Spread | null {
  if (values.length === 0) return null;
  const sorted = [...values].sort((a, b) => a - b);
  const at = (share: number) => {
    const place = share * (sorted.length - 1);
    const below = Math.floor(place);
    const [low, high] = [sorted[below]!, sorted[Math.min(below + 1, sorted.length - 1)]!];
    return low + (high - low) * (place - below);
  };
  return { n: sorted.length, quarter: at(0.25), half: at(0.5), threeQuarters: at(0.75), most: sorted.at(-1)! };
}

/** A path that fell short, by the names that it has in a plan. */
type Way = Readonly<{ source: string; carrier: string; face: string }>;

/**
 * The devices for which a deviation was accepted: those of the plan that hold the path and do not hold it as asked; where none
 * is on it, the source itself, for nothing stands before it.
 */
export function devicesOf(
  way: string,
  plan: Readonly<{
    shortfalls: readonly Way[];
    points: readonly Readonly<{ device: string; holds: readonly Way[] }>[];
  }>,
): string[] {
  const same = (one: Way) => `${one.source} ${one.carrier} ${one.face}` === way;
  const holding = plan.points.filter(({ holds }) => holds.some(same)).map(({ device }) => device);
  if (holding.length > 0) return holding;
  return [plan.shortfalls.find(same)?.source ?? way.split(" ")[0]!];
}

/** One figure as rows of a table: what, of what, how much, in which unit. */
export type FigureRow = Readonly<{ figure: string; of: string; value: number; unit: string }>;
