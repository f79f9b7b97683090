import type { Positions } from "./ways";

/** Where people work, as one face vertex has it: what lies between the last barriers and the face. */
export type WorkZone = Readonly<{
  /** The face itself is not proved, or a dead leg may push into it: whatever comes, nothing here proves it. */
  faceSpoilt: boolean;
  /** Dead legs that are not drained and may push into the face with no drained place between. */
  pushingLegs: readonly number[];
  /** Not proved, and on the last stretch of some way to the face: they spoil it for what comes that way. */
  spoilt: readonly number[];
  /** 1 whence a way leads through one of these. */
  comesThroughSpoilt: Uint8Array;
}>;

/**
 * The zone is what leads to the face, along links in their direction, with no isolated device between: what a one-way drain
 * line only leads away to is no part of it.
 *
 * Cost: linear in the zone and in what reaches what is spoilt in it.
 */
export function workZoneOf(
  face: number,
  p: Positions,
  crossed: Uint8Array,
  isDrained: (vertex: number) => boolean,
): WorkZone {
  const { graph, gates, closed, isProved, legs } = p;
  const spoilt: number[] = [];
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    const isInside = crossed[vertex] === 0 && gates[vertex] === 0 && closed[vertex] === 0;
    if (isInside && vertex !== face && !isProved(vertex)) spoilt.push(vertex);
  }
  const comesThroughSpoilt = new Uint8Array(graph.vertexCount);
  const queue = [...spoilt];
  for (const vertex of spoilt) comesThroughSpoilt[vertex] = 1;
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    if (closed[vertex] === 1) continue;
    for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
      const before = graph.in.other[arc]!;
      if (before === face || comesThroughSpoilt[before] === 1 || legs[before] === 1) continue;
      comesThroughSpoilt[before] = 1;
      queue.push(before);
    }
  }
  const pushingLegs = undrainedLegsInto(face, p, isDrained);
  return { faceSpoilt: !isProved(face) || pushingLegs.length > 0, pushingLegs, spoilt, comesThroughSpoilt };
}

function undrainedLegsInto(
  face: number,
  { graph, gates, closed, legs }: Positions,
  isDrained: (vertex: number) => boolean,
): number[] {
  const found: number[] = [];
  const seen = new Set([face]);
  const queue = [face];
  for (let head = 0; head < queue.length; head++) {
    const vertex = queue[head]!;
    for (let arc = graph.in.first[vertex]!; arc < graph.in.first[vertex + 1]!; arc++) {
      const before = graph.in.other[arc]!;
      const isInside = gates[before] === 0 && closed[before] === 0;
      if (seen.has(before) || !isInside || isDrained(before)) continue;
      seen.add(before);
      queue.push(before);
      if (legs[before] === 1) found.push(before);
    }
  }
  return found;
}
