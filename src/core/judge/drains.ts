import { familyOf } from "../requirement/grades";
import { CARRIERS } from "../plant/carriers";
import { canBeShut, surelyPasses } from "../plant/kinds";
import type { Item } from "../plant/plant";
import { itemAt, verticesAt, type StateGraph } from "../trace/stateGraph";
import type { BarrierField } from "./pairs";

/** The bleeds that are opened and the valves before them that are opened and locked so. */
export type Opened = Readonly<{ bleeds: ReadonlySet<number>; valves: ReadonlySet<number> }>;

export type Drains = Readonly<{
  /** Vertices at which what stands surely runs out of an open bleed; the bleeds themselves among them. */
  drained: ReadonlySet<number>;
  /** Every bleed and valve that may be opened for it. */
  opened: Opened;
}>;

const FLOWS = CARRIERS.map((carrier) => familyOf(carrier) === "flow");

export function isFlow(graph: StateGraph, vertex: number): boolean {
  return FLOWS[graph.carrierIndexAt[vertex]!]!;
}

/** How a place lets through what stands in it: never surely, always, or once its valve was opened and locked open. */
type Lets = "no" | "yes" | "opened";

function letsThrough(item: Item, siteKinds: StateGraph["plant"]["kinds"]): Lets {
  if (!surelyPasses(item.kind, siteKinds)) return "no";
  if (item.device === undefined) return canBeShut(item.kind) ? "no" : "yes";
  // A blind in the line lets nothing through; of a device with several ways nobody knows which it stands in.
  if (item.device.positive || item.device.positions !== undefined || !item.device.lockable) return "no";
  return "opened";
}

/**
 * Where what stands surely runs out, with these devices isolated and every bleed open that may be: along links in their
 * direction, inside its own carrier, through places that all surely pass, itself included. A place of which nobody knows
 * that it passes is drained when every place linked to it is. Everything is read as the worse: a temporary link, a valve
 * that nobody locks open, an item of a valve's kind that nobody described, a bleed above the liquid (below the vapour) that
 * it should let out do not drain. A bleed linked to an isolated device shows nothing but that device's body.
 *
 * `only` narrows what is opened. Cost: linear in the places that a bleed drains, and in bleeds.
 */
export function drainsOf(field: BarrierField, isolated: ReadonlySet<number>, gates: Uint8Array, only?: Opened): Drains {
  const { graph } = field;
  const { plant, places } = graph;
  const mayOpenBleed = (item: number) =>
    plant.items[item]!.bleed?.safe === true && !field.struck.has(item) && (only?.bleeds.has(item) ?? true);
  const mayOpenValve = (item: number) =>
    !isolated.has(item) && !field.struck.has(item) && !field.atWork.has(item) && (only?.valves.has(item) ?? true);
  const sureAt = new Map<number, boolean>();
  const isSure = (vertex: number): boolean => {
    const place = graph.placeAt[vertex]!;
    const known = sureAt.get(place);
    if (known !== undefined) return known;
    const item = places.itemOf[place]!;
    // A bleed that is blocked, or must not be opened, may be shut as well.
    const isShut = plant.items[item]!.bleed !== undefined && !mayOpenBleed(item);
    const lets = letsThrough(plant.items[item]!, plant.kinds);
    const found = !isShut && (lets === "yes" || (lets === "opened" && mayOpenValve(item)));
    sureAt.set(place, found);
    return found;
  };
  const isLine = (arc: number, side: StateGraph["out"]) => {
    const link = side.link[arc]!;
    return link >= 0 && plant.links[link]!.temporary === undefined;
  };

  // Bleeds by height, those of unknown height first: they may be at any.
  const bleeds: { vertex: number; item: number; level_m: number | undefined }[] = [];
  for (const item of only?.bleeds ?? bleedItems(graph)) {
    if (!mayOpenBleed(item)) continue;
    for (const vertex of bleedVertices(graph, item)) {
      if (gates[vertex] === 0 && !isOnDevice(graph, vertex, gates)) {
        bleeds.push({ vertex, item, level_m: plant.items[item]!.level_m });
      }
    }
  }
  const drained = new Set<number>();
  if (bleeds.length === 0) return { drained, opened: { bleeds: new Set(), valves: new Set() } };

  /** Least (or, for vapour, greatest) height of a bleed that each vertex surely leads to. */
  const reach = (order: 1 | -1): Map<number, number> => {
    const known = new Map<number, number>();
    const worst = order * -Infinity;
    const sorted = bleeds
      .map(({ vertex, level_m }) => ({ vertex, level: level_m ?? worst }))
      .sort((a, b) => order * (a.level === b.level ? 0 : a.level < b.level ? -1 : 1));
    for (const { vertex: start, level } of sorted) {
      if (!known.has(start)) known.set(start, level);
      const queue = [start];
      const seen = new Set(queue);
      for (let head = 0; head < queue.length; head++) {
        const vertex = queue[head]!;
        const { first, other } = graph.in;
        for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
          const before = other[arc]!;
          if (seen.has(before) || known.has(before) || gates[before] === 1 || !isLine(arc, graph.in)) continue;
          if (!isSure(before)) continue;
          seen.add(before);
          known.set(before, level);
          queue.push(before);
        }
      }
    }
    return known;
  };
  const lowest = reach(1);
  const anyLevel = bleeds.some(({ level_m }) => level_m !== undefined);
  const highest = anyLevel ? reach(-1) : lowest;
  const queue: number[] = [];
  for (const { vertex } of bleeds) drained.add(vertex);
  for (const [vertex, low] of lowest) {
    if (drained.has(vertex)) continue;
    const { level_m, contents } = itemAt(graph, vertex);
    const isRight =
      !anyLevel ||
      level_m === undefined ||
      (contents?.phase === "gas" ? highest.get(vertex)! >= level_m : low <= level_m);
    if (isRight) drained.add(vertex);
  }
  for (const vertex of lowest.keys()) if (drained.has(vertex)) queue.push(vertex);
  // Outwards from what is drained: a place that does not surely pass, with nothing undrained beside it.
  for (let head = 0; head < queue.length; head++) {
    for (const next of besideBy(graph, queue[head]!)) {
      if (drained.has(next) || gates[next] === 1 || isSure(next)) continue;
      let all = true;
      for (const beside of besideBy(graph, next)) {
        if (gates[beside] === 0 && !drained.has(beside)) all = false;
      }
      if (!all) continue;
      drained.add(next);
      queue.push(next);
    }
  }
  const valves = new Set<number>();
  for (const vertex of lowest.keys()) {
    const item = places.itemOf[graph.placeAt[vertex]!]!;
    if (plant.items[item]!.device) valves.add(item);
  }
  return { drained, opened: { bleeds: new Set(bleeds.map(({ item }) => item)), valves } };
}

/** Vertices of the same carrier that a line joins to this one, either way; some of them twice. */
export function* besideBy(graph: StateGraph, vertex: number): Generator<number> {
  for (const side of [graph.out, graph.in]) {
    for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
      if (side.link[arc]! >= 0) yield side.other[arc]!;
    }
  }
}

const knownBleeds = new WeakMap<StateGraph["plant"], readonly number[]>();

/** Items that are bleeds. Cost: linear once a register. */
function bleedItems({ plant }: StateGraph): readonly number[] {
  const known = knownBleeds.get(plant);
  if (known) return known;
  const found = [...plant.items.keys()].filter((item) => plant.items[item]!.bleed !== undefined);
  knownBleeds.set(plant, found);
  return found;
}

function bleedVertices(graph: StateGraph, item: number): number[] {
  const found = graph.places.resolveFace(graph.plant.items[item]!.tag);
  if (!found.ok) throw new Error(`${graph.plant.items[item]!.tag} has no place`);
  return found.places.flatMap((place) => verticesAt(graph, place)).filter((vertex) => isFlow(graph, vertex));
}

/** Is a line of this bleed joined to an isolated device, on whatever carrier? */
function isOnDevice(graph: StateGraph, vertex: number, gates: Uint8Array): boolean {
  for (const next of besideBy(graph, vertex)) if (gates[next] === 1) return true;
  return false;
}

/** Isolated devices whose own body is bled: a bleed between their seats that may be opened. */
export function bodiesBled(field: BarrierField, isolated: ReadonlySet<number>, only?: Opened): ReadonlySet<number> {
  const { plant, itemByTag } = field.graph;
  const found = new Set<number>();
  for (const item of isolated) {
    const bleed = itemByTag.get(plant.items[item]?.device?.bodyBleed ?? "");
    if (bleed === undefined || field.struck.has(bleed) || !(only?.bleeds.has(bleed) ?? true)) continue;
    if (plant.items[bleed]!.bleed?.safe) found.add(item);
  }
  return found;
}
