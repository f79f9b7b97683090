import type { StateGraph } from "./stateGraph";

/**
 * Immediate dominators from a root that feeds every start; -1 for a vertex that only the root dominates. `order` is the
 * reverse postorder, -1 where nothing reaches.
 */
export function dominatorTree(
  graph: Pick<StateGraph, "vertexCount" | "out" | "in">,
  starts: readonly number[],
  gates: Uint8Array,
): { order: Int32Array; dominator: Int32Array } {
  const { first, other } = graph.out;
  const postorder: number[] = [];
  const state = new Uint8Array(graph.vertexCount);
  const next = new Int32Array(graph.vertexCount);
  const isStart = new Set(starts.filter((start) => start >= 0));
  for (const start of isStart) {
    if (state[start] !== 0) continue;
    const stack = [start];
    state[start] = 1;
    next[start] = first[start]!;
    while (stack.length > 0) {
      const vertex = stack.at(-1)!;
      if (next[vertex]! < first[vertex + 1]!) {
        const to = other[next[vertex]!++]!;
        if (state[to] === 0 && gates[to] === 0) {
          state[to] = 1;
          next[to] = first[to]!;
          stack.push(to);
        }
      } else {
        postorder.push(vertex);
        stack.pop();
      }
    }
  }
  const order = new Int32Array(graph.vertexCount).fill(-1);
  postorder.reverse().forEach((vertex, index) => {
    order[vertex] = index;
  });
  // -2 is not worked out yet; -1 is the root.
  const dominator = new Int32Array(graph.vertexCount).fill(-2);
  for (const start of isStart) dominator[start] = -1;
  const meet = (a: number, b: number): number => {
    while (a !== b) {
      if (a === -1 || b === -1) return -1;
      if (order[a]! > order[b]!) a = dominator[a]!;
      else b = dominator[b]!;
    }
    return a;
  };
  for (let changed = true; changed;) {
    changed = false;
    for (const vertex of postorder) {
      if (isStart.has(vertex)) continue;
      let found = -2;
      for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
        const before = graph.in.other[arc]!;
        if (order[before]! < 0 || dominator[before] === -2) continue;
        found = found === -2 ? before : meet(found, before);
      }
      if (found !== dominator[vertex]) {
        dominator[vertex] = found;
        changed = true;
      }
    }
  }
  return { order, dominator };
}
