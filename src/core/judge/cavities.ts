import { familyOf } from "../requirement/grades";
import { carrierAt, CARRIERS, CARRIER_COUNT, type Carrier } from "../plant/carriers";
import { surelyPasses } from "../plant/kinds";
import { contentsGraph } from "../trace/contentsGraph";
import { barrierDistance, reachableFrom, UNREACHED, type BarrierDistance } from "../trace/barrierDistance";
import { sourcesOf, type SourceVertex } from "../trace/sources";
import { carrierOf, gatesOf, itemAt, placeName, placeOf, type StateGraph } from "../trace/stateGraph";
import { allFaceVertices, type WorkFace } from "../trace/workFaces";
import type { BarrierField } from "./pairs";

/** A connected piece of one carrier behind a barrier: between two of them, or the zone that people work in. */
export type Cavity = Readonly<{
  carrier: Carrier;
  zone: "between" | "work";
  /** Place names, sorted. */
  places: readonly string[];
  /** Isolated devices that close it, sorted. */
  barriers: readonly string[];
  /** Bleeds to open so that every place in it surely drains; as few as a greedy choice finds. */
  bleeds: readonly string[];
  /** Places that no bleed surely drains: what stands there may be under pressure still. */
  undrained: readonly string[];
  /** Faces in it. */
  faces: readonly string[];
}>;

export type CavityMap = Readonly<{
  cavities: readonly Cavity[];
  /**
   * Why the space between the barriers is not proved, on ways with the fewest barriers from this source to this face: a
   * cavity that no bleed surely drains, and a vertex that another energy keeps live. Both undefined: it is proved.
   */
  unprovedBetween: (source: SourceVertex, face: WorkFace) => Readonly<{ cavity?: Cavity; live?: number }>;
  /** Vertices between two barriers on these ways that another energy keeps live, so that nothing there can be bled. */
  liveBetween: (source: SourceVertex, face: WorkFace) => readonly number[];
  /** The zone of this face and carrier; undefined when energy still stands there or nothing connects. */
  workZone: (face: WorkFace, carrier: Carrier) => Cavity | undefined;
}>;

/**
 * The cavities that a set of isolated devices makes, and the bleeds that prove them. A bleed proves a place when what
 * stands there surely runs out of it: past check valves, control valves, pumps, filters and devices that may be shut
 * nothing runs surely.
 *
 * Cost: linear in the plant, plus a search for each cavity.
 */
export function cavitiesOf(field: BarrierField, isolated: ReadonlySet<number>): CavityMap {
  const { graph } = field;
  const gates = gatesOf(
    graph,
    [...isolated].filter((item) => field.creditable.has(item)),
  );
  const { feeding } = sourcesOf(graph);
  const lit = reachableFrom(
    graph,
    feeding.map((source) => source.vertex),
    gates,
  );
  const onWay = reachableFrom(
    graph,
    feeding.map((source) => source.vertex),
    null,
  );
  const toFace = barrierDistance(graph, [...field.targetsOf.values()].flat(), null);
  const faceOf = new Map<number, string[]>();
  for (const face of field.faces) {
    for (const vertex of allFaceVertices(face)) faceOf.set(vertex, [...(faceOf.get(vertex) ?? []), face.name]);
  }

  const seen = new Uint8Array(graph.vertexCount);
  const found: { cavity: Cavity; vertices: number[] }[] = [];
  const flows = CARRIERS.map((carrier) => familyOf(carrier) === "flow");
  const isDark = (vertex: number) => gates[vertex] === 0 && lit[vertex] === 0;
  for (let start = 0; start < graph.vertexCount; start++) {
    if (seen[start] === 1 || !flows[start % CARRIER_COUNT] || !isDark(start)) continue;
    if (onWay[start] === 0 || toFace.gates[start] === UNREACHED) continue;
    const vertices = piece(graph, start, isDark, seen);
    const faces = [...new Set(vertices.flatMap((vertex) => faceOf.get(vertex) ?? []))].sort();
    const barriers = closedBy(graph, vertices, gates);
    if (barriers.length === 0 && faces.length === 0) continue;
    const { bleeds, undrained } = proveDrained(graph, vertices);
    found.push({
      vertices,
      cavity: {
        carrier: carrierAt(start % CARRIER_COUNT),
        zone: faces.length > 0 ? "work" : "between",
        places: vertices.map((vertex) => placeName(graph, vertex)).sort(),
        barriers,
        bleeds,
        undrained,
        faces,
      },
    });
  }

  const contents = contentsGraph(graph);
  const away = { ...contents, in: contents.out, out: contents.in };
  const fromSource = new Map<number, BarrierDistance>();
  const toThisFace = new Map<string, BarrierDistance>();
  /** Is this vertex inside a way with the fewest barriers, with one of them at least on either side? */
  const betweenOn = (source: SourceVertex, face: WorkFace) => {
    const before = remembered(fromSource, source.vertex, () => barrierDistance(away, [source.vertex], gates));
    const after = toDepth(face);
    const depth = after.gates[source.vertex]!;
    return (vertex: number) => {
      const [a, b] = [before.gates[vertex]!, after.gates[vertex]!];
      return a !== UNREACHED && b !== UNREACHED && a >= 1 && b >= 1 && a + b === depth;
    };
  };
  const undrained = found.filter(({ cavity }) => cavity.zone === "between" && cavity.undrained.length > 0);
  const cavityAt = new Map(
    undrained.flatMap(({ cavity, vertices }) => vertices.map((vertex) => [vertex, cavity] as const)),
  );
  const toDepth = (face: WorkFace) =>
    remembered(toThisFace, face.name, () => barrierDistance(contents, field.targetsOf.get(face)!, gates));
  const unprovedFor = new Map<string, Readonly<{ undrained: Int32Array; live: Int32Array }>>();
  const unprovedAt = (face: WorkFace) =>
    remembered(unprovedFor, face.name, () => {
      const depth = toDepth(face).gates;
      const live: number[] = [];
      for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
        const level = depth[vertex]!;
        if (level !== UNREACHED && level >= 1 && lit[vertex] === 1 && gates[vertex] === 0) {
          if (flows[vertex % CARRIER_COUNT]) live.push(vertex);
        }
      }
      return {
        undrained: upstreamOf(contents, [...cavityAt.keys()], depth, gates),
        live: upstreamOf(contents, live, depth, gates),
      };
    });
  return {
    cavities: found
      .map(({ cavity }) => cavity)
      .sort((a, b) => (`${a.zone} ${a.places.join()}` < `${b.zone} ${b.places.join()}` ? 1 : -1)),
    unprovedBetween: (source, face) => {
      const { undrained: below, live } = unprovedAt(face);
      const depth = toDepth(face).gates;
      const between = (origin: number) => origin >= 0 && depth[origin]! < depth[source.vertex]!;
      const [cavity, lamp] = [below[source.vertex]!, live[source.vertex]!];
      return {
        ...(between(cavity) ? { cavity: cavityAt.get(cavity) } : {}),
        ...(between(lamp) ? { live: lamp } : {}),
      };
    },
    liveBetween: (source, face) => {
      const inside = betweenOn(source, face);
      const live: number[] = [];
      for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
        if (lit[vertex] === 1 && gates[vertex] === 0 && flows[vertex % CARRIER_COUNT] && inside(vertex))
          live.push(vertex);
      }
      return live;
    },
    workZone: (face, carrier) =>
      found.find(({ cavity }) => cavity.carrier === carrier && cavity.faces.includes(face.name))?.cavity,
  };
}

function remembered<K, V>(known: Map<K, V>, key: K, make: () => V): V {
  const found = known.get(key) ?? make();
  known.set(key, found);
  return found;
}

/**
 * For each vertex the nearest-to-the-face of `origins` (by barriers left) that lies on one of its ways with the fewest
 * barriers; -1 where there is none. Cost: linear in the region upstream of the origins.
 */
function upstreamOf(graph: StateGraph, origins: readonly number[], depth: Int32Array, gates: Uint8Array): Int32Array {
  const origin = new Int32Array(graph.vertexCount).fill(-1);
  const inside = origins.filter((vertex) => depth[vertex] !== UNREACHED && depth[vertex]! >= 1);
  const queue: number[] = [];
  let head = 0;
  // Level by level, so that what stands nearest the face speaks for what lies behind it.
  for (const start of inside.sort((a, b) => depth[a]! - depth[b]!)) {
    if (origin[start] !== -1) continue;
    origin[start] = start;
    queue.push(start);
    for (; head < queue.length; head++) {
      const vertex = queue[head]!;
      const crossing = gates[vertex] === 1 ? 1 : 0;
      for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
        const before = graph.in.other[arc]!;
        if (origin[before] !== -1 || depth[before] !== depth[vertex]! + crossing) continue;
        origin[before] = origin[vertex]!;
        queue.push(before);
      }
    }
  }
  return origin;
}

/** The connected dark piece around a vertex, of one carrier, by links either way. */
function piece(graph: StateGraph, start: number, isDark: (vertex: number) => boolean, seen: Uint8Array): number[] {
  const vertices = [start];
  seen[start] = 1;
  for (let head = 0; head < vertices.length; head++) {
    const vertex = vertices[head]!;
    for (const next of neighbours(graph, vertex)) {
      if (seen[next] === 1 || !isDark(next)) continue;
      seen[next] = 1;
      vertices.push(next);
    }
  }
  return vertices;
}

/** Vertices of the same carrier that a link joins to this one, either way. */
function* neighbours(graph: StateGraph, vertex: number): Generator<number> {
  for (const side of [graph.out, graph.in]) {
    for (let arc = side.first[vertex]!; arc < side.first[vertex + 1]!; arc++) {
      const other = side.other[arc]!;
      if (placeOf(other) !== placeOf(vertex) && carrierOf(other) === carrierOf(vertex)) yield other;
    }
  }
}

function closedBy(graph: StateGraph, vertices: readonly number[], gates: Uint8Array): string[] {
  const tags = new Set<string>();
  for (const vertex of vertices) {
    for (const next of neighbours(graph, vertex)) if (gates[next] === 1) tags.add(itemAt(graph, next).tag);
  }
  return [...tags].sort();
}

/** Bleeds to open, and what they leave. Greedy: the bleed that drains most places first, with a gauge before without. */
function proveDrained(graph: StateGraph, vertices: readonly number[]): { bleeds: string[]; undrained: string[] } {
  const inside = new Set(vertices);
  const drainedBy = new Map<number, ReadonlySet<number>>();
  for (const vertex of vertices) {
    if (itemAt(graph, vertex).bleed?.safe) drainedBy.set(vertex, surelyRunsTo(graph, vertex, inside));
  }
  const left = new Set(vertices.filter((vertex) => !itemAt(graph, vertex).bleed));
  const bleeds: number[] = [];
  for (;;) {
    let best: number | undefined;
    let most = 0;
    for (const [bleed, drains] of drainedBy) {
      const count = [...drains].filter((vertex) => left.has(vertex)).length;
      const better =
        count > most ||
        (count === most &&
          count > 0 &&
          best !== undefined &&
          Number(itemAt(graph, bleed).bleed?.gauge) > Number(itemAt(graph, best).bleed?.gauge));
      if (better) {
        best = bleed;
        most = count;
      }
    }
    if (best === undefined) break;
    bleeds.push(best);
    for (const vertex of drainedBy.get(best)!) left.delete(vertex);
    drainedBy.delete(best);
  }
  return {
    bleeds: bleeds.map((vertex) => itemAt(graph, vertex).tag).sort(),
    undrained: [...left].map((vertex) => placeName(graph, vertex)).sort(),
  };
}

/** The places of a cavity from which what stands there surely runs out of this bleed. */
function surelyRunsTo(graph: StateGraph, bleed: number, inside: ReadonlySet<number>): Set<number> {
  const runs = new Set([bleed]);
  const queue = [bleed];
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    if (vertex !== bleed && !passesSurely(graph, vertex)) continue;
    for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
      const before = graph.in.other[arc]!;
      if (!inside.has(before) || runs.has(before)) continue;
      runs.add(before);
      queue.push(before);
    }
  }
  return runs;
}

/** A device runs through only when it is known to stand passing and is of a kind that holds nothing back. */
function passesSurely(graph: StateGraph, vertex: number): boolean {
  const item = itemAt(graph, vertex);
  if (item.device && !(item.device.credit && item.device.stands === "passing")) return false;
  return surelyPasses(item.kind, graph.plant.kinds);
}
