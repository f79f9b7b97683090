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
    const kept = new Int32Array(side.other.length);
    let count = 0;
    for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
      first[vertex] = count;
      for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
        if (keep(vertex, side, arc)) kept[count++] = arc;
      }
    }
    first[graph.vertexCount] = count;
    const [other, type, link] = [new Int32Array(count), new Uint8Array(count), new Int32Array(count)];
    for (let i = 0; i < count; i++) {
      const arc = kept[i]!;
      other[i] = side.other[arc]!;
      type[i] = side.type[arc]!;
      link[i] = side.link[arc]!;
    }
    return { first, other, type, link };
  };
  return { ...graph, out: thinned(graph.out), in: thinned(graph.in) };
}
