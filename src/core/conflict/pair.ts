import { flameReach_m } from "../fire/flameReach";
import { overlap_ms, type Work, type WorkSpot, type WorkZone } from "./work";

export const CONFLICT_KINDS = [
  "flame and open end",
  "flame and exhaust",
  "inside the keep-out distance",
  "lift over people",
  "work overhead",
  "needed and stopped",
  "same people",
  "same gear",
  "same place",
] as const;
export type ConflictKind = (typeof CONFLICT_KINDS)[number];

/** Nobody is hurt by these: one of the two waits, or takes another. */
const OF_HANDS: readonly ConflictKind[] = ["same people", "same gear"];

/** It is about who and what is there for both, and not about what reaches anybody. */
export function isOfHands({ kind }: Readonly<{ kind: ConflictKind }>): boolean {
  return OF_HANDS.includes(kind);
}

/** Two jobs that touch: a person decides, and the decision is kept. Code and evidence, no sentence. */
export type Conflict = Readonly<{
  /** The same for the same two jobs and reason, whichever is asked about. */
  id: string;
  kind: ConflictKind;
  /** Whose flame, load or pressure it is, then whom it reaches; in the order of their numbers where they are alike. */
  of: string;
  with: string;
  /** What reaches: the permit or the load. Empty where it is about what both have or need. */
  what: string;
  /** What of the other is reached; or what both have or need: tags, numbers, ids of people. */
  reached: readonly string[];
  /** How near in metres; null where it is not about distance, or where nobody knows the place. */
  distance_m: number | null;
  /** While both are at it. */
  from_ms: number;
  to_ms: number;
}>;

/**
 * Where two jobs touch, at one and the same time. Two jobs that hold the same point do not: its lock stays until the last has
 * released it, see `sharedPoints`. Cost: their spots and zones, each with each. */
export function conflictsBetween(a: Work, b: Work): Conflict[] {
  if (a.job === b.job) return [];
  const [one, two] = a.job < b.job ? [a, b] : [b, a];
  const found: Conflict[] = [];
  zonesReach(one, two, found);
  zonesReach(two, one, found);
  const both = overlap_ms(one, two);
  if (both === null) return found;
  needed(one, two, both, found);
  needed(two, one, both, found);
  alike("same people", one, two, both, shared(one.people, two.people), found);
  alike("same gear", one, two, both, shared(one.gear, two.gear), found);
  alike("same place", one, two, both, shared(tagsOf(one), tagsOf(two)), found);
  return found;
}

type Time = Readonly<{ from_ms: number; to_ms: number }>;
const tagsOf = ({ spots }: Work) => spots.map(({ tag }) => tag);

/** What is in both, once each, sorted. */
function shared(a: readonly string[], b: readonly string[]): string[] {
  if (a.length === 0 || b.length === 0) return [];
  return [...new Set(a.filter((one) => b.includes(one)))].sort();
}

function alike(kind: ConflictKind, a: Work, b: Work, time: Time, what: readonly string[], found: Conflict[]): void {
  if (what.length > 0) add(found, { kind, of: a, with: b, what: "", reached: what, distance_m: null, time });
}

function needed(stopping: Work, needing: Work, time: Time, found: Conflict[]): void {
  const reached = shared([...stopping.stops, ...stopping.loses], needing.needs);
  if (reached.length === 0) return;
  add(found, { kind: "needed and stopped", of: stopping, with: needing, what: "", reached, distance_m: null, time });
}

function zonesReach(reaching: Work, other: Work, found: Conflict[]): void {
  for (const zone of reaching.zones) {
    if (zone.what === "exhaust") continue;
    const time = overlap_ms(zone, other);
    if (time !== null) reachesSpots(zone, reaching, other, time, found);
    if (zone.what !== "flame") continue;
    for (const exhaust of other.zones) {
      const both = exhaust.what === "exhaust" ? overlap_ms(zone, exhaust) : null;
      if (both === null) continue;
      const distance_m = reachTo_m(zone, exhaust);
      if (distance_m === OUT_OF_REACH) continue;
      const at = { what: zone.by, reached: [exhaust.name], distance_m, time: both };
      add(found, { kind: "flame and exhaust", of: reaching, with: other, ...at });
    }
  }
}

const BY_ZONE = {
  flame: "flame and open end",
  "keep-out": "inside the keep-out distance",
  lift: "lift over people",
  overhead: "work overhead",
} as const;

function reachesSpots(zone: WorkZone, reaching: Work, other: Work, time: Time, found: Conflict[]): void {
  if (zone.what === "exhaust") return;
  const reached: string[] = [];
  let nearest_m: number | null = null;
  for (const spot of other.spots) {
    if (zone.what === "flame" && !spot.isOpened) continue;
    // Nothing falls upwards.
    if (zone.what === "overhead" && zone.isKnown && spot.isKnown && spot.level_m >= zone.level_m) continue;
    const distance_m = reachTo_m(zone, spot);
    if (distance_m === OUT_OF_REACH) continue;
    reached.push(spot.tag);
    if (distance_m !== null) nearest_m = nearest_m === null ? distance_m : Math.min(nearest_m, distance_m);
  }
  if (reached.length === 0) return;
  const what = zone.what === "lift" ? zone.name : zone.by;
  const at = { what, reached: [...new Set(reached)].sort(), distance_m: nearest_m, time };
  add(found, { kind: BY_ZONE[zone.what], of: reaching, with: other, ...at });
}

const OUT_OF_REACH = Infinity;

/** How far it is where that is within reach, null where nobody knows a place, `OUT_OF_REACH` where it is not. */
function reachTo_m(zone: WorkZone, to: Pick<WorkSpot, "x_m" | "y_m" | "level_m" | "isKnown">): number | null {
  if (!zone.isKnown || !to.isKnown) return null;
  const distance_m = Math.hypot(to.x_m - zone.x_m, to.y_m - zone.y_m);
  return distance_m <= reachAt_m(zone, to.level_m) ? distance_m : OUT_OF_REACH;
}

/** Sparks get farther on floors below; what else reaches, reaches as far on every floor. */
export function reachAt_m({ what, reach_m, level_m }: WorkZone, at_level_m: number): number {
  return what === "flame" ? Math.max(reach_m, flameReach_m(level_m - at_level_m)) : reach_m;
}

type Found = Readonly<{
  kind: ConflictKind;
  of: Work;
  with: Work;
  what: string;
  reached: readonly string[];
  distance_m: number | null;
  time: Time;
}>;

function add(found: Conflict[], { kind, of, with: other, what, reached, distance_m, time }: Found): void {
  const id = [kind, of.job, other.job, what, ...reached].join(" | ");
  const { from_ms, to_ms } = time;
  found.push({ id, kind, of: of.job, with: other.job, what, reached, distance_m, from_ms, to_ms });
}
