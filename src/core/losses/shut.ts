import { verticesOfItem, vertexOf, type StateGraph } from "../trace/stateGraph";

/**
 * 1 where a device stands shut, counted on or not: nothing comes or goes there by itself. A device whose position nobody
 * knows is taken as passing, with the plan and without; what the plan opens and locks open passes in any case.
 */
export function shutBy(
  graph: StateGraph,
  isolated: Iterable<number>,
  opens: ReadonlySet<number> = new Set(),
): Uint8Array {
  const shut = new Uint8Array(graph.vertexCount);
  const mark = (item: number) => {
    const place = graph.places.firstOf[item]!;
    for (const carrier of graph.plant.items[item]!.device?.stops ?? []) {
      const vertex = vertexOf(graph, place, carrier);
      if (vertex >= 0) shut[vertex] = 1;
    }
  };
  for (const [item, { device }] of graph.plant.items.entries()) {
    if (device?.stands === "stopping" && !opens.has(item)) mark(item);
  }
  for (const item of isolated) mark(item);
  return shut;
}

/**
 * The same when pressure rises: relief valves that are not isolated themselves stand shut until they lift, and then pass.
 * Cost: linear in items.
 */
export function lifting(graph: StateGraph, shut: Uint8Array, isolated: ReadonlySet<number>): Uint8Array {
  const risen = Uint8Array.from(shut);
  for (const [item, { kind, service }] of graph.plant.items.entries()) {
    if ((kind !== "relief valve" && service !== "relief") || isolated.has(item)) continue;
    for (const vertex of verticesOfItem(graph, item)) risen[vertex] = 0;
  }
  return risen;
}

/** The isolated devices that a walk from here runs up against, by index. */
export function stoppedAt(
  graph: StateGraph,
  starts: readonly number[],
  shut: Uint8Array,
  isolated: ReadonlySet<number>,
  way: "out" | "in",
): Set<number> {
  const found = new Set<number>();
  const itemOf = (vertex: number) => graph.places.itemOf[graph.placeAt[vertex]!]!;
  const see = (vertex: number) => {
    if (shut[vertex] === 1 && isolated.has(itemOf(vertex))) found.add(itemOf(vertex));
  };
  for (const start of starts) see(start);
  const seen = new Set(starts.filter((start) => start >= 0 && shut[start] === 0));
  const queue = [...seen];
  const { first, other } = graph[way];
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
      const next = other[arc]!;
      see(next);
      if (seen.has(next) || shut[next] === 1) continue;
      seen.add(next);
      queue.push(next);
    }
  }
  return found;
}
