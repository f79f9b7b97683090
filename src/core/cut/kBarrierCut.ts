import type { School } from "../request/jobFile";
import { CheapestFlow, type Effort } from "./cheapestFlow";
import { FlowNetwork, type End, type Ways } from "./flowNetwork";
import { layersFromSupply, layersFromWork, type Layer } from "./layers";

/**
 * A k-barrier cut problem, in numbers.
 *
 * Vertices are where energy can be; gates are the vertices at which a device could stop it, at a price. On every way from
 * entry e to exit x there must be at least `K − e.skips − x.skips` chosen gates. An entry's own gate is no barrier to
 * it, and neither is an exit's.
 */
export type CutProblem = Readonly<{
  graph: Ways;
  /** Price of the gate at a vertex, a safe whole number above 0; 0 where there is none. */
  priceAt: (vertex: number) => number;
  entries: readonly End[];
  exits: readonly End[];
  K: number;
}>;

export type Cut = Readonly<{
  /** Chosen gates, by vertex. */
  chosen: readonly number[];
  /** Sum of their prices. */
  price: number;
  /** The flow's proof: no set that holds the requirement is cheaper than this. Equal to `price`. */
  bound: number;
  /** The layer before a gate: 0 is live plant, K the zone people work in. */
  layerBefore: (vertex: number) => number;
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
 * Cost: K + 2 searches and K maximum flows over what lies behind the points; at the supply a search of the plant besides.
 *
 * Source: linear-programming duality of minimum-cost flow (Ford and Fulkerson, Flows in Networks, 1962, quoted from
 * memory), applied to distances instead of connectivity.
 */
export function kBarrierCut(problem: CutProblem, school: School, effort?: Effort): Cut {
  const { K } = problem;
  const network = new FlowNetwork(problem.graph, problem.priceAt, problem);
  const flow = new CheapestFlow(network, K, effort);
  let bound = 0;
  while (flow.lengthen() < K) bound += (K - flow.length) * flow.push();

  const layer: Layer = school === "supply" ? layersFromSupply(flow) : layersFromWork(flow);
  const chosen: number[] = [];
  let price = 0;
  // A chosen gate is always full, so some search came to it.
  for (const vertex of network.gatesMet()) {
    if (layer(network.leaving(vertex)) - layer(vertex) !== 1) continue;
    chosen.push(vertex);
    price += problem.priceAt(vertex);
  }
  chosen.sort((a, b) => a - b);
  return { chosen, price, bound, layerBefore: layer };
}
