import type { PermitKind } from "../permit/kinds/kinds";
import type { PermitState } from "../permit/record/permitTypes";

/**
 * What the board is drawn from: for each permit, job and lock what was so from when to when. A picture of any moment is read
 * off these, so that looking back and forth asks nobody anything.
 */

/** A value that changes now and then: each stands from its moment to the next. Oldest first. */
export type Steps<T> = readonly (readonly [from_ms: number, value: T])[];

/** Where something is, in metres from the site datum; `isKnown` is false where nobody wrote it down. */
export type Spot = Readonly<{ x_m: number; y_m: number; level_m: number; area: string; isKnown: boolean }>;

/** A ring around a permit's work that others keep out of, or that reaches others. */
export type Reach = Readonly<{ what: "flame" | "keep-out" | "exhaust"; reach_m: number }>;

export type PermitTrack = Readonly<{
  number: string;
  job: string;
  title: string;
  kind: PermitKind;
  spot: Spot;
  validFrom_ms: number;
  validTo_ms: number;
  /** As the record has it. */
  states: Steps<PermitState>;
  /** How many were signed on, and how many inside. */
  on: Steps<number>;
  inside: Steps<number>;
  /** Air is blown out of the space. */
  purging: Steps<boolean>;
  reaches: readonly Reach[];
  /** Tags of the ends that it opens. */
  opens: readonly string[];
}>;

export type JobTrack = Readonly<{
  number: string;
  title: string;
  spot: Spot;
  from_ms: number;
  to_ms: number;
  asked_ms: number;
  /** Something is isolated for it: it cannot simply begin at another time. */
  isUnderWay: boolean;
  /** When it was closed or withdrawn; null while it is open. */
  over_ms: number | null;
  lifts: readonly Readonly<{ what: string; spot: Spot }>[];
}>;

/** A device and when locks hung on it; null as the end while one hangs. */
export type LockTrack = Readonly<{
  tag: string;
  spot: Spot;
  hung: readonly (readonly [from_ms: number, to_ms: number | null])[];
}>;

export type SiteTracks = Readonly<{
  permits: readonly PermitTrack[];
  jobs: readonly JobTrack[];
  locks: readonly LockTrack[];
  /** How many people were on, on post or inside, each once. */
  heads: Steps<number>;
}>;

/** What stood at a moment; undefined before the first. Cost: logarithmic. */
export function valueAt<T>(steps: Steps<T>, at_ms: number): T | undefined {
  let low = 0;
  let high = steps.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (steps[middle]![0] <= at_ms) low = middle + 1;
    else high = middle;
  }
  return steps[low - 1]?.[1];
}

/**
 * A value that grows and shrinks, from the moments when each of many came and went. Who came and went at one moment was
 * never there.
 */
export function countSteps(stays: readonly Readonly<{ from_ms: number; to_ms: number | null }>[]): Steps<number> {
  const changes = new Map<number, number>();
  const add = (at_ms: number, by: number) => changes.set(at_ms, (changes.get(at_ms) ?? 0) + by);
  for (const { from_ms, to_ms } of stays) {
    if (to_ms !== null && to_ms <= from_ms) continue;
    add(from_ms, 1);
    if (to_ms !== null) add(to_ms, -1);
  }
  let count = 0;
  return [...changes]
    .filter(([, by]) => by !== 0)
    .sort(([a], [b]) => a - b)
    .map(([at_ms, by]) => [at_ms, (count += by)] as const);
}
