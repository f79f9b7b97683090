import { barrierDistance, reachableFrom, UNREACHED, type BarrierDistance } from "../trace/barrierDistance";
import type { SourceVertex } from "../trace/sources";
import { gatesOf, gateVertices } from "../trace/stateGraph";
import type { WorkFace } from "../trace/workFaces";
import { distinctUnits, NO_GATE, SINGLE_GATE } from "./distinctUnits";
import { gateMarksOf, unitOf, type BarrierField } from "./pairs";

/** The least number of distinct barriers on any way from a source to a face. */
export type Depth = Readonly<{
  depth: number;
  /** Nobody looked further: there are at least so many, maybe more. */
  isLeast: boolean;
  gateMarks: Uint8Array;
  distance: BarrierDistance;
}>;

/** Labels that one answer may cost beyond one for each vertex, see distinctUnits. */
const MOST_LABELS = 30_000;
/** And to find out how many more barriers there are than was asked. */
const MOST_BEYOND = 5_000;

/** What may still be looked at, in vertices and labels, counted down by those that look. */
export type Effort = { left: number };

export type Asking = Readonly<{
  /** Handed to the search, see barrierDistance. */
  stepCost?: Uint8Array;
  /** Sources so many barriers away or more may be missing: then only the part of the plant that is nearer is looked at. */
  below?: number;
  /** So many are asked: where devices are crossed twice, nobody looks far whether there are more. */
  enough?: number;
  effort?: Effort;
}>;

/**
 * Depth from each source to one face, with the given devices isolated. Sources that cannot reach the face are missing
 * from the answer. Depth 0: the face is lit. Depth 1: one failure lights it.
 *
 * A device that stops several carriers could be crossed twice on one way and still counts once; so do devices with a
 * common cause, see distinctUnits. Where that would take too long the depth is the least that is sure, and says so: never
 * more than there is. A source's own device is no barrier to it.
 *
 * Cost: one search; where devices are crossed twice, one of distinctUnits and a search for each set of them that matters.
 */
export function barrierDepths(
  field: BarrierField,
  face: WorkFace,
  sources: readonly SourceVertex[],
  isolated: ReadonlySet<number>,
  asking: Asking = {},
): Map<SourceVertex, Depth> {
  const credited =
    isolated === field.creditable ? isolated : new Set([...isolated].filter((item) => field.creditable.has(item)));
  const { ownGates, others } = splitByOwnDevice(field, sources, credited);
  const found = depthsOfDistinct(field, face, others, credited, asking);
  for (const source of ownGates) {
    const without = new Set(credited);
    without.delete(source.item);
    for (const [s, depth] of depthsOfDistinct(field, face, [source], without, asking)) found.set(s, depth);
  }
  return found;
}

/** Only a source in a device of several carriers needs a search of its own: else its one gate is behind it at once. */
function splitByOwnDevice(field: BarrierField, sources: readonly SourceVertex[], credited: ReadonlySet<number>) {
  const isOwn = (source: SourceVertex) =>
    credited.has(source.item) && gateVertices(field.graph, source.item).some((vertex) => vertex !== source.vertex);
  return { ownGates: sources.filter(isOwn), others: sources.filter((source) => !isOwn(source)) };
}

function depthsOfDistinct(
  field: BarrierField,
  face: WorkFace,
  sources: readonly SourceVertex[],
  credited: ReadonlySet<number>,
  { stepCost, below = UNREACHED, enough = UNREACHED, effort = { left: Infinity } }: Asking,
): Map<SourceVertex, Depth> {
  const { graph } = field;
  const targets = field.targetsOf.get(face)!;
  const found = new Map<SourceVertex, Depth>();
  if (sources.length === 0) return found;
  const search = (devices: ReadonlySet<number>, crossedAlready: number) => {
    const gateMarks = devices === field.creditable ? gateMarksOf(field) : gatesOf(graph, devices);
    const distance = barrierDistance(graph, targets, gateMarks, stepCost ?? null, below - crossedAlready);
    effort.left -= graph.vertexCount;
    for (const source of sources) {
      const gates = distance.gates[source.vertex]!;
      if (gates === UNREACHED) continue;
      const depth = gates + crossedAlready;
      const best = found.get(source);
      if (best === undefined || depth < best.depth) found.set(source, { depth, isLeast: false, gateMarks, distance });
    }
    return { gateMarks, distance };
  };
  const plain = search(credited, 0);
  let deepest = found.size < sources.length && below < UNREACHED ? below : 0;
  for (const { depth } of found.values()) deepest = Math.max(deepest, depth);
  if (deepest < 2) return found;

  const several = unitsOfSeveral(field, sources, credited, targets);
  if (several === null) return found;
  const distinct = distinctUnits(graph, targets, several.unitAt, {
    sources: new Set(sources.map(({ vertex }) => vertex)),
    isBetween: several.isBetween,
    below: deepest,
    mostLabels: MOST_LABELS + graph.vertexCount,
    enough,
    mostBeyond: MOST_BEYOND,
  });
  effort.left -= WORK_COSTS * distinct.work;
  const tried = new Set<string>();
  for (const source of sources) {
    const way = distinct.found.get(source.vertex);
    const { depth } = found.get(source) ?? { depth: below };
    if (way === undefined || way.depth >= depth || tried.has(way.units.join())) continue;
    tried.add(way.units.join());
    const crossed = new Set(way.units.flatMap((unit) => several.units[unit]!));
    search(new Set([...credited].filter((item) => !crossed.has(item))), way.units.length);
  }
  for (const source of sources) {
    const { depth } = found.get(source) ?? { depth: below };
    const isSure = distinct.found.has(source.vertex) || depth <= distinct.atLeast || !several.reaches(source.vertex);
    if (!isSure) found.set(source, { ...(found.get(source) ?? plain), depth: distinct.atLeast, isLeast: true });
  }
  return found;
}

/** Making or comparing a label is some five times the work of passing a vertex. */
const WORK_COSTS = 5;

/** Units with two or more gates between these sources and the face, and which is at a vertex; null where there is none. */
function unitsOfSeveral(
  field: BarrierField,
  sources: readonly SourceVertex[],
  credited: ReadonlySet<number>,
  targets: readonly number[],
) {
  const { graph } = field;
  const units = new Map<string, { items: number[]; gates: number[] }>();
  for (const item of credited) {
    const gates = gateVertices(graph, item);
    const isAlone = gates.length < 2 && graph.plant.items[item]!.device?.commonCause === undefined;
    if (gates.length === 0 || isAlone) continue;
    const unit = units.get(unitOf(field, item)) ?? { items: [], gates: [] };
    unit.items.push(item);
    unit.gates.push(...gates);
    units.set(unitOf(field, item), unit);
  }
  if (![...units.values()].some(({ gates }) => gates.length > 1)) return null;
  const reached = reachableFrom(
    graph,
    sources.map((source) => source.vertex),
    null,
  );
  const toFace = barrierDistance(graph, targets, null).gates;
  const isBetween = reached.map((mark, vertex) => (mark === 1 && toFace[vertex] !== UNREACHED ? 1 : 0));
  const several = [...units.values()].filter(({ gates }) => gates.filter((gate) => isBetween[gate] === 1).length > 1);
  if (several.length === 0) return null;
  const marks = gatesOf(graph, credited);
  const unitOfGate = new Map(several.flatMap(({ gates }, unit) => gates.map((gate) => [gate, unit] as const)));
  return {
    units: several.map(({ items }) => items),
    isBetween,
    reaches: (vertex: number) => toFace[vertex] !== UNREACHED,
    unitAt: (vertex: number) => (marks[vertex] === 0 ? NO_GATE : (unitOfGate.get(vertex) ?? SINGLE_GATE)),
  };
}
