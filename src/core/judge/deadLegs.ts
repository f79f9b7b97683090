import { onceFor } from "../onceFor";
import { placeOf, type StateGraph } from "../trace/stateGraph";

/**
 * Marks with 1 the vertices that prove nothing and spoil nothing between barriers: again and again one that carries no
 * isolated device, source or face, and that a way can leave only to where it came from. No way enters a `closed` vertex.
 *
 * Cost: linear in vertices and arcs, the first time for a graph; then in what is struck.
 */
export function deadLegsOf(
  graph: StateGraph,
  p: Readonly<{ gates: Uint8Array; closed: Uint8Array; kept: (place: number) => boolean }>,
): Uint8Array {
  const struck = new Uint8Array(graph.vertexCount);
  const isOpen = (vertex: number) => struck[vertex] === 0 && p.closed[vertex] === 0;
  const beside = (vertex: number) =>
    [graph.out, graph.in].flatMap(({ first, other }) => [...other.subarray(first[vertex]!, first[vertex + 1]!)]);
  const queue: number[] = [];
  const look = (vertex: number) => {
    if (struck[vertex] === 1 || p.gates[vertex] === 1 || p.closed[vertex] === 1 || p.kept(placeOf(graph, vertex)))
      return;
    if (!isLeg(graph, vertex, isOpen)) return;
    struck[vertex] = 1;
    queue.push(vertex);
  };
  for (const vertex of endsOf(graph)) look(vertex);
  p.closed.forEach((isClosed, vertex) => {
    if (isClosed === 1) beside(vertex).forEach(look);
  });
  for (let head = 0; head < queue.length; head++) {
    beside(queue[head]!).forEach(look);
  }
  return struck;
}

/** Places that are legs with nothing struck or closed: where the striking begins, but for what lies beside a closed one. */
const endsOf = onceFor((graph: StateGraph): Int32Array => {
  const ends: number[] = [];
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    if (isLinked(graph, vertex) && isLeg(graph, vertex, () => true)) ends.push(vertex);
  }
  return Int32Array.from(ends);
});

/** May a way leave here only to where it came from, of what is open? */
function isLeg(graph: StateGraph, vertex: number, isOpen: (vertex: number) => boolean): boolean {
  const out = onlyNeighbour(graph.out, vertex, isOpen);
  if (out === NONE) return true;
  const back = onlyNeighbour(graph.in, vertex, isOpen);
  return back === NONE || (out !== SEVERAL && back === out);
}

const NONE = -1;
const SEVERAL = -2;

function onlyNeighbour(side: StateGraph["out"], vertex: number, isOpen: (vertex: number) => boolean): number {
  let found = NONE;
  for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
    const other = side.other[arc]!;
    if (other === found || !isOpen(other)) continue;
    if (found !== NONE) return SEVERAL;
    found = other;
  }
  return found;
}

function isLinked({ out, in: into }: StateGraph, vertex: number): boolean {
  return out.first[vertex]! < out.first[vertex + 1]! || into.first[vertex]! < into.first[vertex + 1]!;
}
