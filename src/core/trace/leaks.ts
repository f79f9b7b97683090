import type { Carrier } from "../plant/carriers";
import { reached } from "./barrierDistance";
import { keepArcs } from "./keepArcs";
import { sourcesOf, type SourceVertex } from "./sources";
import { carrierOf, placeName, vertexOf, type StateGraph } from "./stateGraph";
import type { Tier } from "./tiers";
import { allFaceVertices, type WorkFace } from "./workFaces";

/** How likely a leak is held to be, beside the other ways. */
export const LEAK_TIER: Tier = 2;

/** What a leak through a wall between two fluids would bring to a face. */
export type Leak = Readonly<{
  source: SourceVertex;
  carrier: Carrier;
  face: string;
  /** The place on the near side of the wall, where the source stands today, and the one beyond it. */
  near: string;
  beyond: string;
}>;

/**
 * A wall is no way, and no barrier either: what stands on one side of it may come to the other when a tube leaks. One for each source
 * whose own carrier stands at a wall from whose other side it would come to a face, feeding sources and stored ones.
 *
 * Cost: nothing where the plant has no wall; else two linear searches for each side of each.
 */
export function leaksTo(graph: StateGraph, faces: readonly WorkFace[]): Leak[] {
  const walls = graph.plant.links.filter((link) => link.wall);
  if (walls.length === 0) return [];
  const { feeding, stored } = sourcesOf(graph);
  const open = new Uint8Array(graph.vertexCount);
  const found: Leak[] = [];
  const known = new Map<Carrier, StateGraph>();
  /** The plant of one carrier: what crosses a wall is a fluid, not a push. */
  const ownOf = (carrier: Carrier) => {
    const made =
      known.get(carrier) ??
      keepArcs(graph, (vertex, side, arc) =>
        [vertex, side.other[arc]!].every((end) => carrierOf(graph, end) === carrier),
      );
    known.set(carrier, made);
    return made;
  };
  for (const { from, to, carries } of walls) {
    const own = ownOf(carries);
    const [a, b] = [graph.places.resolveOne(from), graph.places.resolveOne(to)];
    if (!a.ok || !b.ok) continue;
    for (const [near, far] of [
      [a.place, b.place],
      [b.place, a.place],
    ] as const) {
      const [start, beyond] = [vertexOf(graph, near, carries), vertexOf(graph, far, carries)];
      const standing = reached(own, [start], open, "in");
      const coming = reached(own, [beyond], open, "out");
      const met = faces.filter((face) => allFaceVertices(graph, face).some((vertex) => coming[vertex] === 1));
      for (const source of [...feeding, ...stored]) {
        if (source.vertex < 0 || standing[source.vertex] === 0) continue;
        for (const face of met) {
          found.push({
            source,
            carrier: carries,
            face: face.name,
            near: placeName(graph, start),
            beyond: placeName(graph, beyond),
          });
        }
      }
    }
  }
  return found;
}
