import { onceFor } from "../onceFor";
import type { StateGraph } from "../trace/stateGraph";

/** What is at a vertex: no gate, a gate that is the only one of its unit, else the number of its unit, 0 or more. */
export const NO_GATE = -2;
export const SINGLE_GATE = -1;

export type Crossed = Readonly<{
  depth: number;
  /** The units of several gates that this way crosses. */
  units: readonly number[];
}>;

export type DistinctUnits = Readonly<{
  /** By source vertex: the fewest distinct units on any way, where it is less than `below`. */
  found: ReadonlyMap<number, Crossed>;
  /** A source that is not found has at least so many. */
  atLeast: number;
  /** Labels made and compared: what it cost. */
  work: number;
}>;

/**
 * The fewest distinct units on any way from each of `sources` to the nearest target, where one unit may stand at several
 * gates of a way and counts once. Exact as far as `below` units, or until `mostLabels` are made: then `atLeast` says how far
 * it is known that there is nothing with less. Fewest colours on a path is hard in general, so some bound there must be.
 *
 * Backwards from the targets, by the number of units crossed. A label is a vertex with the units of several gates crossed
 * on the way from it. It is dropped where another label at the same vertex is as good however the way goes on: its number,
 * and a unit more for each that the dropped one has crossed and it has not, come to no more.
 *
 * Cost: one label for each vertex and each set of units crossed on the way to it that no other one beats.
 */
export function distinctUnits(
  graph: StateGraph,
  targets: readonly number[],
  unitAt: (vertex: number) => number,
  p: Readonly<{
    sources: ReadonlySet<number>;
    isBetween: Uint8Array;
    below: number;
    mostLabels: number;
    /** Beyond so many units only this many labels are made: it is good to know, and not needed. */
    enough: number;
    mostBeyond: number;
  }>,
): DistinctUnits {
  const { first, other } = graph.in;
  const isTarget = new Set(targets);
  const sets = crossedSets();
  const found = new Map<number, Crossed>();
  const kept = new Map<number, { depth: number; set: number }[]>();
  let labels = 0;
  let work = 0;
  let layer: { vertex: number; set: number }[] = [];
  let next: typeof layer = [];
  const add = (vertex: number, depth: number, set: number, into: typeof layer) => {
    const here = kept.get(vertex) ?? [];
    work += 1 + here.length;
    if (here.some((one) => one.depth + sets.missing(set, one.set) <= depth)) return;
    here.push({ depth, set });
    kept.set(vertex, here);
    into.push({ vertex, set });
    labels++;
  };
  for (const target of isTarget) add(target, 0, EMPTY, layer);
  for (let depth = 0; layer.length > 0 && depth < p.below; depth++) {
    next = [];
    const most = depth < p.enough ? p.mostLabels : Math.min(p.mostBeyond, p.mostLabels);
    // The layer grows while it is worked, by what costs nothing.
    for (let head = 0; head < layer.length; head++) {
      if (labels > most) return { found, atLeast: depth, work };
      const { vertex, set } = layer[head]!;
      if (p.sources.has(vertex) && !found.has(vertex)) {
        found.set(vertex, { depth, units: sets.unitsOf(set) });
        if (found.size === p.sources.size) return { found, atLeast: p.below, work };
      }
      const unit = isTarget.has(vertex) ? NO_GATE : unitAt(vertex);
      const then = unit < 0 ? set : sets.withUnit(set, unit);
      const crossing = unit === SINGLE_GATE || then !== set ? 1 : 0;
      if (depth + crossing >= p.below) continue;
      for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
        const before = other[arc]!;
        if (p.isBetween[before] === 1) add(before, depth + crossing, then, crossing === 0 ? layer : next);
      }
    }
    layer = next;
  }
  return { found, atLeast: p.below, work };
}

const EMPTY = 0;

/** Sets of units by number: each is made once, and so is each step from one to the next. */
function crossedSets() {
  const all: (readonly number[])[] = [[]];
  const numbered = new Map<string, number>([["", EMPTY]]);
  const stepsOf = onceFor((_: readonly number[]) => new Map<number, number>());
  const withUnit = (set: number, unit: number): number => {
    const units = all[set]!;
    if (units.includes(unit)) return set;
    const steps = stepsOf(units);
    const known = steps.get(unit);
    if (known !== undefined) return known;
    const more = [...units, unit].sort((a, b) => a - b);
    const key = more.join();
    const number = numbered.get(key) ?? all.push(more) - 1;
    numbered.set(key, number);
    steps.set(unit, number);
    return number;
  };
  /** How many of the first are not in the second. */
  const missing = (one: number, other: number): number => {
    if (one === other || one === EMPTY) return 0;
    const units = all[other]!;
    let count = 0;
    for (const unit of all[one]!) if (!units.includes(unit)) count++;
    return count;
  };
  return { withUnit, missing, unitsOf: (set: number) => all[set]! };
}
