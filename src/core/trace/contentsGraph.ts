import { CARRIER_COUNT, CARRIERS } from "../plant/carriers";
import { familyOf, type Family } from "../rules/grades";
import type { Adjacency, StateGraph } from "./stateGraph";

const made = new Map<Family, WeakMap<StateGraph, StateGraph>>();

/**
 * Where contents themselves may go: the state graph with only the arcs from something that flows to something that
 * flows. Oil that turns a pump elsewhere sends a push down the cables, but no oil. Made once for each graph.
 *
 * Cost: linear in arcs, the first time.
 */
export function contentsGraph(graph: StateGraph): StateGraph {
  return familyGraph(graph, "flow");
}

/** The state graph with only the arcs inside one family: where energy goes without changing its form. */
export function familyGraph(graph: StateGraph, family: Family): StateGraph {
  const graphs = made.get(family) ?? new WeakMap<StateGraph, StateGraph>();
  made.set(family, graphs);
  const known = graphs.get(graph);
  if (known) return known;
  const isOwn = Uint8Array.from(CARRIERS, (carrier) => (familyOf(carrier) === family ? 1 : 0));
  const keep = (side: Adjacency): Adjacency => {
    const first = new Int32Array(graph.vertexCount + 1);
    const arcs: number[] = [];
    for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
      first[vertex] = arcs.length;
      if (isOwn[vertex % CARRIER_COUNT] === 0) continue;
      for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
        if (isOwn[side.other[arc]! % CARRIER_COUNT] === 1) arcs.push(arc);
      }
    }
    first[graph.vertexCount] = arcs.length;
    return {
      first,
      other: Int32Array.from(arcs, (arc) => side.other[arc]!),
      type: Uint8Array.from(arcs, (arc) => side.type[arc]!),
      link: Int32Array.from(arcs, (arc) => side.link[arc]!),
    };
  };
  const own = { ...graph, out: keep(graph.out), in: keep(graph.in) };
  graphs.set(graph, own);
  graphs.set(own, own);
  return own;
}
