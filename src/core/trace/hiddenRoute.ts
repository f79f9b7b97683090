import { later } from "../onceFor";
import { placeOf, itemAt, placeName, carrierOf, ARC, type StateGraph } from "./stateGraph";

export const HIDDEN_BY = ["control", "against flow", "conversion", "other feeder"] as const;
export type HiddenBy = (typeof HIDDEN_BY)[number];

/**
 * Why a route is one that people forget: it comes by control, against normal flow, by a conversion, or as power from
 * another feeder than the item's own. Empty for a plain route. Listed in the order met from source to face.
 */
export function hiddenBy(graph: StateGraph, way: readonly number[]): HiddenBy[] {
  const found = new Set<HiddenBy>();
  const passed = new Set<string>();
  way.forEach((vertex, index) => {
    if (carrierOf(graph, vertex) === "control") found.add("control");
    const before = way[index - 1];
    if (before !== undefined) {
      const type = plainestArc(graph, before, vertex);
      if (type === ARC.conversion) found.add("conversion");
      if (type === ARC.againstFlow) found.add("against flow");
      const { feeder } = itemAt(graph, vertex);
      const arrivesByWire = carrierOf(graph, vertex) === "power" && placeOf(graph, before) !== placeOf(graph, vertex);
      if (arrivesByWire && feeder !== undefined && !passed.has(feeder)) found.add("other feeder");
    }
    passed.add(itemAt(graph, vertex).tag);
  });
  return [...found];
}

/** Between two vertices several arcs may run (two pipes, one each way): the plainest of them. */
function plainestArc(graph: StateGraph, from: number, to: number): number {
  let plainest: number = ARC.conversion;
  let known = false;
  for (let arc = graph.out.first[from]!; arc < graph.out.first[from + 1]!; arc++) {
    if (graph.out.other[arc] !== to) continue;
    const type = graph.out.type[arc]!;
    if (!known || type < plainest) plainest = type;
    known = true;
  }
  if (!known) throw new Error(`no arc from ${placeName(graph, from)} to ${placeName(graph, to)}`);
  return plainest;
}

/**
 * A simple route from source to face that uses a hidden arc, for a face that a plain route reaches too; null when none
 * is found.
 *
 * Each hidden arc u→v on some way from source to face is tried, shortest detour first: the least way to u that keeps
 * off the face, the arc, and the least way from v that keeps off the places already used. A route through two
 * interlocked detours can be missed (two disjoint paths in a directed graph are hard to find), but never a source: the
 * plain route of the same source is always listed beside it.
 *
 * What leads to the face is looked for once for all its sources; from a source no farther than a twin found so far could be
 * shortened. Cost: one search per candidate, at most `CANDIDATES`.
 */
export function hiddenTwinsTo(graph: StateGraph, targets: readonly number[]): (source: number) => number[] | null {
  const links = later(() => linksTo(graph, targets));
  return (source) => twinOf(graph, source, targets, links());
}

function twinOf(graph: StateGraph, source: number, targets: readonly number[], links: Links): number[] | null {
  const forward = beginning([source]);
  const atFace = new Set(targets.map((vertex) => placeOf(graph, vertex)));
  const candidates = new Map<number, { from: number; to: number }[]>();
  let tried = 0;
  let shortest = Infinity;
  for (let layer = [source], length = 0; layer.length > 0 || shortest < Infinity; length++) {
    for (const u of layer) {
      for (let arc = graph.out.first[u]!; arc < graph.out.first[u + 1]!; arc++) {
        const v = graph.out.other[arc]!;
        const hidden = graph.out.type[arc] !== ARC.plain || carrierOf(graph, v) === "control";
        if (!hidden || links.length[v] === NOT_REACHED) continue;
        const whole = length + 1 + links.length[v]!;
        shortest = Math.min(shortest, whole);
        const known = candidates.get(whole);
        if (known) known.push({ from: u, to: v });
        else candidates.set(whole, [{ from: u, to: v }]);
      }
    }
    layer = nextLayer(graph, forward, layer, atFace);
    // What is still to come is at least two links longer than this layer is far.
    while (shortest <= length + 1 || (layer.length === 0 && shortest < Infinity)) {
      const ready = candidates.get(shortest) ?? [];
      candidates.delete(shortest);
      ready.sort((a, b) => a.from - b.from || a.to - b.to);
      for (const { from, to } of ready) {
        if (tried++ === CANDIDATES) return null;
        const way = wayThrough(graph, forward, from, to, targets);
        if (way !== null) return way;
      }
      shortest = Math.min(Infinity, ...candidates.keys());
    }
  }
  return null;
}

/** From the source to the hidden arc, over it, and on to the face through other places. */
function wayThrough(
  graph: StateGraph,
  forward: Search,
  from: number,
  to: number,
  targets: readonly number[],
): number[] | null {
  const head = trail(forward, from).reverse();
  const used = new Set(head.map((vertex) => placeOf(graph, vertex)));
  if (used.has(placeOf(graph, to)) && placeOf(graph, to) !== placeOf(graph, from)) return null;
  if (head.some((vertex) => targets.includes(vertex))) return null;
  used.delete(placeOf(graph, to));
  const rest = beginning([to]);
  const isEnd = new Set(targets);
  for (let layer = [to]; layer.length > 0; layer = nextLayer(graph, rest, layer, used)) {
    const end = layer.find((vertex) => isEnd.has(vertex));
    if (end === undefined) continue;
    const way = [...head, ...trail(rest, end).reverse()];
    // Turning into another carrier and back inside one place is no other way.
    return new Set(way).size === way.length && hiddenBy(graph, way).length > 0 ? way : null;
  }
  return null;
}

/** More hidden arcs than this between one source and one face say the same thing again. */
const CANDIDATES = 200;

/** For each vertex found, the one before it; -1 at the start. */
type Search = Map<number, number>;

function beginning(starts: readonly number[]): Search {
  return new Map(starts.map((start) => [start, -1]));
}

/** One step onwards, never into a place to `avoid`. */
function nextLayer(graph: StateGraph, search: Search, layer: readonly number[], avoid: ReadonlySet<number>): number[] {
  const next: number[] = [];
  for (const vertex of layer) {
    for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) {
      const to = graph.out.other[arc]!;
      if (search.has(to) || avoid.has(placeOf(graph, to))) continue;
      search.set(to, vertex);
      next.push(to);
    }
  }
  return next;
}

/** From `end` back to the start of the search. */
function trail(before: Search, end: number): number[] {
  const way: number[] = [];
  for (let vertex = end; vertex >= 0; vertex = before.get(vertex)!) way.push(vertex);
  return way;
}

const NOT_REACHED = -1;
type Links = Readonly<{ length: Int32Array }>;

/** Arcs on the shortest way from every vertex to the nearest target. Cost: linear in what reaches one. */
function linksTo(graph: StateGraph, targets: readonly number[]): Links {
  const length = new Int32Array(graph.vertexCount).fill(NOT_REACHED);
  const queue = [...targets];
  for (const target of targets) length[target] = 0;
  const { first, other } = graph.in;
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
      const before = other[arc]!;
      if (length[before] !== NOT_REACHED) continue;
      length[before] = length[vertex]! + 1;
      queue.push(before);
    }
  }
  return { length };
}
