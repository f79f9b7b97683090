import { inOneGo } from "../inOneGo";
import { onceFor } from "../onceFor";
import { CARRIER_COUNT, carrierAt, carrierIndex, type Carrier } from "../plant/carriers";
import { kindOf } from "../plant/kinds";
import { isCreditable, type Item, type Plant } from "../plant/plant";
import { placeIndexSteps, type PlaceIndex } from "../plant/resolvePlace";

/** Why an arc makes a route hidden; 0 is plain. */
export const ARC = { plain: 0, againstFlow: 1, conversion: 2 } as const;

/** Arcs leaving (or entering) each vertex, packed: those of vertex v are numbers `first[v]` to `first[v + 1] - 1`. */
export type Adjacency = Readonly<{
  first: Int32Array;
  /** The vertex at the other end. */
  other: Int32Array;
  /** One of ARC. */
  type: Uint8Array;
  /** Index of the plant's link, or -1 for a conversion. */
  link: Int32Array;
}>;

/**
 * The plant as a graph of energy: a vertex for every (place, carrier), an arc for every link direction and every
 * conversion inside an item. It says what may pass: every device is taken as passing, and searches that credit devices
 * are told which. Walls between two fluids are no arcs; they are kept apart for the findings.
 *
 * Only the places and carriers have a vertex that a link, a conversion or a source makes one of: at most places energy of
 * most carriers never comes. Vertices are numbered by place, then by carrier. Memory is linear in places and links.
 */
export type StateGraph = Readonly<{
  plant: Plant;
  places: PlaceIndex;
  vertexCount: number;
  /** The place and the carrier of each vertex. */
  placeAt: Int32Array;
  carrierIndexAt: Uint8Array;
  /** Number of the vertex of a place and a carrier, at place · CARRIER_COUNT + carrier index; -1 where there is none. */
  numberAt: Int32Array;
  out: Adjacency;
  in: Adjacency;
  itemByTag: ReadonlyMap<string, number>;
}>;

/** -1 where energy of this carrier never comes to the place. */
export function vertexOf(graph: StateGraph, place: number, carrier: Carrier): number {
  return graph.numberAt[place * CARRIER_COUNT + carrierIndex(carrier)]!;
}
/** The vertices that a place has, of all carriers. */
export function verticesAt(graph: StateGraph, place: number): number[] {
  const found: number[] = [];
  for (let at = place * CARRIER_COUNT; at < (place + 1) * CARRIER_COUNT; at++) {
    if (graph.numberAt[at]! >= 0) found.push(graph.numberAt[at]!);
  }
  return found;
}
/** The vertices of an item, of all its parts and carriers. */
export function verticesOfItem(graph: StateGraph, item: number): number[] {
  const first = graph.places.firstOf[item]!;
  const count = Math.max(1, graph.plant.items[item]!.parts.length);
  return Array.from({ length: count }, (_, part) => verticesAt(graph, first + part)).flat();
}
export function placeOf(graph: StateGraph, vertex: number): number {
  return graph.placeAt[vertex]!;
}
export function carrierOf(graph: StateGraph, vertex: number): Carrier {
  return carrierAt(graph.carrierIndexAt[vertex]!);
}
export function itemAt(graph: StateGraph, vertex: number): Item {
  const item = graph.plant.items[graph.places.itemOf[graph.placeAt[vertex]!] ?? -1];
  if (item === undefined) throw new RangeError(`no item at vertex ${vertex}`);
  return item;
}
export function placeName(graph: StateGraph, vertex: number): string {
  return graph.places.names[graph.placeAt[vertex]!] ?? "?";
}

/** Builds the state graph of a checked plant. Cost: linear in places, links and conversions. */
export function buildStateGraph(plant: Plant): StateGraph {
  return inOneGo(stateGraphSteps(plant));
}

/** Items, links or arcs between two moments at which the work may be put down. */
const ITEMS_A_STEP = 1000;
const ARCS_A_STEP = 50_000;

/** The same, bit by bit. */
export function* stateGraphSteps(plant: Plant): Generator<void, StateGraph> {
  const places = yield* placeIndexSteps(plant.items);
  // Arcs between slots, a slot being a place and a carrier, until it is known which of them energy may come to.
  const slotOf = (place: number, carrier: Carrier) => place * CARRIER_COUNT + carrierIndex(carrier);
  const from: number[] = [];
  const to: number[] = [];
  const type: number[] = [];
  const linkIndex: number[] = [];
  const isUsed = new Uint8Array(places.names.length * CARRIER_COUNT);
  const add = (a: number, b: number, arcType: number, link: number) => {
    from.push(a);
    to.push(b);
    type.push(arcType);
    linkIndex.push(link);
    isUsed[a] = 1;
    isUsed[b] = 1;
  };

  const isLinked = new Uint8Array(isUsed.length);
  for (const [index, link] of plant.links.entries()) {
    if (index % ITEMS_A_STEP === 0) yield;
    const a = places.resolveOne(link.from);
    const b = places.resolveOne(link.to);
    if (!a.ok || !b.ok) throw new Error(`link ${index} was not checked: ${link.from} to ${link.to}`);
    const tail = slotOf(a.place, link.carries);
    const head = slotOf(b.place, link.carries);
    // A wall is no arc, but a leak through it would bring this carrier to either side.
    isUsed[tail] = isUsed[head] = 1;
    if (link.wall) continue;
    isLinked[tail] = isLinked[head] = 1;
    add(tail, head, ARC.plain, index);
    if (!link.oneWay) add(head, tail, link.normal === "forward" ? ARC.againstFlow : ARC.plain, index);
  }

  const itemByTag = new Map<string, number>();
  let place = 0;
  for (const [itemIndex, item] of plant.items.entries()) {
    if (itemIndex % ITEMS_A_STEP === 0) yield;
    itemByTag.set(item.tag, itemIndex);
    const partCount = Math.max(1, item.parts.length);
    const kind = item.device ? undefined : kindOf(item.kind, plant.kinds);
    for (let part = 0; part < partCount; part++) {
      for (const { carrier } of item.sources) isUsed[slotOf(place + part, carrier)] = 1;
      for (const [a, b] of kind?.converts ?? []) {
        add(slotOf(place + part, a), slotOf(place + part, b), ARC.conversion, -1);
      }
      for (const [a, b] of kind?.convertsWhereLinked ?? []) {
        const end = slotOf(place + part, b);
        if (isLinked[end] === 1) add(slotOf(place + part, a), end, ARC.conversion, -1);
      }
      for (const [a, b] of kind?.convertsAcross ?? []) {
        for (let other = 0; other < partCount; other++) {
          if (other !== part || partCount === 1) {
            add(slotOf(place + part, a), slotOf(place + other, b), ARC.conversion, -1);
          }
        }
      }
    }
    place += partCount;
  }

  const numberAt = new Int32Array(isUsed.length).fill(-1);
  let vertexCount = 0;
  for (let slot = 0; slot < isUsed.length; slot++) if (isUsed[slot] === 1) numberAt[slot] = vertexCount++;
  yield;
  const placeAt = new Int32Array(vertexCount);
  const carrierIndexAt = new Uint8Array(vertexCount);
  for (let slot = 0; slot < isUsed.length; slot++) {
    const vertex = numberAt[slot]!;
    if (vertex < 0) continue;
    placeAt[vertex] = Math.floor(slot / CARRIER_COUNT);
    carrierIndexAt[vertex] = slot % CARRIER_COUNT;
  }
  for (let arc = 0; arc < from.length; arc++) {
    if (arc % ARCS_A_STEP === 0) yield;
    from[arc] = numberAt[from[arc]!]!;
    to[arc] = numberAt[to[arc]!]!;
  }
  return {
    plant,
    places,
    vertexCount,
    placeAt,
    carrierIndexAt,
    numberAt,
    out: yield* packSteps(vertexCount, from, to, type, linkIndex),
    in: yield* packSteps(vertexCount, to, from, type, linkIndex),
    itemByTag,
  };
}

function* packSteps(
  vertexCount: number,
  at: readonly number[],
  other: readonly number[],
  type: readonly number[],
  link: readonly number[],
): Generator<void, Adjacency> {
  const first = new Int32Array(vertexCount + 1);
  for (const vertex of at) first[vertex + 1]! += 1;
  for (let v = 0; v < vertexCount; v++) first[v + 1]! += first[v]!;
  const next = first.slice();
  const packed = {
    first,
    other: new Int32Array(at.length),
    type: new Uint8Array(at.length),
    link: new Int32Array(at.length),
  };
  yield;
  for (let arc = 0; arc < at.length; arc++) {
    if (arc % ARCS_A_STEP === 0) yield;
    const vertex = at[arc]!;
    const slot = next[vertex]!++;
    packed.other[slot] = other[arc]!;
    packed.type[slot] = type[arc]!;
    packed.link[slot] = link[arc]!;
  }
  return packed;
}

/**
 * Marks with 1 the vertices where an isolated device stops the energy. Devices without credit, and devices that are
 * themselves a work face, mark nothing.
 */
export function gatesOf(graph: StateGraph, devices: Iterable<number>): Uint8Array {
  const gates = new Uint8Array(graph.vertexCount);
  for (const itemIndex of devices) markGates(graph, gates, itemIndex, 1);
  return gates;
}

export function markGates(graph: StateGraph, gates: Uint8Array, itemIndex: number, mark: 0 | 1): void {
  for (const vertex of gateVertices(graph, itemIndex)) gates[vertex] = mark;
}

/** The vertices at which this device stops energy; none for what is no device or has no credit. */
export function gateVertices(graph: StateGraph, itemIndex: number): readonly number[] {
  const known = gateLists(graph);
  return (known[itemIndex] ??= gatesAt(graph, itemIndex));
}

const gateLists = onceFor(({ plant }: StateGraph) => new Array<readonly number[] | undefined>(plant.items.length));

function gatesAt(graph: StateGraph, itemIndex: number): readonly number[] {
  const item = graph.plant.items[itemIndex];
  if (!item?.device || !isCreditable(item.device)) return [];
  // A device has no parts.
  const place = graph.places.firstOf[itemIndex]!;
  return item.device.stops.map((carrier) => vertexOf(graph, place, carrier)).filter((vertex) => vertex >= 0);
}
