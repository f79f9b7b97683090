import { HOT_WORK } from "../fire/hotWork";
import type { Conflict } from "./pair";
import { conflictsOf } from "./search";
import type { Work } from "./work";

/** What would settle a conflict. What cannot be done here is not offered. */
export type WayOut =
  /** The job begins so much later, and then touches nobody. */
  | Readonly<{ way: "shift"; job: string; by_ms: number; from_ms: number }>
  | Readonly<{ way: "screen the flame" }>
  | Readonly<{ way: "blind the open end"; at: readonly string[] }>
  /** Led so much farther from the flame; null where nobody knows how far it is now. */
  | Readonly<{ way: "lead the exhaust away"; by_m: number | null }>
  | Readonly<{ way: "another person" }>
  | Readonly<{ way: "another one of its kind" }>
  | Readonly<{ way: "feed it otherwise"; what: readonly string[] }>
  | Readonly<{ way: "keep them clear" }>;

/** No window is looked for later than this: plans of beyond are guesses. */
export const AHEAD_MS = 42 * 86_400_000;
/** Windows are told in quarters of an hour. */
const QUARTER_MS = 900_000;

/**
 * Ways out of a conflict, the surest first. A shift is offered for the one that begins later and is not under way yet, to
 * the first moment at which it touches nobody at all; none where there is no such moment within six weeks.
 */
export function waysOut(conflict: Conflict, works: readonly Work[]): WayOut[] {
  const ways: WayOut[] = [];
  const two = works.filter(({ job }) => job === conflict.of || job === conflict.with);
  const shift = shiftOf(two, works);
  if (shift) ways.push(shift);
  switch (conflict.kind) {
    case "flame and open end":
      ways.push({ way: "blind the open end", at: conflict.reached }, { way: "screen the flame" });
      break;
    case "flame and exhaust": {
      const { distance_m } = conflict;
      const by_m = distance_m === null ? null : Math.ceil(HOT_WORK.clear_m - distance_m + 1);
      ways.push({ way: "lead the exhaust away", by_m }, { way: "screen the flame" });
      break;
    }
    case "inside the keep-out distance":
    case "lift over people":
    case "work overhead":
      ways.push({ way: "keep them clear" });
      break;
    case "same people":
      ways.push({ way: "another person" });
      break;
    case "same gear":
      ways.push({ way: "another one of its kind" });
      break;
    case "needed and stopped":
      ways.push({ way: "feed it otherwise", what: conflict.reached });
      break;
    case "same place":
      break;
  }
  return ways;
}

/** The later of the two that can still wait, moved to the first moment that leaves it alone. */
function shiftOf(two: readonly Work[], works: readonly Work[]): WayOut | null {
  const movable = two.filter(({ isUnderWay }) => !isUnderWay).sort((a, b) => b.from_ms - a.from_ms)[0];
  if (movable === undefined) return null;
  const others = works.filter(({ job }) => job !== movable.job);
  const by_ms = firstFree_ms(movable, others);
  return by_ms === null ? null : { way: "shift", job: movable.job, by_ms, from_ms: movable.from_ms + by_ms };
}

/**
 * By how much a job must begin later so that it touches nobody, in whole quarters of an hour; null where no moment within six
 * weeks will do. Cost: linear in the others, for each that is in the way.
 */
export function firstFree_ms(work: Work, others: readonly Work[]): number | null {
  let by_ms = 0;
  while (by_ms <= AHEAD_MS) {
    const moved = shifted(work, by_ms);
    const [first] = conflictsOf(moved, others);
    if (first === undefined) return by_ms;
    // While it is moved by less than they meet, they still meet.
    by_ms = Math.ceil((by_ms + first.to_ms - first.from_ms) / QUARTER_MS) * QUARTER_MS;
  }
  return null;
}

export function shifted(work: Work, by_ms: number): Work {
  const later = <T extends Readonly<{ from_ms: number; to_ms: number }>>(one: T): T => ({
    ...one,
    from_ms: one.from_ms + by_ms,
    to_ms: one.to_ms + by_ms,
  });
  return { ...later(work), zones: work.zones.map(later) };
}
