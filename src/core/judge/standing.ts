import { reachableFrom } from "../trace/barrierDistance";
import { contentsGraph } from "../trace/contentsGraph";
import { sourcesOf } from "../trace/sources";
import { later, onceFor } from "../onceFor";
import { gatesOf, gateVertices, type StateGraph } from "../trace/stateGraph";
import { deadLegsOf } from "./deadLegs";
import { bodiesBled, drainsOf, type Drains, type Opened } from "./drains";
import { unitOf, type BarrierField } from "../barrier/pairs";
import { isPositive, type Gate } from "./positiveGate";
import type { Scope } from "./requirePairs";
import { litThrough, waysTo, type Positions, type Ways } from "./ways";
import { workZoneOf, type WorkZone } from "./workZone";

/**
 * What a set of isolated devices does to the plant: what is dark, what is drained, and the ways that are left to each face.
 * Everything that judges asks this, and it works each thing out once.
 */
export type Standing = Readonly<{
  /** 1 at isolated devices that count. */
  gates: Uint8Array;
  /** 1 where some energy still stands, of feeding sources and of stored ones that come back by themselves. */
  lit: Uint8Array;
  drains: Drains;
  ways: (ask: Ask) => FaceWays;
  /** The source's own device where it does not hold the source back, by item; -1 for most. */
  ownGate: (source: Ask["source"]) => number;
}>;

const NO_ITEM = -1;

/** Ways to one face vertex, over one scope; `gate` says which positive devices close a way; `source` owns its device. */
export type Ask = Readonly<{ face: number; scope: Scope; gate: Gate; source: { vertex: number; item: number } }>;

export type FaceWays = Readonly<{
  face: number;
  ways: Ways;
  zone: () => WorkZone;
  positions: Positions;
  /** Some way from here crosses one unit only, or none. */
  byOneUnit: (vertex: number) => boolean;
}>;

/** Cost: linear in the plant for what is dark and drained; linear for each kind of ways asked about. */
export function standingOf(field: BarrierField, isolated: ReadonlySet<number>, only?: Opened): Standing {
  const { graph } = field;
  const counted = new Set([...isolated].filter((item) => field.creditable.has(item)));
  const gates = gatesOf(graph, counted);
  const lit = litBy(field, counted, gates);
  // Also one that counts for nothing stands shut: it is no drain valve.
  const drains = drainsOf(field, isolated, gates, only);
  const isProved = (vertex: number) => lit[vertex] === 0 && drains.isDrained(vertex);
  const bled = bodiesBled(field, counted, only);
  const bodies = gatesOf(graph, bled);
  const kept = keptPlaces(field, counted);

  // Most plans fit nothing positive, and then every family meets the same ways.
  const closesFor = remember((gate: Gate, own: number) =>
    [...counted].filter((item) => item !== own && isPositive(field, item, gate)).join(),
  );
  const positionsFor = remember((scope: Scope, closes: string, own: number): Positions => {
    const scopedGraph = scope === "contents" ? contentsGraph(graph) : graph;
    const crossed = own < 0 ? gates : gatesOf(graph, without(counted, own));
    const closed = gatesOf(graph, closes === "" ? [] : closes.split(",").map(Number));
    const legs = deadLegsOf(scopedGraph, { gates: crossed, closed, kept });
    return { graph: scopedGraph, gates: crossed, closed, bodies, isProved, legs };
  });
  const manyGates = unitsOfManyGates(field, counted);
  const waysFor = remember((scope: Scope, closes: string, own: number, face: number): FaceWays => {
    const positions = positionsFor(scope, closes, own);
    const ways = waysTo(face, positions);
    const zone = later(() => workZoneOf(face, positions, ways.crossed, drains.isDrained));
    const byUnit = new Map<string, ReadonlySet<number>>();
    return {
      face,
      ways,
      positions,
      zone,
      byOneUnit: (vertex) =>
        ways.crossed[vertex]! < 2 ||
        [...manyGates].some(([unit, free]) => {
          if (!byUnit.has(unit)) byUnit.set(unit, litThrough(face, positions, free));
          return byUnit.get(unit)!.has(vertex);
        }),
    };
  });
  // A source's own device is no barrier to it. Where it has one gate only, what starts there is behind it at once.
  const ownGate: Standing["ownGate"] = ({ item, vertex }) =>
    counted.has(item) && gateVertices(graph, item).some((one) => one !== vertex) ? item : NO_ITEM;
  return {
    gates,
    lit,
    drains,
    ownGate,
    ways: ({ face, scope, gate, source }) => {
      const own = ownGate(source);
      return waysFor(scope, closesFor(gate, own), own, face);
    },
  };
}

/** 1 at every place with a source. Made once for each graph. */
const sourcePlaces = onceFor(({ places, plant }: StateGraph) =>
  Uint8Array.from(places.itemOf, (item) => (plant.items[item]!.sources.length > 0 ? 1 : 0)),
);

/** 1 at every place that is no dead leg whatever leads there: a source, a face, an isolated device. */
function keptPlaces({ graph, faces }: BarrierField, devices: ReadonlySet<number>): Uint8Array {
  const kept = sourcePlaces(graph).slice();
  for (const { places } of faces) for (const place of places) kept[place] = 1;
  // A device has no parts.
  for (const item of devices) kept[graph.places.firstOf[item]!] = 1;
  return kept;
}

function without(items: ReadonlySet<number>, one: number): Set<number> {
  const left = new Set(items);
  left.delete(one);
  return left;
}

/** Where energy stands with these devices isolated; a source's own device does not hold it back. */
function litBy({ graph }: BarrierField, counted: ReadonlySet<number>, gates: Uint8Array): Uint8Array {
  const { feeding, stored } = sourcesOf(graph);
  const live = [...feeding, ...stored.filter(({ source }) => source.regenerating)];
  const isOwn = ({ item, vertex }: (typeof live)[number]) =>
    counted.has(item) && gateVertices(graph, item).some((one) => one !== vertex);
  const lit = reachableFrom(
    graph,
    live.map(({ vertex }) => vertex),
    gates,
  );
  for (const source of live.filter(isOwn)) {
    const more = reachableFrom(graph, [source.vertex], gatesOf(graph, without(counted, source.item)));
    for (let vertex = 0; vertex < lit.length; vertex++) lit[vertex]! |= more[vertex]!;
  }
  return lit;
}

/** Units that a way may cross more than once: devices of several carriers, and devices that fail together. */
function unitsOfManyGates(field: BarrierField, counted: ReadonlySet<number>): Map<string, ReadonlySet<number>> {
  const units = new Map<string, Set<number>>();
  for (const item of counted) {
    const unit = unitOf(field, item);
    const gates = units.get(unit) ?? new Set();
    for (const vertex of gateVertices(field.graph, item)) gates.add(vertex);
    units.set(unit, gates);
  }
  for (const [unit, gates] of units) if (gates.size < 2) units.delete(unit);
  return units;
}

function remember<Args extends readonly (string | number)[], T>(make: (...args: Args) => T): (...args: Args) => T {
  const known = new Map<string, T>();
  return (...args) => {
    const key = args.join("|");
    if (!known.has(key)) known.set(key, make(...args));
    return known.get(key)!;
  };
}
