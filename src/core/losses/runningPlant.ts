import { CARRIERS, type Carrier } from "../plant/carriers";
import { isDeadEnd, isMover, isSink, isVessel } from "../plant/kinds";
import type { Item, Service } from "../plant/plant";
import { familyOf } from "../requirement/grades";
import { keepArcs } from "../trace/keepArcs";
import { sourcesOf } from "../trace/sources";
import { ARC, carrierOf, itemAt, verticesOfItem, vertexOf, type Adjacency, type StateGraph } from "../trace/stateGraph";

/**
 * The plant as it runs, for what a plan takes from it: which way things normally flow, where they may end, what moves
 * them and what drives that. Made once for each graph.
 */
export type RunningPlant = Readonly<{
  graph: StateGraph;
  /** Contents along normal flow, without hoses, and never into what is shut in normal running. */
  flow: StateGraph;
  /** What supplies consumers: every carrier along its normal way, and the conversions that drives make on purpose. */
  supply: StateGraph;
  /** The same with the lines of every service. */
  lines: StateGraph;
  /** Lines walked either way, but for check valves: where pressure may go. */
  pressed: StateGraph;
  /** Supplying vertices of contents, and vessels to draw from. */
  feeds: readonly number[];
  sinks: Uint8Array;
  vessels: Uint8Array;
  movers: readonly Mover[];
  services: readonly ServicePoint[];
}>;

/** Something that moves what flows through it. */
export type Mover = Readonly<{
  item: number;
  /** Vertices that contents flow through. */
  flows: readonly number[];
  /** Carriers that drive it; empty when the register does not say. */
  drive: readonly Carrier[];
}>;

/** An item or a line that serves others: what comes enters at `entry` and goes on from `exit`. */
export type ServicePoint = Readonly<{
  service: Service;
  /** The item, or the one that its line leads to. */
  item: number;
  entry: readonly number[];
  exit: readonly number[];
  protects: readonly string[];
}>;

const FLOWS = CARRIERS.map((carrier) => familyOf(carrier) === "flow");
export const isFlowing = (graph: StateGraph, vertex: number): boolean => FLOWS[graph.carrierIndexAt[vertex]!]!;

/** Lines of these lead nothing that a machine draws in or delivers. */
const NOT_ITS_FLOW: ReadonlySet<Service> = new Set<Service>(["relief", "purge", "inert", "trip"]);

/** Conversions by which one thing moves another against its purpose: a driven motor, a pump turned by flow. */
const BACKWARDS: ReadonlySet<string> = new Set([
  "shaft power",
  "fluid shaft",
  "bulk shaft",
  "gravity shaft",
  "control power",
  "heat fluid",
  // A push without contents: what a pump delivers comes through it.
  "shaft fluid",
  "shaft bulk",
]);

const made = new WeakMap<StateGraph, RunningPlant>();

/** Cost: linear in the plant, the first time. */
export function runningPlantOf(graph: StateGraph): RunningPlant {
  const known = made.get(graph);
  if (known) return known;
  const { plant } = graph;
  const isOpenTo = (vertex: number) => {
    const item = itemAt(graph, vertex);
    return !isDeadEnd(item.kind);
  };
  const lineOf = (side: Adjacency, arc: number) => {
    const link = plant.links[side.link[arc]!];
    return link?.temporary === undefined ? link : undefined;
  };
  const isServing = (vertex: number, side: Adjacency, arc: number) =>
    isAside(lineOf(side, arc)?.service) ||
    isAside(itemAt(graph, vertex).service) ||
    isAside(itemAt(graph, side.other[arc]!).service);
  const lines = keepArcs(graph, (vertex, side, arc) => {
    const other = side.other[arc]!;
    if (side.link[arc]! >= 0) {
      const isBleed = itemAt(graph, other).bleed !== undefined || itemAt(graph, vertex).bleed !== undefined;
      return lineOf(side, arc) !== undefined && side.type[arc] === ARC.plain && !isBleed;
    }
    const [from, to] = side === graph.out ? [vertex, other] : [other, vertex];
    return !BACKWARDS.has(`${carrierOf(graph, from)} ${carrierOf(graph, to)}`);
  });
  const supply = keepArcs(lines, (vertex, side, arc) => !isServing(vertex, side, arc));
  const flow = keepArcs(
    supply,
    (vertex, side, arc) =>
      side.link[arc]! >= 0 && isFlowing(graph, vertex) && isOpenTo(vertex) && isOpenTo(side.other[arc]!),
  );
  const pressed = keepArcs(graph, (vertex, side, arc) => {
    const isCheck = [vertex, side.other[arc]!].some((end) => itemAt(graph, end).kind === "check valve");
    return lineOf(side, arc) !== undefined && !(isCheck && side.type[arc] === ARC.againstFlow);
  });
  const sinks = new Uint8Array(graph.vertexCount);
  const vessels = new Uint8Array(graph.vertexCount);
  const feeds = sourcesOf(graph)
    .feeding.map(({ vertex }) => vertex)
    .filter((vertex) => isFlowing(graph, vertex));
  const movers: Mover[] = [];
  for (const [index, item] of plant.items.entries()) {
    const vertices = verticesOfItem(graph, index);
    const flows = vertices.filter((vertex) => isFlowing(graph, vertex));
    if (item.sink ?? isSink(item.kind)) for (const vertex of flows) sinks[vertex] = 1;
    if (isVessel(item.kind)) {
      for (const vertex of flows) vessels[vertex] = 1;
      feeds.push(...flows);
    }
    if (isMover(item.kind) && flows.length > 0) {
      movers.push({ item: index, flows, drive: driveOf(graph, item, vertices) });
    }
  }
  const running = { graph, flow, supply, lines, pressed, feeds, sinks, vessels, movers, services: servicesOf(graph) };
  made.set(graph, running);
  return running;
}

const isAside = (service: Service | undefined) => service !== undefined && NOT_ITS_FLOW.has(service);

/** By what it is driven: what it says it needs, else its shaft, else its own power. */
function driveOf(graph: StateGraph, { needs }: Item, vertices: readonly number[]): Carrier[] {
  const drives = needs.filter((carrier) => !FLOWS[CARRIERS.indexOf(carrier)] && carrier !== "control");
  if (drives.length > 0) return drives;
  const isLinked = (carrier: Carrier) =>
    vertices.some(
      (vertex) =>
        carrierOf(graph, vertex) === carrier &&
        graph.in.link.subarray(graph.in.first[vertex], graph.in.first[vertex + 1]).some((link) => link >= 0),
    );
  const found = (["shaft", "power"] as const).find(isLinked);
  return found === undefined ? [] : [found];
}

function servicesOf(graph: StateGraph): ServicePoint[] {
  const { plant, places } = graph;
  const found: ServicePoint[] = [];
  for (const [index, { service, protects }] of plant.items.entries()) {
    if (service === undefined) continue;
    const all = verticesOfItem(graph, index);
    found.push({ service, item: index, entry: all, exit: all, protects });
  }
  for (const { service, protects, from, to, carries } of plant.links) {
    if (service === undefined) continue;
    const [a, b] = [places.resolveOne(from), places.resolveOne(to)];
    if (!a.ok || !b.ok) throw new Error(`a link was not checked: ${from} to ${to}`);
    found.push({
      service,
      item: places.itemOf[b.place]!,
      entry: [vertexOf(graph, a.place, carries)],
      exit: [vertexOf(graph, b.place, carries)],
      protects,
    });
  }
  return found;
}
