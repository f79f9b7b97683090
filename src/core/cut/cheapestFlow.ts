import type { FlowNetwork } from "./flowNetwork";

export const FAR = 0x3fffffff;

/** Nodes that levels may spread over before ways are looked for one by one, and so many ways before levels go on. */
export type Effort = Readonly<{ levelled: number; ways: number }>;
const EFFORT: Effort = { levelled: 4000, ways: 400 };

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
  #nearness: Int32Array | undefined;

  constructor(
    readonly network: FlowNetwork,
    readonly K: number,
    readonly effort: Effort = EFFORT,
  ) {
    this.below = new Int32Array(network.nodeCount);
    this.#level = new Int32Array(network.nodeCount).fill(-1);
    this.#next = new Int32Array(network.nodeCount);
  }

  /** Lengthens the paths to the shortest that are left, and says how long they are now; K where none is shorter. */
  lengthen(): number {
    const { source } = this.network;
    const { distance, met } = this.#towardsSink();
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

  /** Least reduced lengths to the sink, as far as the source. */
  #towardsSink(): { distance: ReadonlyMap<number, number>; met: readonly number[] } {
    const { network, below } = this;
    const { source, sink, head, residual, length } = network;
    const distance = new Map([
      [sink, 0],
      // The straight arc.
      [source, this.K - this.length],
    ]);
    const met: number[] = [sink];
    const buckets: number[][] = [[sink]];
    for (let d = 0; d < buckets.length && d < distance.get(source)!; d++) {
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
            if (there === d) return { distance, met };
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
   * As much flow as goes over the arcs whose reduced length is 0. Returns the flow added.
   *
   * By levels and blocking flows (Dinic 1970), backwards: these arcs contain cycles, so levels are needed even though all have
   * length 0. Where the source is far behind what is full already, levels would spread over the whole plant: then way by way,
   * each looked for where sources are near, and by levels again if there are very many.
   *
   * @throws Error if some way can take an endless flow: the requirement asked for more barriers than exist.
   */
  push(): number {
    let total = 0;
    let most = this.effort.levelled;
    for (;;) {
      const { levelled, end } = this.#levels(most);
      if (end === "source") total += this.#block();
      for (const node of levelled) this.#level[node] = -1;
      if (end === "none") return total;
      if (end === "too many") {
        for (let ways = 0; ways < this.effort.ways; ways++) {
          const path = this.#wayWhereSourcesAreNear();
          if (path === null) return total;
          total += this.#fill(path).added;
        }
        most = Infinity;
      }
    }
  }

  /** A blocking flow over the levels. */
  #block(): number {
    const { network } = this;
    const { source, sink, head } = network;
    let total = 0;
    const path: number[] = [];
    let node = sink;
    for (;;) {
      if (node === source) {
        const { added, full } = this.#fill(path);
        total += added;
        // Go back only to where the first arc that is now full ends.
        node = head[path[full]!]!;
        path.length = full;
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
      if (last === undefined) return total;
      node = head[last]!;
      this.#next[node]!++;
    }
  }

  /** As much as a path takes; and the first of its arcs, from the sink, that is then full. */
  #fill(path: readonly number[]): { added: number; full: number } {
    const { residual } = this.network;
    let added = Infinity;
    for (const arc of path) added = Math.min(added, residual[arc]!);
    if (added === Infinity) throw new Error("more barriers were asked for than exist on some way");
    let full = -1;
    path.forEach((arc, index) => {
      residual[arc]! -= added;
      residual[arc ^ 1]! += added;
      if (residual[arc] === 0 && full < 0) full = index;
    });
    return { added, full };
  }

  /** A path that takes more, its arcs from the sink on; what lies nearest to a source is gone through first. */
  #wayWhereSourcesAreNear(): number[] | null {
    const { network } = this;
    const { source, sink, head } = network;
    const near = (this.#nearness ??= linksFromEntries(network));
    const by = new Map<number, number>([[sink, -1]]);
    const buckets: number[][] = [[sink]];
    for (let at = 0; at < buckets.length;) {
      const node = buckets[at]?.pop();
      if (node === undefined) {
        at++;
        continue;
      }
      for (const leaving of network.arcsAt(node)) {
        const before = head[leaving]!;
        const arc = leaving ^ 1;
        if (by.has(before) || !this.#isOpen(arc, before, node)) continue;
        by.set(before, arc);
        if (before === source) {
          const path: number[] = [];
          for (let end = source; end !== sink; end = head[by.get(end)!]!) path.push(by.get(end)!);
          return path.reverse();
        }
        const links = near[network.vertexAt(before)]!;
        if (links === FAR) continue;
        (buckets[links] ??= []).push(before);
        if (links < at) at = links;
      }
    }
    return null;
  }

  #isOpen(arc: number, from: number, to: number): boolean {
    const { residual, length } = this.network;
    return residual[arc]! > 0 && length[arc]! + this.below[to]! - this.below[from]! === 0;
  }

  /** Levels from the sink up to the source, unless that takes too many; the nodes that have one. */
  #levels(most: number): { levelled: readonly number[]; end: "source" | "none" | "too many" } {
    const { network } = this;
    const { source, sink, head } = network;
    const levelled = [sink];
    this.#level[sink] = 0;
    this.#next[sink] = 0;
    for (let front = 0; front < levelled.length; front++) {
      const node = levelled[front]!;
      for (const leaving of network.arcsAt(node)) {
        const before = head[leaving]!;
        if (this.#level[before]! >= 0 || !this.#isOpen(leaving ^ 1, before, node)) continue;
        this.#level[before] = this.#level[node]! + 1;
        this.#next[before] = 0;
        levelled.push(before);
        if (before === source) return { levelled, end: "source" };
      }
      if (levelled.length > most) return { levelled, end: "too many" };
    }
    return { levelled, end: "none" };
  }
}

/** Links from the nearest entry to each vertex, whatever flows; FAR where none leads. Cost: linear in the plant. */
function linksFromEntries({ graph, entries }: FlowNetwork): Int32Array {
  const links = new Int32Array(graph.vertexCount).fill(FAR);
  const queue = [...entries];
  for (const vertex of queue) links[vertex] = 0;
  const { first, other } = graph.out;
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
      const next = other[arc]!;
      if (links[next] !== FAR) continue;
      links[next] = links[vertex]! + 1;
      queue.push(next);
    }
  }
  return links;
}
