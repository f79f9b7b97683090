import type { Carrier } from "../plant/carriers";
import { viaNames } from "./barrierDistance";
import { hiddenBy, type HiddenBy } from "./hiddenRoute";
import type { SourceVertex } from "./sources";
import { carrierOf, itemAt, placeName, placeOf, verticesAt, type StateGraph } from "./stateGraph";
import { ownDriveOf, tiersTo, type Tier } from "./tiers";
import { allFaceVertices, type WorkFace } from "./workFaces";

/** One connection by which energy enters a face, with every source that comes that way. */
export type WayIn = Readonly<{
  face: string;
  /** The neighbouring place. */
  through: string;
  /** The carrier of the connection, or as it arrives where a part of the same item warms or drives the face. */
  carrier: Carrier;
  /** The best of its sources, by this way in. */
  tier: Tier;
  sources: readonly Readonly<{
    source: string;
    carrier: Carrier;
    tier: Tier;
    /** A way of that tier. */
    via: readonly string[];
    /** The first device met going from the face towards the source; null when there is none. */
    nearestDevice: string | null;
    hidden: boolean;
    hiddenBy: readonly HiddenBy[];
  }>[];
}>;

/**
 * Every neighbour from which a feeding source may enter a face without having passed the face before: the pipe, the
 * shaft, the cable, the interlock from the cubicle next door. A source with three ways in is listed three times, so that
 * a short route never hides a long one. Sorted by face, neighbour, carrier.
 *
 * Cost: one search for each connection of each face.
 */
export function waysIn(graph: StateGraph, faces: readonly WorkFace[], feeding: readonly SourceVertex[]): WayIn[] {
  const found: WayIn[] = [];
  for (const face of faces) {
    const own = new Set(face.places);
    const drive = ownDriveOf(graph, face);
    const entrances = new Map<string, { outside: number; inside: number }>();
    for (const inside of allFaceVertices(graph, face)) {
      for (let arc = graph.in.first[inside]!; arc < graph.in.first[inside + 1]!; arc++) {
        const outside = graph.in.other[arc]!;
        if (!own.has(placeOf(graph, outside))) entrances.set(`${outside} ${inside}`, { outside, inside });
      }
    }
    // Searches back from a neighbour stay outside the face.
    const inside = new Uint8Array(graph.vertexCount);
    for (const place of own) for (const vertex of verticesAt(graph, place)) inside[vertex] = 1;
    for (const { outside, inside: end } of entrances.values()) {
      const tiers = tiersTo(graph, [outside], drive, inside);
      const sources = feeding.flatMap((source) => {
        if (own.has(source.place) || !tiers.reaches(source.vertex)) return [];
        const way = [...tiers.wayOf(source.vertex), end];
        const by = hiddenBy(graph, way);
        const nearest = way.slice(0, -1).findLast((vertex) => itemAt(graph, vertex).device);
        return {
          source: placeName(graph, source.vertex),
          carrier: source.carrier,
          tier: tiers.tierOf(source.vertex),
          via: viaNames(graph, way),
          nearestDevice: nearest === undefined ? null : itemAt(graph, nearest).tag,
          hidden: by.length > 0,
          hiddenBy: by,
        };
      });
      if (sources.length === 0) continue;
      // What matters first leads, then what people expect, then the shortest.
      sources.sort(
        (a, b) =>
          a.tier - b.tier ||
          a.hiddenBy.length - b.hiddenBy.length ||
          a.via.length - b.via.length ||
          (a.source < b.source ? -1 : 1),
      );
      found.push({
        face: face.name,
        through: placeName(graph, outside),
        carrier: carrierOf(graph, end),
        tier: sources[0]!.tier,
        sources,
      });
    }
  }
  const key = (way: WayIn) => [way.face, way.through, way.carrier].join("\u0000");
  return found.sort((a, b) => (key(a) < key(b) ? -1 : 1));
}
