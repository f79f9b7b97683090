import Flatbush from "flatbush";
import { conflictsBetween, reachAt_m, type Conflict } from "./pair";
import type { Work, WorkSpot, WorkZone } from "./work";

/**
 * Every conflict among many jobs, by the first moment and then by id. Two jobs can only touch if they share a person, a
 * number, a place or a point at one time, or if a zone of one reaches a place of the other; who shares is found by a sweep
 * over time for each thing that is shared, who is reached by a spatial index. Whom these find are compared in full.
 *
 * Cost: what is near each zone, and what is shared at one time; all pairs only where everything touches everything.
 */
export function findConflicts(works: readonly Work[]): Conflict[] {
  const pairs = new Pairs(works);
  sharing(works, pairs);
  reaching(works, pairs);
  return onceEach(inOrder(pairs.compared()));
}

/** The same reason found by two zones of one permit is one conflict, while either lasts. In order by their first moment. */
function onceEach(found: readonly Conflict[]): Conflict[] {
  const known = new Map<string, Conflict>();
  for (const one of found) {
    const before = known.get(one.id);
    known.set(one.id, before ? { ...before, to_ms: Math.max(before.to_ms, one.to_ms) } : one);
  }
  return [...known.values()];
}

/** Those of one job against the others, as for a window that somebody tries. Cost: linear, and what it touches. */
export function conflictsOf(work: Work, others: readonly Work[]): Conflict[] {
  return inOrder(others.flatMap((other) => (other.job === work.job ? [] : conflictsBetween(work, other))));
}

/** By the first moment, then by id. */
function inOrder(found: Conflict[]): Conflict[] {
  return found.sort((a, b) => a.from_ms - b.from_ms || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
}

/** A point that several jobs will hold at one time: one isolation may serve them all. */
export type SharedPoint = Readonly<{ point: string; jobs: readonly string[] }>;

/** Points that more than one job holds at one time, with all that do at any time, by tag. Cost: linear in the points, but for sorting. */
export function sharedPoints(works: readonly Work[]): SharedPoint[] {
  const holders = new Map<string, Work[]>();
  for (const work of [...works].sort((a, b) => a.from_ms - b.from_ms)) {
    for (const point of new Set(work.stops)) {
      const known = holders.get(point);
      if (known) known.push(work);
      else holders.set(point, [work]);
    }
  }
  return [...holders]
    .flatMap(([point, own]) => {
      let latest_ms = -Infinity;
      const meet = own.some(({ from_ms, to_ms }) => {
        const meetsOne = from_ms < latest_ms;
        latest_ms = Math.max(latest_ms, to_ms);
        return meetsOne;
      });
      return meet ? [{ point, jobs: own.map(({ job }) => job).sort() }] : [];
    })
    .sort((a, b) => (a.point < b.point ? -1 : 1));
}

/** Each pair once, whoever finds it first. */
class Pairs {
  private readonly seen = new Set<number>();
  constructor(private readonly works: readonly Work[]) {}

  add(a: number, b: number): void {
    if (a !== b) this.seen.add(a < b ? a * this.works.length + b : b * this.works.length + a);
  }

  compared(): Conflict[] {
    const n = this.works.length;
    const found: Conflict[] = [];
    for (const pair of this.seen)
      found.push(...conflictsBetween(this.works[Math.floor(pair / n)]!, this.works[pair % n]!));
    return found;
  }
}

const meets = (a: Readonly<{ from_ms: number; to_ms: number }>, b: Readonly<{ from_ms: number; to_ms: number }>) =>
  a.from_ms < b.to_ms && b.from_ms < a.to_ms;

/** For each thing that somebody has or needs: a sweep over those who do, in the order in which they begin. */
function sharing(works: readonly Work[], pairs: Pairs): void {
  const [people, gear, places, things] = [new Users(), new Users(), new Users(), new Users()];
  const needed = new Set(works.flatMap(({ needs }) => needs));
  const order = works.map((_, index) => index).sort((a, b) => works[a]!.from_ms - works[b]!.from_ms);
  for (const index of order) {
    const work = works[index]!;
    for (const person of work.people) people.add(person, index);
    for (const number of work.gear) gear.add(number, index);
    for (const { tag } of work.spots) places.add(tag, index);
    // Stopped by one and needed by another stand under one name. What nobody needs may be stopped by all.
    for (const tag of needed.size === 0 ? [] : [...work.stops, ...work.loses]) {
      if (needed.has(tag)) things.add(tag, index);
    }
    for (const tag of work.needs) things.add(tag, index);
  }
  for (const users of [people, gear, places, things]) users.sweep(works, pairs);
}

/** Who uses what, in the order in which they begin. */
class Users {
  private readonly of = new Map<string, number[]>();

  add(name: string, index: number): void {
    const known = this.of.get(name);
    if (known === undefined) this.of.set(name, [index]);
    else if (known[known.length - 1] !== index) known.push(index);
  }

  sweep(works: readonly Work[], pairs: Pairs): void {
    for (const indices of this.of.values()) {
      if (indices.length === 1) continue;
      let going: number[] = [];
      for (const index of indices) {
        const { from_ms } = works[index]!;
        going = going.filter((other) => works[other]!.to_ms > from_ms);
        for (const other of going) pairs.add(index, other);
        going.push(index);
      }
    }
  }
}

/**
 * Who is within reach of a zone, on any floor, at one time. The index is over time and one direction on the ground, for few
 * are at work at one time; the other direction is looked at for those it finds. What is somewhere unknown may be anywhere.
 */
function reaching(works: readonly Work[], pairs: Pairs): void {
  const spans = works.map(spanOf);
  const spots: Readonly<{ x_m: number; y_m: number; work: number }>[] = [];
  const unknown = new Set<number>();
  let lowest_m = Infinity;
  works.forEach((work, index) => {
    const add = ({ isKnown, x_m, y_m, level_m }: Pick<WorkSpot, "isKnown" | "x_m" | "y_m" | "level_m">) => {
      if (!isKnown) return void unknown.add(index);
      spots.push({ x_m, y_m, work: index });
      lowest_m = Math.min(lowest_m, level_m);
    };
    work.spots.forEach(add);
    for (const zone of work.zones) if (isExhaust(zone)) add(zone);
  });
  const index = spots.length === 0 ? null : new Flatbush(spots.length);
  for (const { x_m, work } of spots) index?.add(spans[work]!.from_ms, x_m, spans[work]!.to_ms, x_m);
  index?.finish();
  works.forEach((work, own) => {
    for (const zone of work.zones) {
      if (isExhaust(zone)) continue;
      const tries = (other: number) => {
        if (meets(zone, spans[other]!)) pairs.add(own, other);
      };
      if (!zone.isKnown || index === null) works.forEach((_, other) => tries(other));
      else {
        unknown.forEach(tries);
        const { x_m, y_m, from_ms, to_ms } = zone;
        const reach_m = reachAt_m(zone, Math.min(lowest_m, zone.level_m));
        for (const hit of index.search(from_ms, x_m - reach_m, to_ms, x_m + reach_m)) {
          const spot = spots[hit]!;
          if (Math.abs(spot.y_m - y_m) <= reach_m) tries(spot.work);
        }
      }
    }
  });
}

/** From the first to the last moment of a job and of what reaches from it: a permit may run past its job's window. */
function spanOf({ from_ms, to_ms, zones }: Work): Readonly<{ from_ms: number; to_ms: number }> {
  return {
    from_ms: zones.reduce((least, zone) => Math.min(least, zone.from_ms), from_ms),
    to_ms: zones.reduce((most, zone) => Math.max(most, zone.to_ms), to_ms),
  };
}

const isExhaust = ({ what }: WorkZone) => what === "exhaust";
