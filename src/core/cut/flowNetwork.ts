import type { StateGraph } from "../trace/stateGraph";
import { onceFor } from "../onceFor";

/** Where energy goes, packed as in a state graph. */
export type Ways = Pick<StateGraph, "vertexCount"> & Readonly<{ out: Pick<StateGraph["out"], "first" | "other"> }>;

/** An end of the ways: the vertex, and the barriers that need not stand before it. */
export type End = Readonly<{ vertex: number; skips: number }>;

/** The arcs of a graph from both their ends: arc a of `out` leaves `tail[a]`, and vertex v is entered by `arcs[first[v]]` and so on. */
export const bothEnds = onceFor(({ vertexCount, out }: Ways) => {
  const tail = new Int32Array(out.other.length);
  const first = new Int32Array(vertexCount + 1);
  for (let vertex = 0; vertex < vertexCount; vertex++) {
    for (let arc = out.first[vertex]!; arc < out.first[vertex + 1]!; arc++) {
      tail[arc] = vertex;
      first[out.other[arc]! + 1]! += 1;
    }
  }
  for (let vertex = 0; vertex < vertexCount; vertex++) first[vertex + 1]! += first[vertex]!;
  const next = first.slice();
  const arcs = new Int32Array(out.other.length);
  for (let arc = 0; arc < arcs.length; arc++) arcs[next[out.other[arc]!]!++] = arc;
  return { tail, first, arcs };
});

const NOT_MADE = -1;

/**
 * The network of a k-barrier cut, made only where a search comes: a plan near the work looks at little of a large plant.
 *
 * Every gate is split in→out by two parallel arcs: its price at length 0, and no limit at length 1. Arc a and its reverse
 * are numbers a and a ^ 1; the reverse holds the flow. An entry begins behind its own gate, and an exit ends before its own.
 */
export class FlowNetwork {
  readonly source: number;
  readonly sink: number;
  readonly nodeCount: number;
  readonly head: number[] = [];
  /** What each arc can still take. Changed by the flow. */
  readonly residual: number[] = [];
  readonly length: number[] = [];
  readonly #at: (readonly number[] | undefined)[];
  readonly #arcOf: Int32Array;
  readonly #gateArc = new Map<number, number>();
  readonly #entryArc = new Map<number, number>();
  readonly #exitArc = new Map<number, number>();
  readonly #skipsIn: ReadonlyMap<number, number>;
  readonly #skipsOut: ReadonlyMap<number, number>;

  /** `priceAt` gives the price of the gate at a vertex, 0 where there is none. Ends that skip `K` or more ask nothing. */
  constructor(
    readonly graph: Ways,
    readonly priceAt: (vertex: number) => number,
    ends: Readonly<{ entries: readonly End[]; exits: readonly End[]; K: number }>,
  ) {
    this.source = 2 * graph.vertexCount;
    this.sink = this.source + 1;
    this.nodeCount = this.sink + 1;
    this.#at = new Array<readonly number[] | undefined>(this.nodeCount);
    this.#arcOf = new Int32Array(graph.out.other.length).fill(NOT_MADE);
    this.#skipsIn = leastSkips(ends.entries, ends.K);
    this.#skipsOut = leastSkips(ends.exits, ends.K);
  }

  /** Vertices at which energy enters. */
  get entries(): Iterable<number> {
    return this.#skipsIn.keys();
  }

  /** The node at which a vertex is left: behind its gate, where it has one. */
  leaving(vertex: number): number {
    return this.priceAt(vertex) > 0 ? this.graph.vertexCount + vertex : vertex;
  }

  vertexAt(node: number): number {
    return node < this.graph.vertexCount ? node : node - this.graph.vertexCount;
  }

  /** Vertices with a gate that some search came to. */
  gatesMet(): Iterable<number> {
    return this.#gateArc.keys();
  }

  isMade(node: number): boolean {
    return this.#at[node] !== undefined;
  }

  /** The arcs leaving a node, reverse ones too. */
  arcsAt(node: number): readonly number[] {
    return (this.#at[node] ??= this.#make(node));
  }

  #make(node: number): readonly number[] {
    if (node === this.sink) return [...this.#skipsOut.keys()].map((vertex) => this.#exit(vertex) ^ 1);
    if (node === this.source) return [...this.#skipsIn.keys()].map((vertex) => this.#entry(vertex));
    const { graph } = this;
    const vertex = this.vertexAt(node);
    const isGate = this.priceAt(vertex) > 0;
    const found: number[] = [];
    if (node === vertex) {
      const { first, arcs } = bothEnds(graph);
      for (let slot = first[vertex]!; slot < first[vertex + 1]!; slot++) found.push(this.#line(arcs[slot]!) ^ 1);
      if (this.#skipsOut.has(vertex)) found.push(this.#exit(vertex));
    }
    if (node !== vertex || !isGate) {
      for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) found.push(this.#line(arc));
      if (this.#skipsIn.has(vertex)) found.push(this.#entry(vertex) ^ 1);
    }
    if (isGate) {
      const arc = this.#gate(vertex);
      if (node === vertex) found.push(arc, arc + 2);
      else found.push(arc ^ 1, (arc + 2) ^ 1);
    }
    return found;
  }

  #line(arc: number): number {
    if (this.#arcOf[arc] === NOT_MADE) {
      const { tail } = bothEnds(this.graph);
      this.#arcOf[arc] = this.#add(this.leaving(tail[arc]!), this.graph.out.other[arc]!, Infinity, 0);
    }
    return this.#arcOf[arc]!;
  }

  #gate(vertex: number): number {
    return made(this.#gateArc, vertex, () => {
      const price = this.priceAt(vertex);
      if (!Number.isSafeInteger(price)) throw new RangeError(`price ${price} of the gate at vertex ${vertex}`);
      const arc = this.#add(vertex, this.leaving(vertex), price, 0);
      this.#add(vertex, this.leaving(vertex), Infinity, 1);
      return arc;
    });
  }

  #entry(vertex: number): number {
    return made(this.#entryArc, vertex, () =>
      this.#add(this.source, this.leaving(vertex), Infinity, this.#skipsIn.get(vertex)!),
    );
  }

  #exit(vertex: number): number {
    return made(this.#exitArc, vertex, () => this.#add(vertex, this.sink, Infinity, this.#skipsOut.get(vertex)!));
  }

  #add(from: number, to: number, capacity: number, length: number): number {
    const arc = this.head.length;
    this.head.push(to, from);
    this.residual.push(capacity, 0);
    this.length.push(length, -length);
    return arc;
  }
}

function made(known: Map<number, number>, vertex: number, make: () => number): number {
  const found = known.get(vertex) ?? make();
  known.set(vertex, found);
  return found;
}

/** Of two ends at one vertex the one that skips less asks for more. */
function leastSkips(ends: readonly End[], K: number): ReadonlyMap<number, number> {
  const found = new Map<number, number>();
  for (const { vertex, skips } of ends) {
    if (skips < K) found.set(vertex, Math.min(skips, found.get(vertex) ?? skips));
  }
  return found;
}
