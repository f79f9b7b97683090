import type { Carrier } from "../plant/carriers";
import { barrierDistance, reachableFrom, UNREACHED } from "../trace/barrierDistance";
import { sourcesOf } from "../trace/sources";
import { carrierOf, itemAt, placeName, placeOf, type StateGraph } from "../trace/stateGraph";
import { allFaceVertices } from "../trace/workFaces";
import { besideBy, drainsOf, isFlow, type Drains, type Opened } from "./drains";
import type { BarrierField } from "../barrier/pairs";
import type { Standing } from "./standing";

/** A connected dark piece of one carrier behind a barrier: between two of them, or the zone that people work in. */
export type Cavity = Readonly<{
  carrier: Carrier;
  zone: "between" | "work";
  /** Place names, sorted. */
  places: readonly string[];
  /** Isolated devices that close it, sorted. */
  barriers: readonly string[];
  /** Bleeds to open so that every place in it surely drains; as few as a greedy choice finds. */
  bleeds: readonly string[];
  /** Valves to open and lock open, so that these bleeds drain it. */
  opens: readonly string[];
  /** Places that no bleed surely drains: what stands there may be under pressure still. */
  undrained: readonly string[];
  /** Faces in it. */
  faces: readonly string[];
}>;

/**
 * The sections that a set of isolated devices makes between sources and faces, and what is opened to drain each.
 *
 * Cost: linear in the plant, and a look at a section's drains for each of its bleeds and drain valves.
 */
export function sectionsOf(field: BarrierField, isolated: ReadonlySet<number>, standing: Standing): Cavity[] {
  const { graph } = field;
  const { gates, lit } = standing;
  const { feeding } = sourcesOf(graph);
  const onWay = reachableFrom(
    graph,
    feeding.map(({ vertex }) => vertex),
    null,
  );
  const toFace = barrierDistance(graph, [...field.targetsOf.values()].flat(), null).gates;
  const faceOf = new Map<number, string[]>();
  for (const face of field.faces) {
    for (const vertex of allFaceVertices(graph, face)) faceOf.set(vertex, [...(faceOf.get(vertex) ?? []), face.name]);
  }
  const seen = new Uint8Array(graph.vertexCount);
  const isDark = (vertex: number) => gates[vertex] === 0 && lit[vertex] === 0;
  const found: Cavity[] = [];
  for (let start = 0; start < graph.vertexCount; start++) {
    if (seen[start] === 1 || !isFlow(graph, start) || !isDark(start)) continue;
    if (onWay[start] === 0 || toFace[start] === UNREACHED) continue;
    const vertices = piece(graph, start, isDark, seen);
    const faces = [...new Set(vertices.flatMap((vertex) => faceOf.get(vertex) ?? []))].sort();
    const barriers = closedBy(graph, vertices, gates);
    if (barriers.length === 0 && faces.length === 0) continue;
    const opened = leastOpened(field, isolated, gates, vertices, standing.drains);
    const tags = (items: Iterable<number>) => [...items].map((item) => graph.plant.items[item]!.tag).sort();
    found.push({
      carrier: carrierOf(graph, start),
      zone: faces.length > 0 ? "work" : "between",
      places: vertices.map((vertex) => placeName(graph, vertex)).sort(),
      barriers,
      bleeds: tags(opened.bleeds),
      opens: tags(opened.valves),
      undrained: vertices
        .filter((vertex) => !standing.drains.isDrained(vertex))
        .map((vertex) => placeName(graph, vertex))
        .sort(),
      faces,
    });
  }
  return found.sort((a, b) => (`${a.zone} ${a.places.join()}` < `${b.zone} ${b.places.join()}` ? 1 : -1));
}

const MOST_TRIED = 64;

/**
 * The bleeds and valves to open in a section: those without which it drains as well are left shut, bleeds without a gauge
 * first.
 */
function leastOpened(
  field: BarrierField,
  isolated: ReadonlySet<number>,
  gates: Uint8Array,
  vertices: readonly number[],
  all: Drains,
): Opened {
  const { graph } = field;
  const opened = all.openedAt(vertices[0]!);
  const inside = new Set(vertices.map((vertex) => graph.places.itemOf[placeOf(graph, vertex)]!));
  const bleeds = new Set([...opened.bleeds].filter((item) => inside.has(item)));
  const valves = new Set([...opened.valves].filter((item) => inside.has(item)));
  const wanted = vertices.filter((vertex) => all.isDrained(vertex) && !itemAt(graph, vertex).bleed);
  const own = { bleeds, valves };
  // Each is tried without. Where there are very many, all are opened: that is more work and no less safe.
  if (bleeds.size + valves.size > MOST_TRIED) return own;
  const isEnough = () => {
    const { isDrained } = drainsOf(field, isolated, gates, own);
    return wanted.every(isDrained);
  };
  const hasGauge = (item: number) => Number(graph.plant.items[item]!.bleed?.gauge === true);
  const leaveShut = (from: Set<number>, order: readonly number[]) => {
    for (const item of order) {
      from.delete(item);
      if (!isEnough()) from.add(item);
    }
  };
  leaveShut(
    bleeds,
    [...bleeds].sort((a, b) => hasGauge(a) - hasGauge(b) || b - a),
  );
  leaveShut(valves, [...valves]);
  return own;
}

/** The connected dark piece around a vertex, of one carrier, by links either way. */
function piece(graph: StateGraph, start: number, isDark: (vertex: number) => boolean, seen: Uint8Array): number[] {
  const vertices = [start];
  seen[start] = 1;
  for (let head = 0; head < vertices.length; head++) {
    for (const next of besideBy(graph, vertices[head]!)) {
      if (seen[next] === 1 || !isDark(next)) continue;
      seen[next] = 1;
      vertices.push(next);
    }
  }
  return vertices;
}

/** Tags of the isolated devices that a link joins to the piece. */
function closedBy(graph: StateGraph, vertices: readonly number[], gates: Uint8Array): string[] {
  const tags = new Set<string>();
  for (const vertex of vertices) {
    for (const next of besideBy(graph, vertex)) if (gates[next] === 1) tags.add(itemAt(graph, next).tag);
  }
  return [...tags].sort();
}
