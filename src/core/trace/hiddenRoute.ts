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
 * What leads to the face is looked for once for all its sources. Cost: one search per candidate, at most `CANDIDATES`.
 */
export function hiddenTwinsTo(graph: StateGraph, targets: readonly number[]): (source: number) => number[] | null {
  let backward: Search | undefined;
  return (source) => twinOf(graph, source, targets, (backward ??= breadthFirst(graph, targets, graph.in, null)));
}

function twinOf(graph: StateGraph, source: number, targets: readonly number[], backward: Search): number[] | null {
  const forward = breadthFirst(graph, [source], graph.out, new Set(targets.map((vertex) => placeOf(graph, vertex))));
  const candidates: { from: number; to: number; length: number }[] = [];
  for (const u of forward.order) {
    for (let arc = graph.out.first[u]!; arc < graph.out.first[u + 1]!; arc++) {
      const v = graph.out.other[arc]!;
      const hidden = graph.out.type[arc] !== ARC.plain || carrierOf(graph, v) === "control";
      if (hidden && backward.before[v] !== undefined) {
        candidates.push({ from: u, to: v, length: forward.length[u]! + 1 + backward.length[v]! });
      }
    }
  }
  candidates.sort((a, b) => a.length - b.length || a.from - b.from || a.to - b.to);
  for (const { from, to } of candidates.slice(0, CANDIDATES)) {
    const head = trail(forward.before, from).reverse();
    const used = new Set(head.map((vertex) => placeOf(graph, vertex)));
    if (used.has(placeOf(graph, to)) && placeOf(graph, to) !== placeOf(graph, from)) continue;
    if (head.some((vertex) => targets.includes(vertex))) continue;
    used.delete(placeOf(graph, to));
    const rest = breadthFirst(graph, [to], graph.out, used, new Set(targets));
    const end = rest.found;
    if (end === undefined) continue;
    const way = [...head, ...trail(rest.before, end).reverse()];
    // Turning into another carrier and back inside one place is no other way.
    if (new Set(way).size === way.length && hiddenBy(graph, way).length > 0) return way;
  }
  return null;
}

/** More hidden arcs than this between one source and one face say the same thing again. */
const CANDIDATES = 200;

type Search = {
  before: (number | undefined)[];
  length: (number | undefined)[];
  order: number[];
  found: number | undefined;
};

/** Breadth-first over vertices, stopping at `until`, never entering a place in `avoid`. Sparse arrays: small regions. */
function breadthFirst(
  graph: StateGraph,
  starts: readonly number[],
  side: StateGraph["out"],
  avoid: ReadonlySet<number> | null,
  until: ReadonlySet<number> | null = null,
): Search {
  const search: Search = { before: [], length: [], order: [], found: undefined };
  for (const start of starts) {
    search.before[start] = -1;
    search.length[start] = 0;
    search.order.push(start);
  }
  for (let head = 0; head < search.order.length; head++) {
    const vertex = search.order[head]!;
    if (until?.has(vertex)) {
      search.found = vertex;
      break;
    }
    for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
      const next = side.other[arc]!;
      if (search.before[next] !== undefined || avoid?.has(placeOf(graph, next))) continue;
      search.before[next] = vertex;
      search.length[next] = search.length[vertex]! + 1;
      search.order.push(next);
    }
  }
  return search;
}

/** From `end` back to the start of the search. */
function trail(before: readonly (number | undefined)[], end: number): number[] {
  const way: number[] = [];
  for (let vertex = end; vertex >= 0; vertex = before[vertex] ?? -1) way.push(vertex);
  return way;
}
