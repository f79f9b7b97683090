import { CARRIERS } from "../plant/carriers";
import { familyOf, type Family } from "../requirement/grades";
import { keepArcs } from "./keepArcs";
import type { StateGraph } from "./stateGraph";

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
  const own = keepArcs(
    graph,
    (vertex, side, arc) =>
      isOwn[graph.carrierIndexAt[vertex]!] === 1 && isOwn[graph.carrierIndexAt[side.other[arc]!]!] === 1,
  );
  graphs.set(graph, own);
  graphs.set(own, own);
  return own;
}
