import { EMPTYING } from "../plant/plant";
import { itemAt, placeName, placeOf, verticesOfItem, type StateGraph } from "../trace/stateGraph";
import { fedNoMore, supplyOf, type Loss } from "./fedNoMore";
import { lockedIn } from "./lockedIn";
import { runningPlantOf, type RunningPlant, type ServicePoint } from "./runningPlant";
import { reached } from "../trace/barrierDistance";
import { stoppedAt } from "./shut";
import { unprotected } from "./unprotected";
import { endsOf, marked, waysOut } from "./waysOut";

export const LOSS_KINDS = ["cannot deliver", "runs dry", "backs up", "unprotected", "locked in"] as const;
export type LossKind = (typeof LOSS_KINDS)[number];

/** What a plan does to something that goes on running, or stays full. Not so as the devices stand today. */
export type AlsoStops = Readonly<{
  kind: LossKind;
  tag: string;
  name: string;
  area: string;
  /** Who of the area is told; empty when the register does not say. */
  tell: string;
  criticality: number;
  /** Devices of the plan that cause it, by tag. */
  by: readonly string[];
  /** Backs up: what empties into it. Unprotected: what protected it. Locked in: the places of the section. */
  others: readonly string[];
}>;

export type Losses = Readonly<{
  goesDark: readonly Loss[];
  alsoStops: readonly AlsoStops[];
  /** Places that were taken for the end of a normal flow, because no sink is known. */
  assumedSinks: readonly string[];
  /** Services of which nobody wrote down what they protect: not judged. */
  protectsUnknown: readonly string[];
}>;

/** What is known of the plant with the plan: which vertices are dark and drained, which bleeds and valves it opens. */
export type Stands = Readonly<{
  isSafe: (vertex: number) => boolean;
  bleeds: ReadonlySet<number>;
  opens: ReadonlySet<number>;
}>;

/**
 * What else stops: everything here holds with the plan and does not hold as the devices stand today. `work` are items
 * that are themselves the work.
 *
 * Cost: some twenty linear searches over the plant, and two for each service that protects.
 */
export function lossesOf(
  graph: StateGraph,
  isolated: ReadonlySet<number>,
  work: ReadonlySet<number>,
  stands: Stands,
): Losses {
  const running = runningPlantOf(graph);
  const supply = supplyOf(graph, isolated, stands.opens);
  const { shutBefore, shutAfter } = supply;
  // Only what flows to or from a device of the plan today can be changed by it.
  const gates = [...isolated].flatMap((item) => verticesOfItem(graph, item));
  const upstream = reached(running.flow, gates, shutBefore, "in");
  const downstream = reached(running.flow, gates, shutBefore, "out");
  const isTouched = (vertices: readonly number[]) =>
    vertices.some((vertex) => vertex >= 0 && (upstream[vertex] === 1 || downstream[vertex] === 1));
  const judged = running.movers.filter(
    ({ item, flows }) => isTouched(flows) && !work.has(item) && supply.runs(item) && !supply.stopped.has(item),
  );
  const emptying = running.services.filter(
    ({ service, exit }) => EMPTYING.some((one) => one === service) && isTouched(exit),
  );
  const ends = endsOf(running, shutBefore, [...judged.map(({ flows }) => flows), ...emptying.map(({ exit }) => exit)]);
  const before = waysOut(running, ends, shutBefore);
  const after = waysOut(running, ends, shutAfter);
  const rows: AlsoStops[] = [];
  const add = (kind: LossKind, item: number, by: ReadonlySet<number>, others: readonly string[] = []) =>
    rows.push(rowOf(graph, kind, item, by, others));

  const fed = reached(running.flow, running.feeds, shutBefore, "out");
  const fedAfter = reached(running.flow, running.feeds, shutAfter, "out");
  for (const { item, flows } of judged) {
    if (before.delivers(flows) && !after.delivers(flows)) {
      add("cannot deliver", item, stoppedAt(running.flow, flows, shutAfter, isolated, "out"));
    }
    const hasWayIn = (marks: Uint8Array) => flows.some((vertex) => marks[vertex] === 1);
    if (hasWayIn(fed) && !hasWayIn(fedAfter)) {
      add("runs dry", item, stoppedAt(running.flow, flows, shutAfter, isolated, "in"));
    }
  }
  for (const service of emptying) {
    if (!before.ends(service.exit) || after.ends(service.exit)) continue;
    const into = emptyingInto(running, service, shutAfter, stands);
    if (into.length === 0) continue;
    add("backs up", service.item, stoppedAt(running.flow, service.exit, shutAfter, isolated, "out"), into);
  }
  const protection = unprotected(running, isolated, supply, stands.isSafe);
  for (const { item, by, service } of protection.lost) add("unprotected", item, by, [service]);
  for (const { item, by, places } of lockedIn(running, isolated, supply, stands.bleeds))
    add("locked in", item, by, places);

  return {
    goesDark: fedNoMore(graph, supply, work),
    alsoStops: joined(rows),
    assumedSinks: [...new Set(marked(ends.assumed).map((vertex) => placeName(graph, vertex)))].sort(),
    protectsUnknown: protection.unknown,
  };
}

function rowOf(
  { plant }: StateGraph,
  kind: LossKind,
  item: number,
  by: ReadonlySet<number>,
  others: readonly string[],
): AlsoStops {
  const { tag, name = "", area = "", criticality = 1 } = plant.items[item]!;
  return {
    kind,
    tag,
    name,
    area,
    tell: plant.areas.find((one) => one.name === area)?.tell ?? "",
    criticality,
    by: [...by].map((index) => plant.items[index]!.tag).sort(),
    others,
  };
}

/** One row for each kind and item, in the order of the kinds, then by tag. */
function joined(rows: readonly AlsoStops[]): AlsoStops[] {
  const found = new Map<string, AlsoStops>();
  const both = (a: readonly string[], b: readonly string[]) => [...new Set([...a, ...b])].sort();
  for (const row of rows) {
    const key = `${row.kind} ${row.tag}`;
    const known = found.get(key);
    found.set(key, known ? { ...row, by: both(known.by, row.by), others: both(known.others, row.others) } : row);
  }
  return [...found.values()].sort(
    (a, b) => LOSS_KINDS.indexOf(a.kind) - LOSS_KINDS.indexOf(b.kind) || (a.tag < b.tag ? -1 : 1),
  );
}

/** Kinds that only lead on: what stands before them is what empties. */
const LEADS_ON: ReadonlySet<string> = new Set(["tee", "junction", "pipe", "header", "check valve", "control valve"]);

/**
 * Tags of what still empties into a service with the plan: bleeds that it opens, and the nearest that hold or move contents
 * and are not already dark and drained.
 */
function emptyingInto(running: RunningPlant, service: ServicePoint, shut: Uint8Array, stands: Stands): string[] {
  const { graph, flow } = running;
  const tags = new Set<string>();
  const queue = service.entry.filter((vertex) => vertex >= 0 && shut[vertex] === 0);
  const seen = new Set(queue);
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    const item = itemAt(graph, vertex);
    const leadsOn = LEADS_ON.has(item.kind) || item.device !== undefined;
    const isService = graph.places.itemOf[placeOf(graph, vertex)] === service.item;
    if (!isService && !leadsOn) {
      if (!stands.isSafe(vertex)) tags.add(item.tag);
      continue;
    }
    // A bleed is no part of the normal flow, but what it lets go runs in here.
    for (const bleed of bleedsBeside(graph, vertex))
      if (stands.bleeds.has(bleed)) tags.add(graph.plant.items[bleed]!.tag);
    for (let arc = flow.in.first[vertex]!; arc < flow.in.first[vertex + 1]!; arc++) {
      const before = flow.in.other[arc]!;
      if (seen.has(before) || shut[before] === 1) continue;
      seen.add(before);
      queue.push(before);
    }
  }
  return [...tags].sort();
}

function bleedsBeside(graph: StateGraph, vertex: number): number[] {
  const found: number[] = [];
  for (const side of [graph.in, graph.out]) {
    for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
      const index = graph.places.itemOf[placeOf(graph, side.other[arc]!)]!;
      if (side.link[arc]! >= 0 && graph.plant.items[index]!.bleed !== undefined) found.push(index);
    }
  }
  return found;
}
