import type { StateGraph } from "../trace/stateGraph";

/** Places looked at for one face, over all its sources, before every place that may reach the face stands for those on a way. */
const BUDGET = 3_000_000;

/** Blocks of a graph, rooted at a face: what lies on the simple ways to it. */
type Blocks = Readonly<{
  /** The block of the edge by which a vertex was first reached from the face; -1 at the face and where none leads. */
  blockOf: Int32Array;
  /** The vertex of a block that is nearest the face. */
  top: readonly number[];
  vertices: readonly (readonly number[])[];
}>;

export type OnTheWay = (source: number) => readonly number[];

/**
 * The vertices that a way may visit from a source to one face vertex which passes no vertex twice: those that lie in the
 * same biconnected block as an added edge from source to face, that the source may reach there and that may reach the face.
 * Never fewer than the simple ways visit; source and face are among them. Empty where no way leads.
 *
 * Tarjan, Depth-first search and linear graph algorithms, SIAM Journal on Computing 1 (1972), from memory. Cost: linear in
 * the graph for the face, and in the blocks between for each source.
 */
export function onTheWayTo(graph: StateGraph, face: number, reaches: (vertex: number) => boolean): OnTheWay {
  const blocks = blocksFrom(graph, face, reaches);
  let budget = BUDGET;
  return (source) => {
    if (source === face) return [face];
    if (blocks.blockOf[source]! < 0) return [];
    const between = new Set<number>();
    for (let vertex = source; vertex !== face;) {
      const block = blocks.blockOf[vertex]!;
      for (const one of blocks.vertices[block]!) between.add(one);
      vertex = blocks.top[block]!;
    }
    budget -= between.size;
    // Spent: more than lies on the ways is never less than what is asked.
    if (budget < 0) return [...between];
    const fromSource = within(graph.out, source, between);
    const toFace = within(graph.in, face, between);
    return [...between].filter((vertex) => fromSource.has(vertex) && toFace.has(vertex));
  };
}

function within(side: StateGraph["out"], start: number, inside: ReadonlySet<number>): Set<number> {
  const found = new Set([start]);
  for (const vertex of found) {
    for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
      const other = side.other[arc]!;
      if (inside.has(other)) found.add(other);
    }
  }
  return found;
}

function blocksFrom(graph: StateGraph, face: number, reaches: (vertex: number) => boolean): Blocks {
  const order = new Int32Array(graph.vertexCount);
  const low = new Int32Array(graph.vertexCount);
  const blockOf = new Int32Array(graph.vertexCount).fill(-1);
  const parent = new Int32Array(graph.vertexCount).fill(-1);
  const top: number[] = [];
  const vertices: number[][] = [];
  /** Vertices whose block is not closed yet. */
  const open: number[] = [];
  // Where each vertex of the path being walked has got to: arcs out of it first, then arcs into it.
  const path = [face];
  const next = new Map<number, number>([[face, 0]]);
  let count = 1;
  order[face] = low[face] = count++;
  while (path.length > 0) {
    const vertex = path.at(-1)!;
    const at = next.get(vertex)!;
    const outs = graph.out.first[vertex + 1]! - graph.out.first[vertex]!;
    const ins = graph.in.first[vertex + 1]! - graph.in.first[vertex]!;
    if (at < outs + ins) {
      next.set(vertex, at + 1);
      const other =
        at < outs
          ? graph.out.other[graph.out.first[vertex]! + at]!
          : graph.in.other[graph.in.first[vertex]! + at - outs]!;
      if (!reaches(other)) continue;
      if (order[other] === 0) {
        order[other] = low[other] = count++;
        parent[other] = vertex;
        open.push(other);
        path.push(other);
        next.set(other, 0);
      } else if (other !== parent[vertex]) low[vertex] = Math.min(low[vertex]!, order[other]!);
      continue;
    }
    path.pop();
    next.delete(vertex);
    const above = parent[vertex]!;
    if (above < 0) continue;
    low[above] = Math.min(low[above]!, low[vertex]!);
    if (low[vertex]! < order[above]!) continue;
    const block = [above];
    for (;;) {
      const one = open.pop()!;
      blockOf[one] = vertices.length;
      block.push(one);
      if (one === vertex) break;
    }
    top.push(above);
    vertices.push(block);
  }
  return { blockOf, top, vertices };
}
