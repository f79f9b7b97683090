import type { Adjacency, StateGraph } from "./stateGraph";

/**
 * The same graph with fewer arcs. `keep` is asked of each arc from both its ends: the vertex it is listed at, the side it
 * is listed on, and its number there. Cost: linear in arcs.
 */
export function keepArcs(
  graph: StateGraph,
  keep: (vertex: number, side: Adjacency, arc: number) => boolean,
): StateGraph {
  const thinned = (side: Adjacency): Adjacency => {
    const first = new Int32Array(graph.vertexCount + 1);
    const arcs: number[] = [];
    for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
      first[vertex] = arcs.length;
      for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
        if (keep(vertex, side, arc)) arcs.push(arc);
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
  return { ...graph, out: thinned(graph.out), in: thinned(graph.in) };
}
