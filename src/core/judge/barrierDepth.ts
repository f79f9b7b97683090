import { barrierDistance, reachableFrom, UNREACHED, type BarrierDistance } from "../trace/barrierDistance";
import type { SourceVertex } from "../trace/sources";
import { gatesOf, gateVertices } from "../trace/stateGraph";
import type { WorkFace } from "../trace/workFaces";
import { gateMarksOf, unitOf, type BarrierField } from "./pairs";

/** The least number of distinct barriers on any way from a source to a face. */
export type Depth = Readonly<{
  depth: number;
  gateMarks: Uint8Array;
  distance: BarrierDistance;
}>;

/** At most this many sets of multiple devices are tried beyond what the requirement needs. */
const SETS_FOR_EXACTNESS = 500;

/**
 * Depth from each source to one face, with the given devices isolated. Sources that cannot reach the face are missing
 * from the answer. Depth 0: the face is lit. Depth 1: one failure lights it.
 *
 * A device that stops several carriers could be crossed twice on one way and still counts once; so do devices with a
 * common cause. For these the answer is the least of |R| + depth without R, over sets R of such units. It is exact below
 * `askedDepth` always, and everywhere when the sets are few. A source's own device is no barrier to it.
 *
 * `stepCost` is handed to the search, see barrierDistance. Sources `below` barriers away or more may be missing as well: then
 * only the part of the plant that is nearer is looked at.
 *
 * Cost: one search for each set R; without multiple units one search in all.
 */
export function barrierDepths(
  field: BarrierField,
  face: WorkFace,
  sources: readonly SourceVertex[],
  isolated: ReadonlySet<number>,
  askedDepth: number,
  stepCost: Uint8Array | null = null,
  below = UNREACHED,
): Map<SourceVertex, Depth> {
  const credited =
    isolated === field.creditable ? isolated : new Set([...isolated].filter((item) => field.creditable.has(item)));
  const { ownGates, others } = splitByOwnDevice(field, sources, credited);
  const found = depthsOverSets(field, face, others, credited, { askedDepth, stepCost, below });
  for (const source of ownGates) {
    const without = new Set(credited);
    without.delete(source.item);
    for (const [s, depth] of depthsOverSets(field, face, [source], without, { askedDepth, stepCost, below }))
      found.set(s, depth);
  }
  return found;
}

/** Only a source in a device of several carriers needs a search of its own: else its one gate is behind it at once. */
function splitByOwnDevice(field: BarrierField, sources: readonly SourceVertex[], credited: ReadonlySet<number>) {
  const isOwn = (source: SourceVertex) =>
    credited.has(source.item) && gateVertices(field.graph, source.item).some((vertex) => vertex !== source.vertex);
  return { ownGates: sources.filter(isOwn), others: sources.filter((source) => !isOwn(source)) };
}

function depthsOverSets(
  field: BarrierField,
  face: WorkFace,
  sources: readonly SourceVertex[],
  credited: ReadonlySet<number>,
  { askedDepth, stepCost, below }: Readonly<{ askedDepth: number; stepCost: Uint8Array | null; below: number }>,
): Map<SourceVertex, Depth> {
  const { graph } = field;
  const targets = field.targetsOf.get(face)!;
  const found = new Map<SourceVertex, Depth>();
  if (sources.length === 0) return found;
  const search = (devices: ReadonlySet<number>, crossedAlready: number) => {
    const gateMarks = devices === field.creditable ? gateMarksOf(field) : gatesOf(graph, devices);
    const distance = barrierDistance(graph, targets, gateMarks, stepCost, below - crossedAlready);
    for (const source of sources) {
      const gates = distance.gates[source.vertex]!;
      if (gates === UNREACHED) continue;
      const depth = gates + crossedAlready;
      const best = found.get(source);
      if (best === undefined || depth < best.depth) found.set(source, { depth, gateMarks, distance });
    }
  };
  search(credited, 0);
  let deepest = found.size < sources.length && below < UNREACHED ? below : 0;
  for (const { depth } of found.values()) deepest = Math.max(deepest, depth);
  if (deepest < 2) return found;

  const units = multipleUnits(field, sources, credited, targets);
  if (units.length === 0) return found;
  for (let size = 1; size < deepest; size++) {
    if (size >= askedDepth && choose(units.length, size) > SETS_FOR_EXACTNESS) break;
    for (const set of subsets(units, size)) {
      const crossed = new Set(set.flat());
      search(new Set([...credited].filter((item) => !crossed.has(item))), size);
    }
  }
  return found;
}

/** Units with two or more gates between these sources and the face. */
function multipleUnits(
  field: BarrierField,
  sources: readonly SourceVertex[],
  credited: ReadonlySet<number>,
  targets: readonly number[],
): number[][] {
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
  if (![...units.values()].some(({ gates }) => gates.length > 1)) return [];
  const reached = reachableFrom(
    graph,
    sources.map((source) => source.vertex),
    null,
  );
  const toFace = barrierDistance(graph, targets, null).gates;
  const isBetween = (vertex: number) => reached[vertex] === 1 && toFace[vertex] !== UNREACHED;
  return [...units.values()]
    .filter(({ gates }) => gates.filter(isBetween).length > 1)
    .map(({ items }) => items.filter((item) => gateVertices(graph, item).some(isBetween)));
}

function* subsets<T>(from: readonly T[], size: number, start = 0): Generator<T[]> {
  if (size === 0) yield [];
  else {
    for (let i = start; i <= from.length - size; i++) {
      for (const rest of subsets(from, size - 1, i + 1)) yield [from[i]!, ...rest];
    }
  }
}

function choose(n: number, k: number): number {
  let result = 1;
  for (let i = 1; i <= k; i++) result = (result * (n - k + i)) / i;
  return result;
}
