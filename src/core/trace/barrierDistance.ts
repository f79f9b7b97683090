import { placeOf, type StateGraph } from "./stateGraph";

export const UNREACHED = 0x7fffffff;

/** For each vertex, the least way from it to the target: first fewest gates, then fewest steps. */
export type BarrierDistance = Readonly<{
  /** Gates crossed after leaving the vertex; its own gate does not count. UNREACHED when there is no way. */
  gates: Int32Array;
  /** Steps of that way: a link counts 1, a conversion inside a place 0. UNREACHED when there is no way. */
  steps: Int32Array;
  /** The next vertex of that way; -1 at a target and where there is no way. */
  next: Int32Array;
}>;

/**
 * Least barriers from every vertex to the nearest of `targets`, walking arcs backwards: a 0-1 breadth-first search by
 * layers of gates, and inside a layer by steps.
 *
 * A gate on a target itself does not count, for a device that is the work is no barrier to it. `stepCost`, when given,
 * replaces the count of links: the price of entering a vertex (0 or 1). What lies `below` gates away or further is not told
 * apart from what is not reached.
 *
 * Cost: linear in the vertices and arcs that reach a target.
 */
export function barrierDistance(
  graph: StateGraph,
  targets: readonly number[],
  gateMarks: Uint8Array | null,
  stepCost: Uint8Array | null = null,
  below = UNREACHED,
): BarrierDistance {
  const { first, other } = graph.in;
  const gates = new Int32Array(graph.vertexCount).fill(UNREACHED);
  const steps = new Int32Array(graph.vertexCount).fill(UNREACHED);
  const towards = new Int32Array(graph.vertexCount).fill(-1);
  const isTarget = new Set(targets);
  const settled = new Uint8Array(graph.vertexCount);
  // layer[s] holds the vertices found at s steps in the layer being worked; nextLayer those one gate further.
  let layer: number[][] = [[...isTarget]];
  for (const target of isTarget) {
    gates[target] = 0;
    steps[target] = 0;
  }
  for (let depth = 0; layer.length > 0 && depth < below; depth++) {
    const nextLayer: number[][] = [];
    for (let step = 0; step < layer.length; step++) {
      const bucket = layer[step];
      if (bucket === undefined) continue;
      // The bucket grows while it is worked, by conversions, which cost no step.
      for (let head = 0; head < bucket.length; head++) {
        const vertex = bucket[head]!;
        if (settled[vertex] === 1 || gates[vertex] !== depth || steps[vertex] !== step) continue;
        settled[vertex] = 1;
        const crossing = gateMarks !== null && gateMarks[vertex] === 1 && !isTarget.has(vertex) ? 1 : 0;
        for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
          const before = other[arc]!;
          if (settled[before] === 1) continue;
          const price = stepCost === null ? stepBetween(graph, before, vertex) : stepCost[vertex]!;
          const gatesThere = depth + crossing;
          if (gatesThere >= below) continue;
          const stepsThere = step + price;
          if (gatesThere > gates[before]! || (gatesThere === gates[before]! && stepsThere >= steps[before]!)) continue;
          gates[before] = gatesThere;
          steps[before] = stepsThere;
          towards[before] = vertex;
          const into = crossing === 0 ? layer : nextLayer;
          (into[stepsThere] ??= []).push(before);
        }
      }
    }
    layer = nextLayer;
  }
  return { gates, steps, next: towards };
}

/** One step when the place changes, none for a conversion inside a place. */
function stepBetween(graph: StateGraph, a: number, b: number): number {
  return placeOf(graph, a) === placeOf(graph, b) ? 0 : 1;
}

/**
 * The vertices of a least way from `start`, both ends included; of equal ways the one whose place names come first by
 * code unit. A vertex of each place crossed and carrier taken is listed. Null when no target can be reached.
 *
 * All vertices of a place that lie on some least way are followed together, so the names really are the least.
 */
export function leastWay(
  graph: StateGraph,
  start: number,
  targets: readonly number[],
  gateMarks: Uint8Array | null,
  distance: BarrierDistance,
): number[] | null {
  if (distance.gates[start] === UNREACHED) return null;
  const isTarget = new Set(targets);
  const cameFrom = new Map<number, number>([[start, -1]]);
  const crossing = (v: number) => (gateMarks !== null && gateMarks[v] === 1 && !isTarget.has(v) ? 1 : 0);
  let here = [start];
  for (;;) {
    // Close over conversions in this place that keep to a least way.
    const frontier: number[] = [];
    const leaving = new Map<number, number[]>();
    for (let head = 0; head < here.length; head++) {
      const vertex = here[head]!;
      if (isTarget.has(vertex)) return wayBack(cameFrom, vertex);
      frontier.push(vertex);
      for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) {
        const next = graph.out.other[arc]!;
        if (cameFrom.has(next) || distance.gates[next] === UNREACHED) continue;
        const step = stepBetween(graph, vertex, next);
        const least =
          distance.gates[vertex] === distance.gates[next]! + crossing(next) &&
          distance.steps[vertex] === distance.steps[next]! + step;
        if (!least) continue;
        if (step === 0) {
          cameFrom.set(next, vertex);
          here.push(next);
        } else {
          const place = placeOf(graph, next);
          const ways = leaving.get(place) ?? [];
          ways.push(vertex, next);
          leaving.set(place, ways);
        }
      }
    }
    let best = -1;
    for (const place of leaving.keys()) {
      if (best < 0 || graph.places.names[place]! < graph.places.names[best]!) best = place;
    }
    if (best < 0) throw new Error(`no least way on from ${graph.places.names[placeOf(graph, frontier[0]!)]}`);
    const ways = leaving.get(best)!;
    here = [];
    for (let i = 0; i < ways.length; i += 2) {
      if (!cameFrom.has(ways[i + 1]!)) {
        cameFrom.set(ways[i + 1]!, ways[i]!);
        here.push(ways[i + 1]!);
      }
    }
  }
}

function wayBack(cameFrom: ReadonlyMap<number, number>, end: number): number[] {
  const way: number[] = [];
  for (let vertex = end; vertex >= 0; vertex = cameFrom.get(vertex) ?? -1) way.push(vertex);
  return way.reverse();
}

/** The place names along a way of vertices, conversions inside a place not repeated. */
export function viaNames(graph: StateGraph, way: readonly number[]): string[] {
  const names: string[] = [];
  let last = -1;
  for (const vertex of way) {
    const place = placeOf(graph, vertex);
    if (place !== last) names.push(graph.places.names[place]!);
    last = place;
  }
  return names;
}

/** All vertices that a source vertex in `starts` may reach: 1 where it may. Cost: linear in what is reached. */
export function reachableFrom(graph: StateGraph, starts: Iterable<number>, gateMarks: Uint8Array | null): Uint8Array {
  const reached = new Uint8Array(graph.vertexCount);
  const queue: number[] = [];
  for (const start of starts) {
    if (reached[start] === 0) {
      reached[start] = 1;
      queue.push(start);
    }
  }
  const { first, other } = graph.out;
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
      const next = other[arc]!;
      if (reached[next] === 1 || (gateMarks !== null && gateMarks[next] === 1)) continue;
      reached[next] = 1;
      queue.push(next);
    }
  }
  return reached;
}

/** Both ways of walking a graph: onwards, or back against its arcs. */
export function reached(
  graph: Pick<StateGraph, "vertexCount" | "out" | "in">,
  starts: Iterable<number>,
  shut: Uint8Array,
  way: "out" | "in",
): Uint8Array {
  const marks = new Uint8Array(graph.vertexCount);
  const queue: number[] = [];
  for (const start of starts) {
    if (start < 0 || marks[start] === 1 || shut[start] === 1) continue;
    marks[start] = 1;
    queue.push(start);
  }
  const { first, other } = graph[way];
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
      const next = other[arc]!;
      if (marks[next] === 1 || shut[next] === 1) continue;
      marks[next] = 1;
      queue.push(next);
    }
  }
  return marks;
}
