import { verticesOfItem, type StateGraph } from "../trace/stateGraph";
import { runningPlantOf, type RunningPlant, type ServicePoint } from "./runningPlant";
import { lifting, shutBy } from "./shut";
import { protectedBy, reliefs } from "./unprotected";

/**
 * Items of the register with a limit (`limit_Pa`) that does not hold while these devices are isolated: a relief that the register
 * draws for them is cut off, on the way to it or behind it. Where none is drawn as theirs, every relief that they may reach
 * stands for it; where none is drawn at all, the limit is believed as it is written.
 *
 * Cost: nothing where no item has a limit; else a few linear searches for each relief of one.
 */
export function limitsLost(graph: StateGraph, isolated: Iterable<number>): ReadonlySet<number> {
  const limited = new Set(graph.plant.items.flatMap(({ limit_Pa }, item) => (limit_Pa === undefined ? [] : [item])));
  if (limited.size === 0) return limited;
  const running = runningPlantOf(graph);
  const none = new Set<number>();
  const shutBefore = lifting(graph, shutBy(graph, none), none);
  const shutAfter = lifting(graph, shutBy(graph, isolated), new Set(isolated));
  const own = new Map<number, boolean>();
  const far = new Map<number, boolean>();
  for (const service of running.services) {
    if (service.service !== "relief") continue;
    const serves = reliefs(running, service, shutBefore);
    const [wide, then] = [serves(shutBy(graph, none, everyDevice(graph))), serves(shutAfter)];
    const guarded = guardedBy(running, service);
    // Its own seat is no obstacle: a reducing valve is relieved behind it.
    const reaches = (marks: Uint8Array | null, item: number) =>
      marks !== null && besides(graph, item).some((vertex) => marks[vertex] === 1);
    for (const item of limited) {
      const isOwn = guarded.has(item);
      if (!isOwn && (service.protects.length > 0 || !reaches(wide, item))) continue;
      const found = isOwn ? own : far;
      // One that is left will do.
      found.set(item, (found.get(item) ?? false) || reaches(then, item));
    }
  }
  return new Set([...limited].filter((item) => (own.get(item) ?? far.get(item)) === false));
}

const everyDevice = (graph: StateGraph) =>
  new Set(graph.plant.items.flatMap(({ device }, item) => (device ? [item] : [])));

/** What a relief guards: what the register says, else what reaches it without crossing a device, the devices at its edge as well. */
function guardedBy(running: RunningPlant, service: ServicePoint): Set<number> {
  const given = service.protects.map((tag) => running.graph.itemByTag.get(tag)!);
  if (given.length > 0) return new Set(given);
  const { graph, lines } = running;
  const itemOf = (vertex: number) => graph.places.itemOf[graph.placeAt[vertex]!]!;
  const inside = protectedBy(running, service);
  const guarded = new Set<number>();
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    if (inside[vertex] === 0) continue;
    guarded.add(itemOf(vertex));
    for (let arc = lines.in.first[vertex]!; arc < lines.in.first[vertex + 1]!; arc++) {
      guarded.add(itemOf(lines.in.other[arc]!));
    }
  }
  return guarded;
}

/** The vertices of an item, and those that it leads to. */
function besides(graph: StateGraph, item: number): number[] {
  const own = verticesOfItem(graph, item);
  const beside = own.flatMap((vertex) => [
    ...graph.out.other.subarray(graph.out.first[vertex]!, graph.out.first[vertex + 1]!),
  ]);
  return [...own, ...beside];
}
