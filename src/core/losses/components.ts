import type { StateGraph } from "../trace/stateGraph";

/** Strongly connected pieces of a graph without its shut vertices: -1 where shut. `last[c]` is 1 where nothing leads on. */
export type Components = Readonly<{ of: Int32Array; size: Int32Array; last: Uint8Array }>;

/** Tarjan, "Depth-first search and linear graph algorithms", 1972, without recursion. Cost: linear. */
export function componentsOf(graph: Pick<StateGraph, "vertexCount" | "out">, shut: Uint8Array): Components {
  const { vertexCount, out } = graph;
  const of = new Int32Array(vertexCount).fill(-1);
  const index = new Int32Array(vertexCount).fill(-1);
  const low = new Int32Array(vertexCount);
  const next = new Int32Array(vertexCount);
  const size: number[] = [];
  const stack: number[] = [];
  const path: number[] = [];
  let count = 0;
  for (let root = 0; root < vertexCount; root++) {
    if (index[root] !== -1 || shut[root] === 1) continue;
    path.push(root);
    while (path.length > 0) {
      const vertex = path.at(-1)!;
      if (index[vertex] === -1) {
        index[vertex] = low[vertex] = count++;
        next[vertex] = out.first[vertex]!;
        stack.push(vertex);
      }
      let deeper = false;
      while (next[vertex]! < out.first[vertex + 1]!) {
        const to = out.other[next[vertex]!++]!;
        if (shut[to] === 1) continue;
        if (index[to] === -1) {
          path.push(to);
          deeper = true;
          break;
        }
        if (of[to] === -1) low[vertex] = Math.min(low[vertex]!, index[to]!);
      }
      if (deeper) continue;
      path.pop();
      const parent = path.at(-1);
      if (parent !== undefined) low[parent] = Math.min(low[parent]!, low[vertex]!);
      if (low[vertex] !== index[vertex]) continue;
      let members = 0;
      for (;;) {
        const member = stack.pop()!;
        of[member] = size.length;
        members++;
        if (member === vertex) break;
      }
      size.push(members);
    }
  }
  const last = new Uint8Array(size.length).fill(1);
  for (let vertex = 0; vertex < vertexCount; vertex++) {
    if (of[vertex]! < 0) continue;
    for (let arc = out.first[vertex]!; arc < out.first[vertex + 1]!; arc++) {
      const to = of[out.other[arc]!]!;
      if (to >= 0 && to !== of[vertex]) last[of[vertex]!] = 0;
    }
  }
  return { of, size: Int32Array.from(size), last };
}
