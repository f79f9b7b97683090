import type { Carrier } from "../plant/carriers";
import type { Source } from "../plant/plant";
import { onceFor } from "../onceFor";
import { vertexOf, type StateGraph } from "./stateGraph";

/** One place supplying one carrier. */
export type SourceVertex = Readonly<{
  vertex: number;
  item: number;
  place: number;
  carrier: Carrier;
  /** The register's entry: where a place supplies a carrier twice, a feeding one stands for both. */
  source: Source;
}>;

type Sources = Readonly<{ feeding: readonly SourceVertex[]; stored: readonly SourceVertex[] }>;

/**
 * The sources of a plant, feeding and stored kept apart, in the order of the register. Cost: linear in items, the first
 * time for a graph.
 */
export const sourcesOf = onceFor((graph: StateGraph): Sources => {
  const feeding = new Map<number, SourceVertex>();
  const stored: SourceVertex[] = [];
  graph.plant.items.forEach((item, index) => {
    if (item.sources.length === 0) return;
    const whole = graph.places.resolveFace(item.tag);
    if (!whole.ok) throw new Error(`${item.tag} has no place`);
    for (const source of item.sources) {
      const places =
        source.part === undefined ? whole.places : [whole.places[item.parts.indexOf(source.part)] ?? whole.places[0]!];
      for (const place of places) {
        const vertex = vertexOf(graph, place, source.carrier);
        const entry = { vertex, item: index, place, carrier: source.carrier, source };
        if (source.feeding) feeding.set(vertex, entry);
        else stored.push(entry);
      }
    }
  });
  return { feeding: [...feeding.values()], stored };
});
