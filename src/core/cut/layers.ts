import { FAR, type CheapestFlow } from "./cheapestFlow";

/** The layer of a node: 0 is live plant, K the zone people work in. */
export type Layer = (node: number) => number;

/** π at the work: K less the length to the super-sink, at least 0. Cost: linear in what the flow's searches came to. */
export function layersFromWork(flow: CheapestFlow): Layer {
  const { K, below } = flow;
  if (flow.isSettled) return (node) => Math.min(K, -below[node]!);
  const { distance } = flow.towardsSink(false);
  return (node) => Math.max(0, K - (distance.has(node) ? distance.get(node)! + K + below[node]! : FAR));
}

/**
 * π at the supply: the length from the super-source, at most K. Where no search of the flow has come nothing flows, and
 * everything passes. Cost: linear in the plant.
 */
export function layersFromSupply(flow: CheapestFlow): Layer {
  const { network, below, K } = flow;
  const { graph, head, residual, length, source, sink } = network;
  const distance = new Int32Array(network.nodeCount).fill(FAR);
  distance[source] = 0;
  const buckets: number[][] = [[source]];
  // The straight arc, by which a layer never jumps by two.
  distance[sink] = K - flow.length;
  (buckets[distance[sink]!] ??= []).push(sink);
  for (let d = 0; d < buckets.length; d++) {
    const bucket = buckets[d] ?? [];
    const reach = (next: number, there: number) => {
      if (there >= distance[next]!) return;
      distance[next] = there;
      if (there === d) bucket.push(next);
      else (buckets[there] ??= []).push(next);
    };
    for (let i = 0; i < bucket.length; i++) {
      const node = bucket[i]!;
      if (distance[node] !== d) continue;
      if (node === source || network.isMade(node)) {
        for (const arc of network.arcsAt(node)) {
          const next = head[arc]!;
          if (residual[arc]! > 0) reach(next, d + length[arc]! + below[next]! - below[node]!);
        }
        continue;
      }
      const vertex = network.vertexAt(node);
      if (node === vertex && network.leaving(vertex) !== node) {
        reach(network.leaving(vertex), d + below[network.leaving(vertex)]!);
        continue;
      }
      for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) {
        const next = graph.out.other[arc]!;
        reach(next, d + below[next]!);
      }
    }
  }
  return (node) => (distance[node] === FAR ? K : Math.min(K, distance[node]! - below[node]!));
}
