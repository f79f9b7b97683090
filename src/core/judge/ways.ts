import { later } from "../onceFor";
import type { StateGraph } from "../trace/stateGraph";

/** What the isolated devices are to the ways of one scope. */
export type Positions = Readonly<{
  graph: StateGraph;
  /** 1 at an isolated device that a way crosses. */
  gates: Uint8Array;
  /** 1 at an isolated positive device of the family: no way crosses it. */
  closed: Uint8Array;
  /** 1 at an isolated device whose body stands open to a bleed between its seats. */
  bodies: Uint8Array;
  /** Is a place dark over all energies, and drained? */
  isProved: (vertex: number) => boolean;
  /** 1 at dead legs: no way goes there. */
  legs: Uint8Array;
}>;

/** Of the ways from each vertex to one face vertex. A vertex's own device is no barrier to what starts there. */
export type Ways = Readonly<{
  /** Least crossings: 0, 1, 2 for more; NO_WAY where none leads there. */
  crossed: Uint8Array;
  /** Asked of contents only, so worked out when it is. */
  unproved: () => Unproved;
}>;

export type Unproved = Readonly<{
  /** 1: some way passes no proved space between two crossings. */
  some: Uint8Array;
  /** For the walk that shows it, see unprovedWalk: the state that follows; -1 at the face. */
  next: Int32Array;
}>;

export const NO_WAY = 3;

/** Of the piece being walked, backwards from the face: spoilt or not begun, only proved places so far, just crossed. */
const SPOILT = 0;
const CLEAN = 1;
const CROSSED = 2;
const STATES = 3;

const vertexOfState = (state: number) => Math.floor(state / STATES);

/**
 * Backwards from one face vertex over every walk. A walk ends where it first reaches the face, so none passes it. Cost:
 * linear in the vertices and arcs that reach the face.
 */
export function waysTo(face: number, p: Positions): Ways {
  const { graph, gates, closed } = p;
  return { crossed: crossings(graph, face, gates, closed, p.legs), unproved: later(() => unprovedWays(face, p)) };
}

function crossings(
  graph: StateGraph,
  face: number,
  gates: Uint8Array,
  closed: Uint8Array,
  legs: Uint8Array,
): Uint8Array {
  const crossed = new Uint8Array(graph.vertexCount).fill(NO_WAY);
  const { first, other } = graph.in;
  crossed[face] = 0;
  let layer = [face];
  for (let count = 0; layer.length > 0 && count < NO_WAY; count++) {
    const next: number[] = [];
    for (let head = 0; head < layer.length; head++) {
      const vertex = layer[head]!;
      if (crossed[vertex] !== count || (closed[vertex] === 1 && vertex !== face)) continue;
      // Whoever comes through this vertex crosses it; what starts at it does not.
      const through = vertex !== face && gates[vertex] === 1 ? Math.min(2, count + 1) : count;
      for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
        const before = other[arc]!;
        if (crossed[before]! <= through || legs[before] === 1) continue;
        crossed[before] = through;
        if (through === count) layer.push(before);
        else next.push(before);
      }
    }
    layer = next;
  }
  return crossed;
}

function unprovedWays(face: number, p: Positions): Unproved {
  const { graph, gates, closed, bodies, isProved, legs } = p;
  const { first, other } = graph.in;
  const unproved = new Uint8Array(graph.vertexCount);
  const unprovedNext = new Int32Array(graph.vertexCount * STATES).fill(-1);
  const seen = new Uint8Array(graph.vertexCount * STATES);
  const queue = [face * STATES + SPOILT];
  seen[queue[0]!] = 1;
  for (let head = 0; head < queue.length; head++) {
    const state = queue[head]!;
    const vertex = vertexOfState(state);
    unproved[vertex] = 1;
    const after = onThrough(vertex, state % STATES);
    if (after === null) continue;
    for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
      const before = other[arc]!;
      if (before === face || legs[before] === 1) continue;
      const next = before * STATES + after;
      // A spoilt piece is no better than a clean one.
      if (seen[next] === 1 || (after === CLEAN && seen[before * STATES + SPOILT] === 1)) continue;
      seen[next] = 1;
      unprovedNext[next] = state;
      queue.push(next);
    }
  }
  return { some: unproved, next: unprovedNext };

  /** The piece once a walk has come through this vertex; null where it is proved, or cannot come through. */
  function onThrough(vertex: number, piece: number): number | null {
    if (vertex === face) return SPOILT;
    if (closed[vertex] === 1) return null;
    if (gates[vertex] === 1) return piece === CLEAN || bodies[vertex] === 1 ? null : CROSSED;
    return piece !== SPOILT && isProved(vertex) ? CLEAN : SPOILT;
  }
}

/**
 * Whence one unit failing lights the face: where a way leads there that crosses nothing but the gates marked in `free`.
 * Cost: linear in the vertices that reach the face so.
 */
export function litThrough(face: number, p: Positions, free: ReadonlySet<number>): ReadonlySet<number> {
  const { graph, gates, closed } = p;
  const reached = new Set([face]);
  const queue = [face];
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    if (vertex !== face && (closed[vertex] === 1 || (gates[vertex] === 1 && !free.has(vertex)))) continue;
    for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
      const before = graph.in.other[arc]!;
      if (reached.has(before)) continue;
      reached.add(before);
      queue.push(before);
    }
  }
  return reached;
}

/**
 * The vertices of a walk from here to the face that passes no proved space, both ends included; empty where there is none.
 * Cost: its length.
 */
export function unprovedWalk({ unproved }: Ways, from: number): number[] {
  const { next } = unproved();
  const start = [SPOILT, CLEAN, CROSSED].map((piece) => from * STATES + piece).find((state) => next[state] !== -1);
  const walk: number[] = [];
  for (let state = start ?? -1; state !== -1; state = next[state]!) walk.push(vertexOfState(state));
  return walk;
}
