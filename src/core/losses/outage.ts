import { dominatorTree } from "../trace/dominators";
import { EMPTYING, PROTECTING } from "../plant/plant";
import { sourcesOf } from "../trace/sources";
import { gatesOf, gateVertices, vertexOf, verticesOfItem, type StateGraph } from "../trace/stateGraph";
import { runningPlantOf, type RunningPlant } from "./runningPlant";
import { shutBy } from "./shut";
import { endsOf, marked } from "./waysOut";

/** Minutes of effort that one consumer of criticality 1 weighs. Common practice has no figure; the site may set its own. */
export const MINUTES_A_CONSUMER = 20;

/**
 * For each device, the criticality of the running consumers that depend on it alone: those whose need it dominates in
 * the supply graph, every way from every feeding source going through it; and of what could not deliver, would run dry,
 * back up or stand unprotected with it alone shut. Items in `work` do not count.
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
  for (const { item, device } of alsoDependOn(graph)) {
    if (!work.has(item) && device !== item) outage[device]! += graph.plant.items[item]!.criticality ?? 1;
  }
  return outage;
}

type Dependence = Readonly<{ item: number; device: number }>;
const known = new WeakMap<StateGraph, readonly Dependence[]>();

/** What else depends on one device alone, whatever the job. Made once for each graph. */
function alsoDependOn(graph: StateGraph): readonly Dependence[] {
  const made = known.get(graph) ?? findAlsoDependOn(graph);
  known.set(graph, made);
  return made;
}

function findAlsoDependOn(graph: StateGraph): Dependence[] {
  const running = runningPlantOf(graph);
  const { flow, lines, pressed, movers, services, feeds, sinks } = running;
  const shut = shutBy(graph, []);
  const found: Dependence[] = [];
  const itemOf = (vertex: number) => graph.places.itemOf[graph.placeAt[vertex]!]!;
  /** Devices that every way from the starts to this item's vertices goes through. */
  const each = (item: number, vertices: readonly number[], tree: Tree) => {
    const chains = vertices
      .filter((vertex) => vertex >= 0 && tree.order[vertex]! >= 0)
      .map((vertex) => {
        const devices = new Set<number>();
        for (let at = vertex; at >= 0; at = tree.dominator[at]!) {
          if (graph.plant.items[itemOf(at)]!.device) devices.add(itemOf(at));
        }
        return devices;
      });
    const [first, ...others] = chains;
    for (const device of first ?? []) {
      if (others.every((chain) => chain.has(device))) found.push({ item, device });
    }
  };
  const emptying = services.filter(({ service }) => EMPTYING.some((one) => one === service));
  const exits = [...movers.map(({ flows }) => flows), ...emptying.map(({ exit }) => exit)];
  const ends = endsOf(running, shut, exits);
  const toEnds = dominatorTree(backwards(flow), [...marked(sinks), ...marked(ends.assumed)], shut);
  const fromFeeds = dominatorTree(flow, feeds, shut);
  for (const { item, flows } of movers) {
    each(item, flows, toEnds);
    each(item, flows, fromFeeds);
  }
  for (const { item, exit } of emptying) each(item, exit, toEnds);
  for (const { service, entry, exit, protects } of services) {
    if (!PROTECTING.some((one) => one === service)) continue;
    const tree =
      service === "relief" ? dominatorTree(backwards(pressed), entry, shut) : dominatorTree(lines, exit, shut);
    for (const tag of protects) {
      const item = graph.itemByTag.get(tag)!;
      each(item, verticesOfItem(graph, item), tree);
    }
  }
  return found;
}

type Tree = ReturnType<typeof dominatorTree>;

const backwards = (graph: RunningPlant["graph"]) => ({ ...graph, out: graph.in, in: graph.out });
