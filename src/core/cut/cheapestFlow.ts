import type { FlowNetwork } from "./flowNetwork";

export const FAR = 0x3fffffff;

/**
 * Flow along shortest paths through a network, found backwards from the sink: searches stop where they meet the source, so
 * what they cost follows the part of the plant behind the points, not the plant.
 *
 * `below` is what a node's potential, its least length to the sink, lacks of the length of the paths now: 0 for every node
 * that no search has come to. The reduced length of an arc u→v is its length + below[v] − below[u], never negative.
 */
export class CheapestFlow {
  /** The length of the shortest paths that are left, at most K. */
  length = 0;
  readonly below: Int32Array;
  /** `below` gives the least length to the sink of every node for which it is less than that of the paths now. */
  isSettled = true;
  readonly #lowered = new Set<number>();
  readonly #level: Int32Array;
  readonly #next: Int32Array;

  constructor(
    readonly network: FlowNetwork,
    readonly K: number,
  ) {
    this.below = new Int32Array(network.nodeCount);
    this.#level = new Int32Array(network.nodeCount).fill(-1);
    this.#next = new Int32Array(network.nodeCount);
  }

  /** Lengthens the paths to the shortest that are left, and says how long they are now; K where none is shorter. */
  lengthen(): number {
    const { source } = this.network;
    const { distance, met } = this.towardsSink(true);
    const more = distance.get(source)!;
    this.isSettled = [...this.#lowered].every((node) => (distance.get(node) ?? FAR) <= more);
    for (const node of met) {
      const there = distance.get(node)!;
      if (there >= more) continue;
      this.below[node]! += there - more;
      this.#lowered.add(node);
    }
    this.length += more;
    return this.length;
  }

  /** Least reduced lengths to the sink: as far as the source, or of everything. */
  towardsSink(untilSource: boolean): { distance: ReadonlyMap<number, number>; met: readonly number[] } {
    const { network, below } = this;
    const { source, sink, head, residual, length } = network;
    const straight = this.K - this.length;
    const distance = new Map([
      [sink, 0],
      [source, straight],
    ]);
    const met: number[] = [sink];
    const buckets: number[][] = [[sink]];
    for (let d = 0; d < buckets.length && !(untilSource && d === distance.get(source)); d++) {
      const bucket = buckets[d] ?? [];
      for (let i = 0; i < bucket.length; i++) {
        const node = bucket[i]!;
        if (distance.get(node) !== d) continue;
        for (const leaving of network.arcsAt(node)) {
          // The arc that comes in from the neighbour is the partner of the one that leaves to it.
          const arc = leaving ^ 1;
          if (residual[arc]! <= 0) continue;
          const before = head[leaving]!;
          const reduced = length[arc]! + below[node]! - below[before]!;
          if (reduced < 0) throw new Error(`reduced length ${reduced} on arc ${arc}: the potential is broken`);
          const there = d + reduced;
          const known = distance.get(before);
          if (known !== undefined && there >= known) continue;
          distance.set(before, there);
          if (before === source) {
            if (untilSource && there === d) return { distance, met };
            continue;
          }
          if (known === undefined) met.push(before);
          (buckets[there] ??= []).push(before);
        }
      }
    }
    return { distance, met };
  }

  /**
   * As much flow as goes over the arcs whose reduced length is 0, by levels and blocking flows (Dinic 1970), backwards. These
   * arcs contain cycles, so levels are needed even though all have length 0. Returns the flow added.
   *
   * @throws Error if some way can take an endless flow: the requirement asked for more barriers than exist.
   */
  push(): number {
    const { network } = this;
    const { source, sink, head, residual } = network;
    let total = 0;
    for (;;) {
      const levelled = this.#levels();
      if (this.#level[source]! < 0) {
        for (const node of levelled) this.#level[node] = -1;
        return total;
      }
      const path: number[] = [];
      let node = sink;
      for (;;) {
        if (node === source) {
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
          // Go back only to where the first arc that is now full ends.
          node = head[path[restart]!]!;
          path.length = restart;
          continue;
        }
        const arcs = network.arcsAt(node);
        let isOn = false;
        for (; this.#next[node]! < arcs.length; this.#next[node]!++) {
          const arc = arcs[this.#next[node]!]! ^ 1;
          const before = head[arc ^ 1]!;
          if (this.#level[before] !== this.#level[node]! + 1 || !this.#isOpen(arc, before, node)) continue;
          path.push(arc);
          node = before;
          isOn = true;
          break;
        }
        if (isOn) continue;
        const last = path.pop();
        if (last === undefined) break;
        node = head[last]!;
        this.#next[node]!++;
      }
      for (const one of levelled) this.#level[one] = -1;
    }
  }

  #isOpen(arc: number, from: number, to: number): boolean {
    const { residual, length } = this.network;
    return residual[arc]! > 0 && length[arc]! + this.below[to]! - this.below[from]! === 0;
  }

  /** Levels from the sink up to the source; the nodes that have one. */
  #levels(): number[] {
    const { network } = this;
    const { source, sink, head } = network;
    const queue = [sink];
    this.#level[sink] = 0;
    this.#next[sink] = 0;
    for (let front = 0; front < queue.length; front++) {
      const node = queue[front]!;
      for (const leaving of network.arcsAt(node)) {
        const before = head[leaving]!;
        if (this.#level[before]! >= 0 || !this.#isOpen(leaving ^ 1, before, node)) continue;
        this.#level[before] = this.#level[node]! + 1;
        this.#next[before] = 0;
        queue.push(before);
        if (before === source) return queue;
      }
    }
    return queue;
  }
}
