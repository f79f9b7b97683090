import { placeName, placeOf } from "../trace/stateGraph";
import type { BarrierField } from "../barrier/pairs";
import type { FaceWays, Standing } from "./standing";
import { unprovedWalk } from "./ways";
import type { WorkZone } from "./workZone";

const MOST_NAMED = 3;

/** A stretch of a way between two crossings, and what keeps it from proving anything. */
export type Stretch = Readonly<{
  /** The devices that close it. */
  between: readonly [item: number, item: number];
  /** Its places, from the source's side. */
  vertices: readonly number[];
}>;

/** The stretches between crossings of a way that passes no proved space; empty where there is no such way. */
export function stretchesOf(field: BarrierField, { ways, positions }: FaceWays, from: number): Stretch[] {
  const { graph } = field;
  const walk = unprovedWalk(ways, from);
  const stretches: Stretch[] = [];
  let last = -1;
  let vertices: number[] = [];
  // A source's own device is no barrier to it, nor is one that is the face.
  for (const vertex of walk.slice(1, -1)) {
    if (positions.gates[vertex] === 1) {
      const item = graph.places.itemOf[placeOf(graph, vertex)]!;
      if (last >= 0) stretches.push({ between: [last, item], vertices });
      last = item;
      vertices = [];
    } else vertices.push(vertex);
  }
  return stretches;
}

/** Why no space on the way proves anything, in words. */
export function faultsOfWay(field: BarrierField, standing: Standing, at: FaceWays, from: number): string[] {
  const { graph } = field;
  const stretches = stretchesOf(field, at, from);
  const tag = (item: number) => graph.plant.items[item]!.tag;
  const said = new Set<string>();
  for (const { between, vertices } of stretches) {
    if (vertices.length === 0) {
      said.add(`${tag(between[0])} and ${tag(between[1])} stand face to face, with nothing between them to bleed`);
      continue;
    }
    const live = vertices.find((vertex) => standing.lit[vertex] === 1);
    if (live !== undefined) {
      said.add(`${placeName(graph, live)}, between its barriers, stays live from another source`);
    } else said.add(undrainedWords(field, vertices, standing));
  }
  if (stretches.length === 0) said.add("on some way the barriers stand with no space between them that a bleed proves");
  return [...said];
}

/** Why the zone that people work in proves nothing against what comes from here, in words. */
export function zoneFaults(
  field: BarrierField,
  standing: Standing,
  face: number,
  zone: WorkZone,
  from: number,
): string[] {
  const { graph } = field;
  const name = placeName(graph, face);
  if (standing.lit[face] === 1) return [`${name} stays live from another source, so nothing bled there proves it`];
  const live = zone.spoilt.find((vertex) => standing.lit[vertex] === 1);
  if (zone.comesThroughSpoilt[from] === 1 && live !== undefined) {
    return [`${placeName(graph, live)}, in the work zone, stays live from another source`];
  }
  const undrained = [face, ...zone.spoilt, ...zone.pushingLegs].filter((vertex) => !standing.drains.isDrained(vertex));
  return undrained.length === 0 ? [] : [undrainedWords(field, undrained, standing)];
}

function undrainedWords({ graph }: BarrierField, vertices: readonly number[], { drains }: Standing): string {
  const names = vertices.filter((vertex) => !drains.isDrained(vertex)).map((vertex) => placeName(graph, vertex));
  const undrained = [...new Set(names)].sort();
  const more = undrained.length > MOST_NAMED ? ` and ${undrained.length - MOST_NAMED} more` : "";
  return `no bleed surely drains ${undrained.slice(0, MOST_NAMED).join(", ")}${more}`;
}
