import type { CutProblem } from "@/core/cut/kBarrierCut";

/** A cut problem from lists of arcs and prices, as textbooks draw them. */
export function cutProblem(
  p: Readonly<{
    nodeCount: number;
    arcs: readonly (readonly [from: number, to: number])[];
    gates: ReadonlyMap<number, number>;
    entries: CutProblem["entries"];
    exits: CutProblem["exits"];
    K: number;
  }>,
): CutProblem {
  const byTail = Array.from({ length: p.nodeCount }, (_, node) => p.arcs.filter(([from]) => from === node));
  const first = new Int32Array(p.nodeCount + 1);
  byTail.forEach((arcs, node) => {
    first[node + 1] = first[node]! + arcs.length;
  });
  return {
    graph: { vertexCount: p.nodeCount, out: { first, other: Int32Array.from(byTail.flat(), ([, to]) => to) } },
    priceAt: (vertex) => p.gates.get(vertex) ?? 0,
    entries: p.entries,
    exits: p.exits,
    K: p.K,
  };
}
