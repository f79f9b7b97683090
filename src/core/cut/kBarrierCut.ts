import type { School } from "../request/jobFile";
import { maximumFlowAtZero } from "./blockingFlow";
import { FlowNetwork } from "./flowNetwork";
import { FAR, shortestResidual } from "./shortestResidual";

/**
 * A k-barrier cut problem, in numbers.
 *
 * Nodes are where energy can be; gates are the nodes at which a device could stop it, at a price. On every way from
 * entry e to exit x there must be at least `K − e.skips − x.skips` chosen gates. An entry's own gate is no barrier to
 * it, and neither is an exit's.
 */
export type CutProblem = Readonly<{
  nodeCount: number;
  arcs: readonly (readonly [from: number, to: number])[];
  /** Price of each gate by node, a safe whole number above 0; nodes that are no gate are missing. */
  gates: ReadonlyMap<number, number>;
  entries: readonly Readonly<{ node: number; skips: number }>[];
  exits: readonly Readonly<{ node: number; skips: number }>[];
  K: number;
}>;

export type Cut = Readonly<{
  /** Chosen gates, by node. */
  chosen: readonly number[];
  /** Sum of their prices. */
  price: number;
  /** The flow's proof: no set that holds the requirement is cheaper than this. Equal to `price`. */
  bound: number;
  /** For each gate, the layer before and behind it: 0 is live plant, K the zone people work in. */
  layerBefore: ReadonlyMap<number, number>;
}>;

/**
 * The cheapest k-barrier cut, exactly.
 *
 * Every gate node is split in→out by two parallel arcs: one with the price as capacity and length 0, one unlimited with
 * length 1. An unlimited arc of length `skips` runs from the super-source to each entry and from each exit to the
 * super-sink, and one of length K straight from super-source to super-sink. Flow is pushed along shortest paths, one
 * phase for each length below K; a path of length L crosses L barriers already, so each unit of flow on it proves that
 * K − L units of price must still be paid. When the shortest path is the straight arc, residual distances π give the
 * layers, and a gate is chosen where the layer rises: π(out) − π(in) = 1. Without the straight arc a jump of two
 * lengths would pick a gate too many.
 *
 * `school` picks between equally cheap cuts: layers measured from the super-source lie at the supply, layers measured
 * back from the super-sink lie at the work.
 *
 * Cost: K + 2 searches and K maximum flows over the split network.
 *
 * Source: linear-programming duality of minimum-cost flow (Ford and Fulkerson, Flows in Networks, 1962, quoted from
 * memory), applied to distances instead of connectivity.
 */
export function kBarrierCut(problem: CutProblem, school: School): Cut {
  const { K } = problem;
  const outOf = new Map<number, number>();
  let nodeCount = problem.nodeCount;
  for (const node of problem.gates.keys()) outOf.set(node, nodeCount++);
  const source = nodeCount++;
  const sink = nodeCount++;
  const leaving = (node: number) => outOf.get(node) ?? node;

  const network = new FlowNetwork(nodeCount);
  for (const [from, to] of problem.arcs) network.addArc(leaving(from), to, Infinity, 0);
  for (const [node, price] of problem.gates) {
    if (!Number.isSafeInteger(price) || price <= 0) throw new RangeError(`price ${price} of gate ${node}`);
    network.addArc(node, leaving(node), price, 0);
    network.addArc(node, leaving(node), Infinity, 1);
  }
  for (const { node, skips } of problem.entries) if (skips < K) network.addArc(source, leaving(node), Infinity, skips);
  for (const { node, skips } of problem.exits) if (skips < K) network.addArc(node, sink, Infinity, skips);
  network.addArc(source, sink, Infinity, K);
  const residual = network.freeze();

  const potential = new Int32Array(nodeCount);
  let bound = 0;
  for (;;) {
    const distance = shortestResidual(residual, source, potential, FAR, false);
    const toSink = distance[sink]!;
    // Nodes not reached move with the sink, which keeps every reduced length at 0 or more.
    for (let node = 0; node < nodeCount; node++) potential[node]! += Math.min(distance[node]!, toSink);
    const length = potential[sink]! - potential[source]!;
    if (length >= K) break;
    bound += (K - length) * maximumFlowAtZero(residual, source, sink, potential);
  }

  const layer =
    school === "supply"
      ? layersFromSupply(residual, source, potential, K)
      : layersFromWork(residual, sink, potential, K);
  const chosen: number[] = [];
  const layerBefore = new Map<number, number>();
  let price = 0;
  for (const [node, gatePrice] of problem.gates) {
    const before = layer(node);
    layerBefore.set(node, before);
    if (layer(leaving(node)) - before === 1) {
      chosen.push(node);
      price += gatePrice;
    }
  }
  return { chosen, price, bound, layerBefore };
}

/** π at the supply: residual distance from the super-source, at most K. */
function layersFromSupply(
  residual: Parameters<typeof shortestResidual>[0],
  source: number,
  potential: Int32Array,
  K: number,
) {
  const reduced = shortestResidual(residual, source, potential, FAR, false);
  return (node: number) =>
    reduced[node] === FAR ? K : Math.min(K, reduced[node]! + potential[node]! - potential[source]!);
}

/** π at the work: K less the residual distance to the super-sink, at least 0. */
function layersFromWork(
  residual: Parameters<typeof shortestResidual>[0],
  sink: number,
  potential: Int32Array,
  K: number,
) {
  const reduced = shortestResidual(residual, sink, potential, FAR, true);
  return (node: number) =>
    reduced[node] === FAR ? 0 : Math.max(0, K - (reduced[node]! + potential[sink]! - potential[node]!));
}
