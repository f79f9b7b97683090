import { isCreditable } from "../plant/plant";
import { dominatorTree } from "./dominators";
import { itemAt, placeOf, type StateGraph } from "./stateGraph";

/**
 * For each place from which energy may reach these vertices: the creditable device nearest to them that every way crosses;
 * null where there is none. A device that is itself the work is none.
 *
 * Cost: the dominators of what reaches them, near linear; then the length of a chain for each place asked about.
 */
export function lastLockBefore(
  graph: StateGraph,
  targets: readonly number[],
  work: ReadonlySet<number>,
): (vertex: number) => string | null {
  const backwards = { vertexCount: graph.vertexCount, out: graph.in, in: graph.out };
  const { dominator, order } = dominatorTree(backwards, targets, new Uint8Array(graph.vertexCount));
  const known = new Map<number, string | null>();
  const lockAt = (vertex: number): string | null => {
    const { device, tag } = itemAt(graph, vertex);
    const isWork = work.has(graph.places.itemOf[placeOf(graph, vertex)]!);
    return device !== undefined && !isWork && isCreditable(device) ? tag : null;
  };
  return (vertex) => {
    if (order[vertex]! < 0) return null;
    // Up from the place to what each earlier search has found; its own device is no barrier to what starts there.
    const chain: number[] = [];
    let at = dominator[vertex]!;
    while (at >= 0 && !known.has(at)) {
      chain.push(at);
      at = dominator[at]!;
    }
    let found = at >= 0 ? known.get(at)! : null;
    for (const one of chain.reverse()) {
      // Nearer the work wins: what was found above stays.
      found ??= lockAt(one);
      known.set(one, found);
    }
    return found;
  };
}
