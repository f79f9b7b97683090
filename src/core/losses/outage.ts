import { sourcesOf } from "../trace/sources";
import { gatesOf, gateVertices, vertexOf, type StateGraph } from "../trace/stateGraph";

/** Minutes of effort that one consumer of criticality 1 weighs. Common practice has no figure; the site may set its own. */
export const MINUTES_A_CONSUMER = 20;

/**
 * For each device, the criticality of the running consumers that depend on it alone: those whose need it dominates in
 * the supply graph, every way from every feeding source going through it. Consumers in `work` do not count.
 *
 * What two devices lose together is more than the sum of what each loses alone, so this only steers the choice; the loss
 * of a plan is counted for itself (lossOf).
 *
 * Cost: the dominator tree of the live plant, near linear (Cooper, Harvey and Kennedy, "A simple, fast dominance
 * algorithm", 2001, from memory), and one walk up the tree for each need.
 */
export function outageOf(graph: StateGraph, work: ReadonlySet<number>): Float64Array {
  const standing = graph.plant.items.flatMap(({ device }, index) => (device?.stands === "stopping" ? [index] : []));
  const gates = gatesOf(graph, standing);
  const { order, dominator } = dominatorTree(
    graph,
    sourcesOf(graph).feeding.map((source) => source.vertex),
    gates,
  );
  const deviceAt = new Map<number, number>();
  graph.plant.items.forEach((item, index) => {
    if (item.device) for (const vertex of gateVertices(graph, index)) deviceAt.set(vertex, index);
  });

  const outage = new Float64Array(graph.plant.items.length);
  graph.plant.items.forEach((item, index) => {
    if (item.needs.length === 0 || work.has(index)) return;
    const found = graph.places.resolveFace(item.tag);
    if (!found.ok) throw new Error(`${item.tag} has no place`);
    const dependsOn = new Set<number>();
    for (const carrier of item.needs) {
      const lit = found.places.map((place) => vertexOf(graph, place, carrier)).filter((vertex) => order[vertex]! >= 0);
      // Not running, or fed into several parts: no one device stands for it.
      if (lit.length === 0) return;
      if (lit.length > 1) continue;
      for (let vertex = lit[0]!; vertex >= 0; vertex = dominator[vertex]!) {
        const device = deviceAt.get(vertex);
        if (device !== undefined && device !== index) dependsOn.add(device);
      }
    }
    for (const device of dependsOn) outage[device]! += item.criticality ?? 1;
  });
  return outage;
}

/**
 * Immediate dominators from a root that feeds every start; -1 for a vertex that only the root dominates. `order` is the
 * reverse postorder, -1 where nothing reaches.
 */
export function dominatorTree(
  graph: Pick<StateGraph, "vertexCount" | "out" | "in">,
  starts: readonly number[],
  gates: Uint8Array,
): { order: Int32Array; dominator: Int32Array } {
  const { first, other } = graph.out;
  const postorder: number[] = [];
  const state = new Uint8Array(graph.vertexCount);
  const next = new Int32Array(graph.vertexCount);
  const isStart = new Set(starts);
  for (const start of isStart) {
    if (state[start] !== 0) continue;
    const stack = [start];
    state[start] = 1;
    next[start] = first[start]!;
    while (stack.length > 0) {
      const vertex = stack.at(-1)!;
      if (next[vertex]! < first[vertex + 1]!) {
        const to = other[next[vertex]!++]!;
        if (state[to] === 0 && gates[to] === 0) {
          state[to] = 1;
          next[to] = first[to]!;
          stack.push(to);
        }
      } else {
        postorder.push(vertex);
        stack.pop();
      }
    }
  }
  const order = new Int32Array(graph.vertexCount).fill(-1);
  postorder.reverse().forEach((vertex, index) => {
    order[vertex] = index;
  });
  // -2 is not worked out yet; -1 is the root.
  const dominator = new Int32Array(graph.vertexCount).fill(-2);
  for (const start of isStart) dominator[start] = -1;
  const meet = (a: number, b: number): number => {
    while (a !== b) {
      if (a === -1 || b === -1) return -1;
      if (order[a]! > order[b]!) a = dominator[a]!;
      else b = dominator[b]!;
    }
    return a;
  };
  for (let changed = true; changed;) {
    changed = false;
    for (const vertex of postorder) {
      if (isStart.has(vertex)) continue;
      let found = -2;
      for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
        const before = graph.in.other[arc]!;
        if (order[before]! < 0 || dominator[before] === -2) continue;
        found = found === -2 ? before : meet(found, before);
      }
      if (found !== dominator[vertex]) {
        dominator[vertex] = found;
        changed = true;
      }
    }
  }
  return { order, dominator };
}
