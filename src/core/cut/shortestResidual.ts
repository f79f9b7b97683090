import type { Residual } from "./flowNetwork";

export const FAR = 0x3fffffff;

/**
 * Least reduced lengths over arcs that still have capacity, from `start` forwards, or with `backwards` from every node
 * to `start`. The reduced length of an arc u→v is length + potential[u] − potential[v] and must be 0 or more: with a
 * potential kept by the flow it always is. Nodes at `limit` or further stay FAR.
 *
 * Lengths are small whole numbers, so the queue is one bucket for each length. Cost: linear in arcs + limit.
 */
export function shortestResidual(
  network: Residual,
  start: number,
  potential: Int32Array,
  limit: number,
  backwards: boolean,
): Int32Array {
  const { first, arcs, head, residual, length } = network;
  const distance = new Int32Array(network.nodeCount).fill(FAR);
  distance[start] = 0;
  const buckets: number[][] = [[start]];
  for (let d = 0; d < buckets.length; d++) {
    const bucket = buckets[d];
    if (bucket === undefined) continue;
    for (let i = 0; i < bucket.length; i++) {
      const node = bucket[i]!;
      if (distance[node] !== d) continue;
      for (let slot = first[node]!; slot < first[node + 1]!; slot++) {
        const leaving = arcs[slot]!;
        // Backwards, the arc that comes in from the neighbour is the partner of the one that leaves to it.
        const arc = backwards ? leaving ^ 1 : leaving;
        if (residual[arc]! <= 0) continue;
        const next = head[leaving]!;
        const reduced = backwards
          ? length[arc]! + potential[next]! - potential[node]!
          : length[arc]! + potential[node]! - potential[next]!;
        if (reduced < 0) throw new Error(`reduced length ${reduced} on arc ${arc}: the potential is broken`);
        const there = d + reduced;
        if (there >= limit || there >= distance[next]!) continue;
        distance[next] = there;
        (buckets[there] ??= []).push(next);
      }
    }
  }
  return distance;
}
