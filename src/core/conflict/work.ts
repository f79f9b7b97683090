/** Work as others see it: where and when it is, whom and what it takes, and what of it reaches others. */

export type WorkSpot = Readonly<{
  tag: string;
  x_m: number;
  y_m: number;
  level_m: number;
  /** False where nobody wrote down where it is: it may be anywhere. */
  isKnown: boolean;
  /** Met open: what is inside may come out here. */
  isOpened: boolean;
}>;

/** Something that reaches beyond its own work, from when to when; times in ms, distances in metres. */
export type WorkZone = Readonly<{
  what: "flame" | "keep-out" | "lift" | "exhaust" | "overhead";
  /** The permit, or the job while no permit of that kind is written. */
  by: string;
  /** The load, the space or the place, as it is said to people. */
  name: string;
  x_m: number;
  y_m: number;
  level_m: number;
  isKnown: boolean;
  reach_m: number;
  from_ms: number;
  to_ms: number;
}>;

/** All of one job: two parts of the same job are no conflict, one leads both. */
export type Work = Readonly<{
  job: string;
  title: string;
  from_ms: number;
  to_ms: number;
  /** Locks hang or people are on: it cannot simply be put off. */
  isUnderWay: boolean;
  spots: readonly WorkSpot[];
  zones: readonly WorkZone[];
  /** Who is named for it: ids. */
  people: readonly string[];
  /** Devices that are locked for it, or will be by its plan. */
  stops: readonly string[];
  /** What no longer runs because of them. */
  loses: readonly string[];
  /** Devices and items that must go on while it lasts: a purge, ventilation, a temporary supply. */
  needs: readonly string[];
  /** Numbered things that it has with it. */
  gear: readonly string[];
}>;

/** Half open: what ends as the other begins does not meet it. */
export function overlap_ms(
  a: Readonly<{ from_ms: number; to_ms: number }>,
  b: Readonly<{ from_ms: number; to_ms: number }>,
): Readonly<{ from_ms: number; to_ms: number }> | null {
  const from_ms = Math.max(a.from_ms, b.from_ms);
  const to_ms = Math.min(a.to_ms, b.to_ms);
  return from_ms < to_ms ? { from_ms, to_ms } : null;
}
