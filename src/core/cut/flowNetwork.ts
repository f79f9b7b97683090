/**
 * A network whose arcs have a capacity (a price to cut, Infinity for what cannot be cut) and a length (barriers gained
 * by crossing it). Arc a and its reverse are numbers a and a ^ 1; the reverse holds the flow. Built once, then frozen.
 */
export class FlowNetwork {
  readonly #tail: number[] = [];
  readonly #head: number[] = [];
  readonly #capacity: number[] = [];
  readonly #length: number[] = [];

  constructor(readonly nodeCount: number) {}

  addArc(from: number, to: number, capacity: number, length: number): void {
    this.#tail.push(from, to);
    this.#head.push(to, from);
    this.#capacity.push(capacity, 0);
    this.#length.push(length, -length);
  }

  freeze(): Residual {
    const first = new Int32Array(this.nodeCount + 1);
    for (const node of this.#tail) first[node + 1]! += 1;
    for (let node = 0; node < this.nodeCount; node++) first[node + 1]! += first[node]!;
    const next = first.slice();
    const arcs = new Int32Array(this.#tail.length);
    this.#tail.forEach((node, arc) => {
      arcs[next[node]!++] = arc;
    });
    return {
      nodeCount: this.nodeCount,
      first,
      arcs,
      head: Int32Array.from(this.#head),
      residual: Float64Array.from(this.#capacity),
      length: Int8Array.from(this.#length),
    };
  }
}

/** Arcs leaving node n, reverse ones too, are `arcs[first[n]]` to `arcs[first[n + 1] - 1]`. */
export type Residual = Readonly<{
  nodeCount: number;
  first: Int32Array;
  arcs: Int32Array;
  head: Int32Array;
  /** What each arc can still take. Changed by the flow. */
  residual: Float64Array;
  length: Int8Array;
}>;
