import { sourcesOf } from "../trace/sources";
import { verticesOfItem } from "../trace/stateGraph";
import { PROTECTING } from "../plant/plant";
import type { Supply } from "./fedNoMore";
import { type RunningPlant, type ServicePoint } from "./runningPlant";
import { reached } from "../trace/barrierDistance";
import { lifting, stoppedAt } from "./shut";
import { marked } from "./waysOut";

type Lost = Readonly<{ item: number; service: string; by: ReadonlySet<number> }>;

/**
 * What loses its protection: a relief that it no longer reaches, or that leads nowhere any more; a service that no longer
 * reaches it, or is no longer fed itself. A relief without a list protects what reaches it without crossing a device. What
 * is isolated, drained and dark needs none.
 *
 * Cost: four linear searches for each service that protects.
 */
export function unprotected(
  running: RunningPlant,
  isolated: ReadonlySet<number>,
  supply: Supply,
  isSafe: (vertex: number) => boolean,
): { lost: Lost[]; unknown: string[] } {
  const { graph } = running;
  const flowing = { before: supply.shutBefore, after: supply.shutAfter };
  const risen = {
    before: lifting(graph, supply.shutBefore, new Set()),
    after: lifting(graph, supply.shutAfter, isolated),
  };
  const lost: Lost[] = [];
  const unknown = new Set<string>();
  for (const service of running.services) {
    if (!PROTECTING.some((one) => one === service.service)) continue;
    const isRelief = service.service === "relief";
    const given = service.protects.map((tag) => graph.itemByTag.get(tag)!);
    const items = given.length > 0 || !isRelief ? given : beforeRelief(running, service);
    if (items.length === 0) {
      unknown.add(graph.plant.items[service.item]!.tag);
      continue;
    }
    const shut = isRelief ? risen : flowing;
    const serves = isRelief ? reliefs(running, service, shut.before) : feeds(running, service, shut.before);
    const today = serves(shut.before);
    const then = serves(shut.after);
    for (const item of items) {
      const own = verticesOfItem(graph, item);
      const isServed = (marks: Uint8Array | null) => marks !== null && own.some((vertex) => marks[vertex] === 1);
      if (!isServed(today) || isServed(then) || own.every(isSafe)) continue;
      lost.push({ item, service: graph.plant.items[service.item]!.tag, by: causes(service, own, isRelief) });
    }
  }
  return { lost, unknown: [...unknown].sort() };

  /** Devices that both the protected item and the service run up against; else those that cut the service itself. */
  function causes(service: ServicePoint, own: readonly number[], isRelief: boolean): Set<number> {
    const walked = isRelief ? running.pressed : running.lines;
    const shutAfter = (isRelief ? risen : flowing).after;
    const at = (starts: readonly number[], way: "out" | "in", over = walked) =>
      stoppedAt(over, starts, shutAfter, isolated, way);
    const [fromItem, fromService] = isRelief
      ? [at(own, "out"), at(service.entry, "in")]
      : [at(own, "in"), at(service.exit, "out")];
    const between = new Set([...fromItem].filter((device) => fromService.has(device)));
    if (between.size > 0) return between;
    const itself = isRelief ? at(service.exit, "out", running.lines) : at(service.entry, "in");
    return itself.size > 0 ? itself : fromItem;
  }
}

type Serves = (shut: Uint8Array) => Uint8Array | null;

/** From where pressure reaches a relief with these shut; null where what it lets go has nowhere to go. */
export function reliefs(running: RunningPlant, { entry, exit }: ServicePoint, today: Uint8Array): Serves {
  const { lines, pressed, sinks } = running;
  const onward = (shut: Uint8Array) => marked(reached(lines, exit, shut, "out"));
  const hasSink = (ends: readonly number[]) => ends.some((vertex) => sinks[vertex] === 1);
  const ledTo = onward(today);
  const isOpen = (shut: Uint8Array) => {
    const ends = onward(shut);
    // Where no sink is known it is taken to let go at all that it led to: none of that may be cut.
    return ends.length > 0 && (hasSink(ledTo) ? hasSink(ends) : ends.length >= ledTo.length);
  };
  return (shut) => (isOpen(shut) ? reached(pressed, entry, shut, "in") : null);
}

/** Where this service comes to; null where it gets nothing itself that it got today. */
function feeds(running: RunningPlant, { entry, exit }: ServicePoint, today: Uint8Array): Serves {
  const { lines, graph } = running;
  const starts = sourcesOf(graph).feeding.map(({ vertex }) => vertex);
  const isFed = (shut: Uint8Array) => {
    const lit = reached(lines, starts, shut, "out");
    return entry.some((vertex) => vertex >= 0 && lit[vertex] === 1);
  };
  const wasFed = isFed(today);
  return (shut) => (wasFed && !isFed(shut) ? null : reached(lines, exit, shut, "out"));
}

/** Kinds that only lead there: what has an inside of its own is protected. */
const LEADS_THERE: ReadonlySet<string> = new Set(["tee", "junction", "pipe"]);

/** 1 where a relief is reached along its lines without crossing a device. */
export function protectedBy({ graph, lines }: RunningPlant, { entry }: ServicePoint): Uint8Array {
  const itemOf = (vertex: number) => graph.places.itemOf[graph.placeAt[vertex]!]!;
  const devices = new Uint8Array(graph.vertexCount);
  const own = new Set(entry);
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    if (graph.plant.items[itemOf(vertex)]!.device !== undefined && !own.has(vertex)) devices[vertex] = 1;
  }
  return reached(lines, entry, devices, "in");
}

/** What reaches a relief so, and has an inside of its own. */
function beforeRelief(running: RunningPlant, service: ServicePoint): number[] {
  const { graph } = running;
  const own = new Set(service.entry);
  const found = new Set<number>();
  for (const vertex of marked(protectedBy(running, service))) {
    const index = graph.places.itemOf[graph.placeAt[vertex]!]!;
    const item = graph.plant.items[index]!;
    if (!own.has(vertex) && item.device === undefined && !LEADS_THERE.has(item.kind)) found.add(index);
  }
  return [...found];
}
