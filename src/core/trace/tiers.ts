import { carrierOf, itemAt, placeOf, verticesOfItem, ARC, type StateGraph } from "./stateGraph";
import type { WorkFace } from "./workFaces";

/**
 * How likely an energy is to come, never how bad it would be: 1 as supplied or by the face's own drive, 2 by one
 * conversion elsewhere, 3 by two or more, or back over a bus that others hang on.
 */
export type Tier = 1 | 2 | 3;

/** More conversions than this are all the same. */
const MOST = 2;
const UNSEEN = 3;

export type Tiers = Readonly<{
  tierOf: (vertex: number) => Tier;
  reaches: (vertex: number) => boolean;
  /** The vertices of a way of that tier with the fewest links, both ends included. Cost: its length. */
  wayOf: (vertex: number) => number[];
}>;

/**
 * The tier of every place from which energy may reach these vertices: the best over all ways. A conversion counts unless it
 * happens in the face's own drive. One that makes power or control and then runs against normal flow into a place with
 * another consumer, and on, counts as two: a machine at rest, turned by what flows, feeding a whole board backwards.
 *
 * Backwards from the face over (vertex, does the way run on over such a place). Cost: linear in what reaches the face.
 */
export function tiersTo(
  graph: StateGraph,
  targets: readonly number[],
  own: ReadonlySet<number>,
  closed: Uint8Array | null = null,
): Tiers {
  const isTarget = new Set(targets);
  const after = new Int32Array(graph.vertexCount * 2).fill(-1);
  // Two states for each vertex: without and with such a place on the way on from it. First the count, then the steps.
  const least = new Uint8Array(graph.vertexCount * 2).fill(UNSEEN);
  const steps = new Int32Array(graph.vertexCount * 2);
  const layers: number[][][] = [[], [], []];
  const put = (state: number, count: number, step: number) => (layers[count]![step] ??= []).push(state);
  for (const target of isTarget) {
    least[target * 2] = 0;
    put(target * 2, 0, 0);
  }
  const { first, other, type, link } = graph.in;
  for (let count = 0; count <= MOST; count++) {
    const layer = layers[count]!;
    for (let step = 0; step < layer.length; step++) {
      const bucket = layer[step] ?? [];
      for (let head = 0; head < bucket.length; head++) {
        const state = bucket[head]!;
        if (least[state] !== count || steps[state] !== step) continue;
        const vertex = state >> 1;
        const overBus = state & 1;
        for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
          const before = other[arc]!;
          if (closed !== null && closed[before] === 1) continue;
          const isLine = link[arc]! >= 0;
          const price = isLine || own.has(graph.places.itemOf[placeOf(graph, vertex)]!) ? 0 : priceOf(vertex, overBus);
          const isBack =
            isLine && type[arc] === ARC.againstFlow && !isTarget.has(vertex) && feedsOthers(vertex, before);
          const next = before * 2 + (overBus === 1 || isBack ? 1 : 0);
          const there = Math.min(MOST, count + price);
          const stepThere = step + (isLine ? 1 : 0);
          if (there > least[next]! || (there === least[next]! && stepThere >= steps[next]!)) continue;
          least[next] = there;
          steps[next] = stepThere;
          after[next] = state;
          put(next, there, stepThere);
        }
      }
    }
  }
  const bestAt = (vertex: number) => (least[vertex * 2]! <= least[vertex * 2 + 1]! ? vertex * 2 : vertex * 2 + 1);
  return {
    reaches: (vertex) => least[bestAt(vertex)] !== UNSEEN,
    tierOf: (vertex) => {
      const count = least[bestAt(vertex)]!;
      return count === 0 ? 1 : count === 1 ? 2 : 3;
    },
    wayOf: (vertex) => {
      const way: number[] = [];
      for (let state = bestAt(vertex); state >= 0; state = after[state]!) way.push(state >> 1);
      return way;
    },
  };

  /** What a conversion counts whose end is here. */
  function priceOf(vertex: number, overBus: number): number {
    const carrier = carrierOf(graph, vertex);
    return overBus === 1 && (carrier === "power" || carrier === "control") ? 2 : 1;
  }

  /** Does something else than `from` normally take this carrier from here? */
  function feedsOthers(vertex: number, from: number): boolean {
    const { out } = graph;
    for (let arc = out.first[vertex]!; arc < out.first[vertex + 1]!; arc++) {
      if (out.link[arc]! < 0 || out.type[arc] !== ARC.plain) continue;
      if (placeOf(graph, out.other[arc]!) !== placeOf(graph, from)) return true;
    }
    return false;
  }
}

/** Carriers by which a drive is fed. */
const FEEDS = new Set(["power", "hydraulic", "pneumatic"]);

/**
 * The face's own drive: its items, what shafts join to them, and what feeds those and nothing else, down to the first
 * place that others are fed from as well. Cost: linear in what it finds.
 */
export function ownDriveOf(graph: StateGraph, face: WorkFace): ReadonlySet<number> {
  const own = new Set(face.items);
  const queue = [...face.items];
  const itemOf = (vertex: number) => graph.places.itemOf[placeOf(graph, vertex)]!;
  const add = (item: number) => {
    if (own.has(item)) return;
    own.add(item);
    queue.push(item);
  };
  for (let head = 0; head < queue.length; head++) {
    for (const vertex of verticesOfItem(graph, queue[head]!)) {
      const carrier = carrierOf(graph, vertex);
      for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
        if (graph.in.link[arc]! < 0) continue;
        const before = graph.in.other[arc]!;
        if (carrier === "shaft") add(itemOf(before));
        else if (FEEDS.has(carrier) && graph.in.type[arc] === ARC.plain && feedsOnly(before, itemOf(vertex))) {
          add(itemOf(before));
        }
      }
      if (carrier !== "shaft") continue;
      for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) {
        if (graph.out.link[arc]! >= 0) add(itemOf(graph.out.other[arc]!));
      }
    }
  }
  return own;

  function feedsOnly(vertex: number, item: number): boolean {
    const { out } = graph;
    for (let arc = out.first[vertex]!; arc < out.first[vertex + 1]!; arc++) {
      if (out.link[arc]! < 0 || out.type[arc] !== ARC.plain) continue;
      const other = out.other[arc]!;
      const { bleed, sources } = itemAt(graph, other);
      // A bleed and a store take nothing for good.
      const isStore = sources.length > 0 && sources.every(({ feeding }) => !feeding);
      if (itemOf(other) !== item && bleed === undefined && !isStore) return false;
    }
    return true;
  }
}
