import type { Carrier } from "../plant/carriers";
import { later } from "../onceFor";
import { sortedBy } from "../sortedBy";
import { viaNames, leastWay, barrierDistance, type BarrierDistance } from "../trace/barrierDistance";
import type { SourceVertex } from "../trace/sources";
import { gatesOf, gateVertices, placeName, type StateGraph } from "../trace/stateGraph";
import { faceVertices, type WorkFace } from "../trace/workFaces";
import type { BarrierField } from "./pairs";

/** A face that energy reaches, with nothing isolated on the way. */
export type Lit = Readonly<{
  face: string;
  arrives: Carrier;
  source: string;
  carrier: Carrier;
  via: readonly string[];
}>;

/** What one barrier failing alone would do. */
export type SingleFailure = Readonly<{
  device: string;
  /** Faces that were dark and would be lit. */
  faces: readonly string[];
  /** Every energy that would newly arrive, also at a face that something else lights already. */
  lights: readonly Lit[];
}>;

type Reaching = Readonly<{ face: WorkFace; source: SourceVertex }>;

/**
 * Every energy that reaches a face past the isolated devices, sorted by face, carrier as it arrives, source. Cost: a search for
 * each face and carrier of what has no barrier before it; a route when it is read.
 */
export function litWith(field: BarrierField, reaching: readonly Reaching[], isolated: ReadonlySet<number>): Lit[] {
  const { graph } = field;
  const lit: Lit[] = [];
  const credited = new Set([...isolated].filter((item) => field.creditable.has(item)));
  const marks = gatesOf(graph, credited);
  const search = lastSearch(graph);
  for (const face of field.faces) {
    const sources = reaching.filter((pair) => pair.face === face).map((pair) => pair.source);
    for (const [arrives, targets] of faceVertices(graph, face)) {
      // Where no connection and no source ends, nothing arrives: most carriers at most faces.
      if (!targets.some((vertex) => endsSomething(graph, vertex, sources))) continue;
      const open = withoutBarrier(graph, targets, marks);
      for (const source of sources) {
        // A source's own device is no barrier to it, on whatever carrier the way comes back through it.
        const isOwn = isolated.has(source.item) && gateVertices(graph, source.item).length > 1;
        const past = isOwn
          ? gatesOf(
              graph,
              [...credited].filter((item) => item !== source.item),
            )
          : marks;
        const there = isOwn ? withoutBarrier(graph, targets, past) : open;
        if (there[source.vertex] === 0) continue;
        const via = later(() => viaNames(graph, leastWay(graph, source.vertex, targets, past, search(targets, past))!));
        lit.push({
          face: face.name,
          arrives,
          source: placeName(graph, source.vertex),
          carrier: source.carrier,
          get via() {
            return via();
          },
        });
      }
    }
  }
  return sortedBy(lit, litKey);
}

/** 1 at every vertex from which a way leads to a target that crosses no gate after leaving it. Cost: linear in those. */
function withoutBarrier(graph: StateGraph, targets: readonly number[], marks: Uint8Array): Uint8Array {
  const open = new Uint8Array(graph.vertexCount);
  const queue = [...targets];
  for (const target of targets) open[target] = 1;
  const { first, other } = graph.in;
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    // Who comes through a gate crosses it; one that is the work is no barrier to it.
    if (marks[vertex] === 1 && head >= targets.length) continue;
    for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
      const before = other[arc]!;
      if (open[before] === 1) continue;
      open[before] = 1;
      queue.push(before);
    }
  }
  return open;
}

/** The last search asked for is kept: routes are mostly read one after another. */
function lastSearch(graph: StateGraph): (targets: readonly number[], marks: Uint8Array) => BarrierDistance {
  let last: { targets: readonly number[]; marks: Uint8Array; distance: BarrierDistance } | undefined;
  return (targets, marks) => {
    if (last?.targets !== targets || last.marks !== marks) {
      last = { targets, marks, distance: barrierDistance(graph, targets, marks, null, 1) };
    }
    return last.distance;
  };
}

function endsSomething(graph: StateGraph, vertex: number, sources: readonly SourceVertex[]): boolean {
  return graph.in.first[vertex]! < graph.in.first[vertex + 1]! || sources.some((source) => source.vertex === vertex);
}

function litKey({ face, arrives, source, carrier }: Lit): string {
  return [face, arrives, source, carrier].join("\u0000");
}

/**
 * For each isolated creditable device, what lights if it alone leaks or is opened again; also when nothing does. Sorted
 * by tag. Devices with a common cause are still failed one at a time here: their shared failure shows in the depth.
 *
 * Cost: for each device, litWith.
 */
export function singleFailures(
  field: BarrierField,
  reaching: readonly Reaching[],
  isolated: ReadonlySet<number>,
): SingleFailure[] {
  const before = litWith(field, reaching, isolated);
  const litBefore = new Set(before.map(litKey));
  const facesBefore = new Set(before.map((row) => row.face));
  return [...isolated]
    .filter((item) => field.creditable.has(item))
    .map((item) => {
      const without = new Set(isolated);
      without.delete(item);
      const lights = litWith(field, reaching, without).filter((row) => !litBefore.has(litKey(row)));
      const faces = [...new Set(lights.map((row) => row.face))].filter((face) => !facesBefore.has(face));
      return { device: field.graph.plant.items[item]!.tag, faces, lights };
    })
    .sort((a, b) => (a.device < b.device ? -1 : 1));
}
