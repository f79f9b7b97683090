import type { StateGraph } from "./stateGraph";

const ROOT = 0;
const UNSEEN = -1;

/**
 * Immediate dominators from a root that feeds every start; -1 for a vertex that only the root dominates. `order` is the
 * number of a depth-first walk, -1 where nothing reaches.
 *
 * Semidominators, then the nearest common ancestor of each with its parent (Georgiadis, Tarjan and Werneck, Finding
 * dominators in practice, 2006, from memory). Cost: near linear.
 */
export function dominatorTree(
  graph: Pick<StateGraph, "vertexCount" | "out" | "in">,
  starts: readonly number[],
  gates: Uint8Array,
): { order: Int32Array; dominator: Int32Array } {
  const { first, other } = graph.out;
  const isStart = new Uint8Array(graph.vertexCount);
  // Everything below goes by the number of the walk: the root is 0, the first vertex 1.
  const number = new Int32Array(graph.vertexCount).fill(UNSEEN);
  const vertexAt = new Int32Array(graph.vertexCount + 1);
  const parent = new Int32Array(graph.vertexCount + 1);
  const next = new Int32Array(graph.vertexCount);
  const stack = new Int32Array(graph.vertexCount + 1);
  for (const start of starts) if (start >= 0) isStart[start] = 1;
  let count = 0;
  const visit = (vertex: number, from: number) => {
    count++;
    number[vertex] = count;
    vertexAt[count] = vertex;
    parent[count] = from;
    next[vertex] = first[vertex]!;
  };
  for (const start of starts) {
    if (start < 0 || number[start] !== UNSEEN) continue;
    let depth = 0;
    stack[depth++] = start;
    visit(start, ROOT);
    while (depth > 0) {
      const vertex = stack[depth - 1]!;
      if (next[vertex]! >= first[vertex + 1]!) {
        depth--;
        continue;
      }
      const to = other[next[vertex]!++]!;
      if (number[to] !== UNSEEN || (gates[to] === 1 && isStart[to] === 0)) continue;
      visit(to, number[vertex]!);
      stack[depth++] = to;
    }
  }

  const semi = Int32Array.from({ length: count + 1 }, (_, at) => at);
  const label = semi.slice();
  const ancestor = new Int32Array(count + 1).fill(UNSEEN);
  const path: number[] = [];
  /** Of the linked vertices above and with this one, the one with the least semidominator. */
  const least = (at: number): number => {
    if (ancestor[at] === UNSEEN) return label[at]!;
    path.length = 0;
    let top = at;
    while (ancestor[ancestor[top]!] !== UNSEEN) {
      path.push(top);
      top = ancestor[top]!;
    }
    for (let i = path.length - 1; i >= 0; i--) {
      const one = path[i]!;
      const above = ancestor[one]!;
      if (semi[label[above]!]! < semi[label[one]!]!) label[one] = label[above]!;
      ancestor[one] = ancestor[above]!;
    }
    return label[at]!;
  };
  const into = graph.in;
  for (let at = count; at > ROOT; at--) {
    const vertex = vertexAt[at]!;
    let lowest = isStart[vertex] === 1 ? ROOT : parent[at]!;
    for (let arc = into.first[vertex]!; arc < into.first[vertex + 1]!; arc++) {
      const before = number[into.other[arc]!]!;
      if (before === UNSEEN) continue;
      const found = before <= at ? before : semi[least(before)]!;
      if (found < lowest) lowest = found;
    }
    semi[at] = lowest;
    ancestor[at] = parent[at]!;
  }

  const above = parent.slice(0, count + 1);
  const dominator = new Int32Array(graph.vertexCount).fill(-2);
  for (let at = 1; at <= count; at++) {
    while (above[at]! > semi[at]!) above[at] = above[above[at]!]!;
    dominator[vertexAt[at]!] = above[at] === ROOT ? -1 : vertexAt[above[at]!]!;
  }
  return { order: number, dominator };
}
