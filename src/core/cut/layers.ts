import { FAR, type CheapestFlow } from "./cheapestFlow";
import { bothEnds } from "./flowNetwork";

/** The layer of a node: 0 is live plant, K the zone people work in. */
export type Layer = (node: number) => number;

/** π at the work: K less the length to the super-sink, at least 0. Cost: nothing, or linear in the plant. */
export function layersFromWork(flow: CheapestFlow): Layer {
  const { K, below, network } = flow;
  if (flow.isSettled) return (node) => Math.min(K, -below[node]!);
  const distance = lengths(flow, network.sink, "backwards");
  return (node) => (distance[node] === FAR ? 0 : Math.max(0, -distance[node]! - below[node]!));
}

/** π at the supply: the length from the super-source, at most K. Cost: linear in the plant. */
export function layersFromSupply(flow: CheapestFlow): Layer {
  const { K, below, network } = flow;
  const distance = lengths(flow, network.source, "onwards");
  return (node) => (distance[node] === FAR ? K : Math.min(K, distance[node]! - below[node]!));
}

/**
 * Least reduced lengths from a node, or to it, over what is left of the network; FAR where no way leads. Where no search of the
 * flow has come nothing flows, and everything passes.
 */
function lengths(
  { network, below, K, length: now }: CheapestFlow,
  start: number,
  way: "onwards" | "backwards",
): Int32Array {
  const { head, residual, length, source, sink } = network;
  const distance = new Int32Array(network.nodeCount).fill(FAR);
  const buckets: number[][] = [];
  const reach = (node: number, there: number) => {
    if (there >= distance[node]!) return;
    distance[node] = there;
    (buckets[there] ??= []).push(node);
  };
  const { out } = network.graph;
  const { tail, first, arcs } = bothEnds(network.graph);
  reach(start, 0);
  // The straight arc, by which a layer never jumps by two.
  reach(start === source ? sink : source, K - now);
  for (let d = 0; d < buckets.length; d++) {
    const bucket = buckets[d] ?? [];
    const go = (next: number, sign: 1 | -1) => reach(next, d + sign * below[next]!);
    for (let i = 0; i < bucket.length; i++) {
      const node = bucket[i]!;
      if (distance[node] !== d) continue;
      if (node === source || network.isMade(node)) {
        for (const leaving of network.arcsAt(node)) {
          const next = head[leaving]!;
          const arc = way === "onwards" ? leaving : leaving ^ 1;
          const lowered = way === "onwards" ? below[next]! - below[node]! : below[node]! - below[next]!;
          if (residual[arc]! > 0) reach(next, d + length[arc]! + lowered);
        }
        continue;
      }
      // Nothing flows where no search has come: every length there is 0, and every price may still be paid.
      const vertex = network.vertexAt(node);
      if (way === "onwards") {
        const on = network.leaving(vertex);
        if (node !== on) reach(on, d + below[on]!);
        else for (let arc = out.first[vertex]!; arc < out.first[vertex + 1]!; arc++) go(out.other[arc]!, 1);
      } else if (node !== vertex) reach(vertex, d - below[vertex]!);
      else
        for (let slot = first[vertex]!; slot < first[vertex + 1]!; slot++) go(network.leaving(tail[arcs[slot]!]!), -1);
    }
  }
  return distance;
}
