import { onceFor } from "../onceFor";
import type { StateGraph } from "../trace/stateGraph";

/**
 * Marks with 1 the vertices that prove nothing and spoil nothing between barriers: again and again one that carries no
 * isolated device, source or face, and that a way can leave only to where it came from. No way enters a `closed` vertex;
 * what stands at a `kept` place is never struck.
 *
 * Cost: linear in vertices and arcs, the first time for a graph; then in what is struck.
 */
export function deadLegsOf(
  graph: StateGraph,
  p: Readonly<{ gates: Uint8Array; closed: Uint8Array; kept: Uint8Array }>,
): Uint8Array {
  const struck = new Uint8Array(graph.vertexCount);
  const isShut = p.closed.slice();
  const queue: number[] = [];
  const look = (vertex: number) => {
    if (isShut[vertex] === 1 || p.gates[vertex] === 1 || p.kept[graph.placeAt[vertex]!] === 1) return;
    if (!isLeg(graph, vertex, isShut)) return;
    struck[vertex] = isShut[vertex] = 1;
    queue.push(vertex);
  };
  const lookBeside = (vertex: number) => {
    for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) look(graph.out.other[arc]!);
    for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) look(graph.in.other[arc]!);
  };
  for (const vertex of endsOf(graph)) look(vertex);
  p.closed.forEach((isClosed, vertex) => {
    if (isClosed === 1) lookBeside(vertex);
  });
  for (let head = 0; head < queue.length; head++) lookBeside(queue[head]!);
  return struck;
}

/** Places that are legs with nothing struck or closed: where the striking begins, but for what lies beside a closed one. */
const endsOf = onceFor((graph: StateGraph): Int32Array => {
  const ends: number[] = [];
  const nothingShut = new Uint8Array(graph.vertexCount);
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    if (isLinked(graph, vertex) && isLeg(graph, vertex, nothingShut)) ends.push(vertex);
  }
  return Int32Array.from(ends);
});

/** May a way leave here only to where it came from, of what is not shut? */
function isLeg(graph: StateGraph, vertex: number, isShut: Uint8Array): boolean {
  const out = onlyNeighbour(graph.out, vertex, isShut);
  if (out === NONE) return true;
  const back = onlyNeighbour(graph.in, vertex, isShut);
  return back === NONE || (out !== SEVERAL && back === out);
}

const NONE = -1;
const SEVERAL = -2;

function onlyNeighbour(side: StateGraph["out"], vertex: number, isShut: Uint8Array): number {
  let found = NONE;
  for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
    const other = side.other[arc]!;
    if (other === found || isShut[other] === 1) continue;
    if (found !== NONE) return SEVERAL;
    found = other;
  }
  return found;
}

function isLinked({ out, in: into }: StateGraph, vertex: number): boolean {
  return out.first[vertex]! < out.first[vertex + 1]! || into.first[vertex]! < into.first[vertex + 1]!;
}
