import { later } from "../onceFor";
import type { StateGraph } from "../trace/stateGraph";
import { gatesOf, vertexOf } from "../trace/stateGraph";
import { sourcesOf } from "../trace/sources";
import { barrierDepths } from "../barrier/barrierDepth";
import { classFor, ofClass, type DeviceClass } from "../barrier/countsFor";
import { bodiesBled, drainsAtMost } from "./drains";
import { faceByCarrier, facing, gateMarksOf, type BarrierField } from "../barrier/pairs";
import { scoped, type Demand, type RequiredPair } from "./requirePairs";
import { BARRIERS_FOR } from "../requirement/grades";

/** May it be said that no choice of points on this plant gives what is asked? Else none was found, which is not the same. */
export type Impossible = (pair: RequiredPair, demand: Demand) => boolean;

/**
 * Impossible is what stays short with every creditable device isolated, in barriers or in positive devices; a space to be
 * proved, where some way has no device, then a place that drains with every device passing and every bleed open, then
 * another device (nor one whose body is bled); and a face that nothing drains, where the zone itself must be proved.
 *
 * Cost: a linear search for each face place, arriving carrier and scope asked about.
 */
export function impossibleOn(field: BarrierField, isPositivePossible: Impossible): Impossible {
  const { graph } = field;
  const gates = gateMarksOf(field);
  const bodies = later(() => gatesOf(graph, bodiesBled(field, field.creditable)));
  const known = new Map<string, Uint8Array>();
  const withoutSpace = (face: number, demand: Demand) => {
    const key = `${face} ${demand.scope}`;
    if (!known.has(key)) {
      const own = scoped(field, demand.scope).graph;
      known.set(key, waysWithoutSpace(own, face, gates, bodies(), drainsAtMost(field).isDrained));
    }
    return known.get(key)!;
  };
  const ofKind = new Map<string, ReadonlyMap<number, number>>();
  const classDepth = (kind: DeviceClass, pair: RequiredPair, demand: Demand): number => {
    const face = faceByCarrier(pair.face, demand.arrives);
    const key = `${kind} ${demand.scope} ${face.name}`;
    if (!ofKind.has(key)) {
      const own = scoped(ofClass(field, kind), demand.scope);
      const found = barrierDepths(facing(own, [face]), face, sourcesOf(graph).feeding, own.creditable, { enough: 1 });
      ofKind.set(key, new Map([...found].map(([source, { depth }]) => [source.vertex, depth])));
    }
    return ofKind.get(key)!.get(pair.source.vertex) ?? 0;
  };
  return (pair, demand) => {
    if (demand.grade === null || demand.available < demand.barriers) return !demand.availableIsLeast;
    if (demand.positive) return !isPositivePossible(pair, demand);
    const kind = classFor(demand.grade);
    if (kind !== "any" && classDepth(kind, pair, demand) === 0) return true;
    if (demand.family !== "flow" || BARRIERS_FOR[demand.grade].barriers === 0) return false;
    const faces = pair.face.places
      .map((place) => vertexOf(graph, place, demand.arrives))
      .filter((vertex) => vertex >= 0);
    switch (demand.grade) {
      case "proved double":
        return faces.some((face) => withoutSpace(face, demand)[pair.source.vertex] === 1);
      case "proved single":
        return (
          faces.some((face) => !drainsAtMost(field).isDrained(face)) &&
          faces.some((face) => withoutSpace(face, demand)[pair.source.vertex] === 1)
        );
      default:
        return false;
    }
  };
}

/** Nothing yet; a device; a device and then a place that drains. */
const STAGES = 3;

/** 1 whence a way leads to the face without a device, a place that drains, and another device, in this order. */
function waysWithoutSpace(
  graph: StateGraph,
  face: number,
  gates: Uint8Array,
  bodies: Uint8Array,
  isDrained: (vertex: number) => boolean,
): Uint8Array {
  const found = new Uint8Array(graph.vertexCount);
  const seen = new Uint8Array(graph.vertexCount * STAGES);
  const queue = [face * STAGES];
  seen[face * STAGES] = 1;
  for (let head = 0; head < queue.length; head++) {
    const vertex = Math.floor(queue[head]! / STAGES);
    let stage = queue[head]! % STAGES;
    found[vertex] = 1;
    if (vertex !== face && gates[vertex] === 1) {
      if (stage === 2 || bodies[vertex] === 1) continue;
      // A device that is not isolated is a place like any other.
      stage = 1;
    } else if (vertex !== face && stage === 1 && isDrained(vertex)) stage = 2;
    for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
      const before = graph.in.other[arc]!;
      if (before === face || seen[before * STAGES + stage] === 1) continue;
      seen[before * STAGES + stage] = 1;
      queue.push(before * STAGES + stage);
    }
  }
  return found;
}
