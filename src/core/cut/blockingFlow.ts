import type { Residual } from "./flowNetwork";

/**
 * A maximum flow from `source` to `sink` over the arcs whose reduced length is 0, by levels and blocking flows (Dinic
 * 1970). These arcs contain cycles, so levels are needed even though all have length 0. Returns the flow added.
 *
 * @throws Error if some way can take an endless flow: the requirement asked for more barriers than exist.
 */
export function maximumFlowAtZero(network: Residual, source: number, sink: number, potential: Int32Array): number {
  const { first, arcs, head, residual, length, nodeCount } = network;
  const level = new Int32Array(nodeCount);
  const next = new Int32Array(nodeCount);
  const queue = new Int32Array(nodeCount);
  let total = 0;

  const open = (arc: number, from: number) =>
    residual[arc]! > 0 && length[arc]! + potential[from]! - potential[head[arc]!]! === 0;

  const findLevels = (): boolean => {
    level.fill(-1);
    level[source] = 0;
    queue[0] = source;
    for (let front = 0, back = 1; front < back; front++) {
      const node = queue[front]!;
      for (let slot = first[node]!; slot < first[node + 1]!; slot++) {
        const arc = arcs[slot]!;
        const to = head[arc]!;
        if (level[to]! < 0 && open(arc, node)) {
          level[to] = level[node]! + 1;
          queue[back++] = to;
        }
      }
    }
    return level[sink]! >= 0;
  };

  const path: number[] = [];
  while (findLevels()) {
    next.set(first.subarray(0, nodeCount));
    path.length = 0;
    let node = source;
    for (;;) {
      if (node === sink) {
        let most = Infinity;
        for (const arc of path) most = Math.min(most, residual[arc]!);
        if (most === Infinity) throw new Error("more barriers were asked for than exist on some way");
        total += most;
        let restart = -1;
        path.forEach((arc, index) => {
          residual[arc]! -= most;
          residual[arc ^ 1]! += most;
          if (residual[arc] === 0 && restart < 0) restart = index;
        });
        // Go back only to the tail of the first arc that is now full.
        node = head[path[restart]! ^ 1]!;
        path.length = restart;
        continue;
      }
      let advanced = false;
      while (next[node]! < first[node + 1]!) {
        const arc = arcs[next[node]!]!;
        const to = head[arc]!;
        if (level[to] === level[node]! + 1 && open(arc, node)) {
          path.push(arc);
          node = to;
          advanced = true;
          break;
        }
        next[node]!++;
      }
      if (advanced) continue;
      const back = path.pop();
      if (back === undefined) break;
      node = head[back ^ 1]!;
      next[node]!++;
    }
  }
  return total;
}
