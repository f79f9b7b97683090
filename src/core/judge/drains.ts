import { familyOf } from "../requirement/grades";
import { CARRIERS } from "../plant/carriers";
import { canBeShut, surelyPasses } from "../plant/kinds";
import type { Item } from "../plant/plant";
import { onceFor } from "../onceFor";
import { itemAt, verticesOfItem, type StateGraph } from "../trace/stateGraph";
import type { BarrierField } from "../barrier/pairs";

/** The bleeds that are opened and the valves before them that are opened and locked so. */
export type Opened = Readonly<{ bleeds: ReadonlySet<number>; valves: ReadonlySet<number> }>;

export type Drains = Readonly<{
  /** Does what stands here surely run out of an open bleed? So it is at the bleeds themselves. */
  isDrained: (vertex: number) => boolean;
  /** Every bleed and valve that may be opened for the region of a vertex. */
  openedAt: (vertex: number) => Opened;
}>;

const FLOWS = CARRIERS.map((carrier) => familyOf(carrier) === "flow");

export function isFlow(graph: StateGraph, vertex: number): boolean {
  return FLOWS[graph.carrierIndexAt[vertex]!]!;
}

/** How a place lets through what stands in it: never surely, always, or once its valve was opened and locked open. */
const LETS = { no: 0, yes: 1, opened: 2 } as const;

function letsThrough(item: Item, siteKinds: StateGraph["plant"]["kinds"]): number {
  if (!surelyPasses(item.kind, siteKinds)) return LETS.no;
  if (item.device === undefined) return canBeShut(item.kind) ? LETS.no : LETS.yes;
  // A blind in the line lets nothing through; of a device with several ways nobody knows which it stands in.
  if (item.device.positive || item.device.positions !== undefined || !item.device.lockable) return LETS.no;
  return LETS.opened;
}

const letsOf = onceFor((plant: StateGraph["plant"]) =>
  Uint8Array.from(plant.items, (item) => letsThrough(item, plant.kinds)),
);

/**
 * Where what stands surely runs out, with these devices isolated and every bleed open that may be: along links in their
 * direction, inside its own carrier, through places that all surely pass, itself included. A place of which nobody knows
 * that it passes is drained when every place linked to it is. Everything is read as the worse: a temporary link, a valve
 * that nobody locks open, an item of a valve's kind that nobody described, a bleed above the liquid (below the vapour) that
 * it should let out do not drain. A bleed linked to an isolated device shows nothing but that device's body.
 *
 * `only` narrows what is opened. Worked out by regions, of links between isolated devices, when something is first asked of one.
 * Cost: linear in the region.
 */
export function drainsOf(field: BarrierField, isolated: ReadonlySet<number>, gates: Uint8Array, only?: Opened): Drains {
  const { graph } = field;
  const { plant, places } = graph;
  const mayOpenBleed = (item: number) =>
    plant.items[item]!.bleed?.safe === true && !field.struck.has(item) && (only?.bleeds.has(item) ?? true);
  const mayOpenValve = (item: number) =>
    !isolated.has(item) && !field.struck.has(item) && !field.atWork.has(item) && (only?.valves.has(item) ?? true);
  const lets = letsOf(plant);
  const sureAt = new Int8Array(places.names.length);
  const isSure = (vertex: number): boolean => {
    const place = graph.placeAt[vertex]!;
    if (sureAt[place] !== 0) return sureAt[place] === 1;
    const item = places.itemOf[place]!;
    // A bleed that is blocked, or must not be opened, may be shut as well.
    const isShut = plant.items[item]!.bleed !== undefined && !mayOpenBleed(item);
    const found = !isShut && (lets[item] === LETS.yes || (lets[item] === LETS.opened && mayOpenValve(item)));
    sureAt[place] = found ? 1 : -1;
    return found;
  };
  const isLine = (arc: number, side: StateGraph["out"]) => {
    const link = side.link[arc]!;
    return link >= 0 && plant.links[link]!.temporary === undefined;
  };

  const onDevice = besideGates(graph, gates);
  const bleedAt = bleedsByVertex(graph);
  const regionAt = new Int32Array(graph.vertexCount);
  const drained = new Uint8Array(graph.vertexCount);
  const opened: Opened[] = [];
  const settle = (vertex: number): Opened => {
    const known = opened[regionAt[vertex]! - 1];
    if (known !== undefined) return known;
    const number = opened.length + 1;
    const bleeds: Bleed[] = [];
    const region = [vertex];
    regionAt[vertex] = number;
    for (let head = 0; head < region.length; head++) {
      const at = region[head]!;
      const item = bleedAt[at]!;
      if (item >= 0 && mayOpenBleed(item) && gates[at] === 0 && onDevice[at] === 0) {
        bleeds.push({ vertex: at, item, level_m: plant.items[item]!.level_m });
      }
      for (const side of [graph.out, graph.in]) {
        for (let arc = side.first[at]!; arc < side.first[at + 1]!; arc++) {
          const next = side.other[arc]!;
          if (side.link[arc]! < 0 || regionAt[next] !== 0 || gates[next] === 1) continue;
          regionAt[next] = number;
          region.push(next);
        }
      }
    }
    const found = drain(bleeds);
    opened.push(found);
    return found;
  };
  return {
    isDrained: (vertex) => {
      settle(vertex);
      return drained[vertex] === 1;
    },
    openedAt: settle,
  };

  /** Marks what these bleeds of one region drain; what is opened for it. */
  function drain(bleeds: readonly Bleed[]): Opened {
    if (bleeds.length === 0) return { bleeds: new Set(), valves: new Set() };
    const anyLevel = bleeds.some(({ level_m }) => level_m !== undefined);
    const lowest = reach(bleeds, anyLevel, 1);
    const highest = anyLevel ? reach(bleeds, anyLevel, -1) : lowest;
    for (const { vertex } of bleeds) drained[vertex] = 1;
    const queue: number[] = [];
    for (const [vertex, low] of lowest) {
      if (anyLevel && drained[vertex] === 0) {
        const { level_m, contents } = itemAt(graph, vertex);
        const isGas = contents?.phase === "gas";
        if (level_m !== undefined && !(isGas ? highest.get(vertex)! >= level_m : low <= level_m)) continue;
      }
      drained[vertex] = 1;
      queue.push(vertex);
    }
    // Outwards from what is drained: a place that does not surely pass, with nothing undrained beside it.
    for (let head = 0; head < queue.length; head++) {
      for (const side of [graph.out, graph.in]) {
        for (let arc = side.first[queue[head]!]!; arc < side.first[queue[head]! + 1]!; arc++) {
          const next = side.other[arc]!;
          if (side.link[arc]! < 0 || drained[next] === 1 || gates[next] === 1 || isSure(next)) continue;
          if (![...besideBy(graph, next)].every((beside) => gates[beside] === 1 || drained[beside] === 1)) continue;
          drained[next] = 1;
          queue.push(next);
        }
      }
    }
    const valves = new Set<number>();
    for (const vertex of lowest.keys()) {
      const item = places.itemOf[graph.placeAt[vertex]!]!;
      if (plant.items[item]!.device) valves.add(item);
    }
    return { bleeds: new Set(bleeds.map(({ item }) => item)), valves };
  }

  /**
   * Least (or, for vapour, greatest) height of a bleed that each vertex surely leads to. Bleeds by height, those of unknown
   * height first: they may be at any.
   */
  function reach(bleeds: readonly Bleed[], anyLevel: boolean, order: 1 | -1): Map<number, number> {
    const levels = new Map<number, number>();
    const worst = order * -Infinity;
    const sorted = bleeds.map(({ vertex, level_m }) => ({ vertex, level: level_m ?? worst }));
    if (anyLevel) sorted.sort((a, b) => order * (a.level === b.level ? 0 : a.level < b.level ? -1 : 1));
    const { first, other } = graph.in;
    for (const { vertex: start, level } of sorted) {
      if (levels.has(start)) continue;
      levels.set(start, level);
      const queue = [start];
      for (let head = 0; head < queue.length; head++) {
        const vertex = queue[head]!;
        for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
          const before = other[arc]!;
          if (gates[before] === 1 || !isLine(arc, graph.in) || levels.has(before) || !isSure(before)) continue;
          levels.set(before, level);
          queue.push(before);
        }
      }
    }
    return levels;
  }
}

type Bleed = Readonly<{ vertex: number; item: number; level_m: number | undefined }>;

/** What would drain with nothing isolated and every bleed open. */
export const drainsAtMost = onceFor((field: BarrierField) =>
  drainsOf(field, new Set(), new Uint8Array(field.graph.vertexCount)),
);

/** Vertices of the same carrier that a line joins to this one, either way; some of them twice. */
export function* besideBy(graph: StateGraph, vertex: number): Generator<number> {
  for (const side of [graph.out, graph.in]) {
    for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
      if (side.link[arc]! >= 0) yield side.other[arc]!;
    }
  }
}

/** The bleed at each vertex, by item; -1 where there is none. Cost: linear, the first time for a graph. */
const bleedsByVertex = onceFor((graph: StateGraph) => {
  const found = new Int32Array(graph.vertexCount).fill(-1);
  for (const [item, { bleed }] of graph.plant.items.entries()) {
    if (bleed === undefined) continue;
    for (const vertex of verticesOfItem(graph, item)) if (isFlow(graph, vertex)) found[vertex] = item;
  }
  return found;
});

/** 1 where a line joins to an isolated device, on whatever carrier. */
function besideGates(graph: StateGraph, gates: Uint8Array): Uint8Array {
  const beside = new Uint8Array(graph.vertexCount);
  gates.forEach((isGate, vertex) => {
    if (isGate === 1) for (const next of besideBy(graph, vertex)) beside[next] = 1;
  });
  return beside;
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
