import { placeOf, type StateGraph } from "../trace/stateGraph";

/**
 * Marks with 1 the vertices that prove nothing and spoil nothing between barriers: again and again one that carries no
 * isolated device, source or face, and that a way can leave only to where it came from. No way enters a `closed` vertex.
 *
 * Cost: linear in vertices and arcs.
 */
export function deadLegsOf(
  graph: StateGraph,
  p: Readonly<{ gates: Uint8Array; closed: Uint8Array; kept: (place: number) => boolean }>,
): Uint8Array {
  const struck = new Uint8Array(graph.vertexCount);
  const isOpen = (vertex: number) => struck[vertex] === 0 && p.closed[vertex] === 0;
  /** The only vertex on the other side of these arcs: -1 for none, -2 for several. */
  const only = (side: StateGraph["out"], vertex: number): number => {
    let found = -1;
    for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
      const other = side.other[arc]!;
      if (other === found || !isOpen(other)) continue;
      if (found !== -1) return -2;
      found = other;
    }
    return found;
  };
  const isLeg = (vertex: number): boolean => {
    const out = only(graph.out, vertex);
    if (out === -1) return true;
    if (out === -2) return only(graph.in, vertex) === -1;
    const back = only(graph.in, vertex);
    return back === -1 || back === out;
  };
  const queue: number[] = [];
  const look = (vertex: number) => {
    if (struck[vertex] === 1 || p.gates[vertex] === 1 || p.closed[vertex] === 1 || p.kept(placeOf(graph, vertex)))
      return;
    if (!isLeg(vertex)) return;
    struck[vertex] = 1;
    queue.push(vertex);
  };
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    if (isLinked(graph, vertex)) look(vertex);
  }
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    for (const side of [graph.out, graph.in]) {
      for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) look(side.other[arc]!);
    }
  }
  return struck;
}

function isLinked({ out, in: into }: StateGraph, vertex: number): boolean {
  return out.first[vertex]! < out.first[vertex + 1]! || into.first[vertex]! < into.first[vertex + 1]!;
}
