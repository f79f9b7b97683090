import type { Carrier } from "../plant/carriers";
import { reachableFrom } from "../trace/barrierDistance";
import { sourcesOf } from "../trace/sources";
import { gatesOf, vertexOf, type StateGraph } from "../trace/stateGraph";

/** A consumer that runs today and would not with these devices isolated. */
export type Loss = Readonly<{
  tag: string;
  name: string;
  area: string;
  /** Who of the area is told; empty when the register does not say. */
  tell: string;
  /** Which of its needs go. */
  loses: readonly Carrier[];
  criticality: number;
  /** It is itself the work: its loss is meant. */
  isWork: boolean;
}>;

/**
 * What else goes dark: consumers with all their needs lit as the devices stand today, and one of them dark once the set
 * is isolated too. Devices whose position is unknown count as passing before and after. Sorted by area, then tag.
 *
 * Cost: two searches over the plant.
 */
export function lossOf(graph: StateGraph, isolated: ReadonlySet<number>, work: ReadonlySet<number>): Loss[] {
  const standing = graph.plant.items.flatMap(({ device }, index) => (device?.stands === "stopping" ? [index] : []));
  const sources = sourcesOf(graph).feeding.map((source) => source.vertex);
  const before = reachableFrom(graph, sources, gatesOf(graph, standing));
  const after = reachableFrom(graph, sources, gatesOf(graph, [...standing, ...isolated]));
  const tellOf = new Map(graph.plant.areas.map((area) => [area.name, area.tell]));
  const losses: Loss[] = [];
  graph.plant.items.forEach((item, index) => {
    if (item.needs.length === 0) return;
    const found = graph.places.resolveFace(item.tag);
    if (!found.ok) throw new Error(`${item.tag} has no place`);
    const has = (lit: Uint8Array, carrier: Carrier) =>
      found.places.some((place) => lit[vertexOf(graph, place, carrier)] === 1);
    if (!item.needs.every((carrier) => has(before, carrier))) return;
    const loses = item.needs.filter((carrier) => !has(after, carrier));
    if (loses.length === 0) return;
    losses.push({
      tag: item.tag,
      name: item.name ?? "",
      area: item.area ?? "",
      tell: tellOf.get(item.area ?? "") ?? "",
      loses,
      criticality: item.criticality ?? 1,
      isWork: work.has(index),
    });
  });
  return losses.sort((a, b) => (`${a.area}\u0000${a.tag}` < `${b.area}\u0000${b.tag}` ? -1 : 1));
}
