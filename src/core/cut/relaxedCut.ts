import type { School } from "../request/jobFile";
import { barrierDistance, reachableFrom, UNREACHED, type BarrierDistance } from "../trace/barrierDistance";
import { gateVertices, placeOf } from "../trace/stateGraph";
import type { SourceVertex } from "../trace/sources";
import { gateMarksOf, type BarrierField, type Pair } from "../barrier/pairs";
import { onceFor } from "../onceFor";
import { kBarrierCut } from "./kBarrierCut";
import type { requirementOffsets } from "./requirementOffsets";

/** Nothing is known of the layer of what is no device, or of any device where nothing was cut. */
export type LayerAt = (item: number) => number | undefined;

export type RelaxedCut = Readonly<{
  devices: ReadonlySet<number>;
  /** No set of devices that holds the requirement costs less, in hundredths of a minute. */
  bound_hundredths: number;
  /** The set costs what the flow proves, points counted too: none as cheap has fewer. Says nothing of whether it holds. */
  proved: boolean;
  /** The layer on the supply side of a device; the lowest, for a device of several carriers. */
  layerAt: LayerAt;
}>;

/**
 * The k-barrier cut on the state graph, every gate paid for itself. Where each device has one gate this is the plan
 * itself; a device with several gates has its cost shared among them, and devices with a common cause are taken as
 * apart, so in general it is a lower bound and a good first guess.
 */
export function relaxedCut(
  field: BarrierField,
  pairs: readonly Pair[],
  offsets: NonNullable<ReturnType<typeof requirementOffsets>>,
  costOf: (item: number) => number,
  school: School,
): RelaxedCut {
  const { graph } = field;
  const asking = pairs.filter((pair) => pair.k > 0);
  const sources = [...new Map(asking.map(({ source }) => [source.vertex, source])).values()];
  const faces = [...new Set(asking.map(({ face }) => face))];
  const targets = faces.flatMap((face) => field.targetsOf.get(face)!);
  const isBetween = between(field, sources, targets);
  const gateCount = gatesBetween(field, isBetween);
  // Shares must be whole: scale all prices by the least common multiple of the gate counts.
  const scale = gateCount.counts.reduce((lcm, count) => (lcm * count) / gcd(lcm, count), 1);
  // One more than the number of devices: then equal cost prefers fewer points, and cost always comes first.
  const weight = field.creditable.size + 1;
  const isGate = gateMarksOf(field);
  const itemOf = (vertex: number) => graph.places.itemOf[placeOf(graph, vertex)]!;
  const priceOf = (item: number) => ((costOf(item) * weight + 1) * scale) / gateCount.of(item);
  const maxA = Math.max(...offsets.ofSource.values());
  const maxB = Math.max(...offsets.ofFace.values());
  const cut = kBarrierCut(
    {
      graph,
      priceAt: (vertex) => (isGate[vertex] === 1 ? priceOf(itemOf(vertex)) : 0),
      K: maxA + maxB,
      entries: sources.map(({ vertex }) => ({ vertex, skips: maxA - offsets.ofSource.get(vertex)! })),
      exits: faces.flatMap((face) =>
        field.targetsOf.get(face)!.map((vertex) => ({ vertex, skips: maxB - offsets.ofFace.get(face.name)! })),
      ),
    },
    school,
  );
  if (cut.price !== cut.bound) throw new Error(`the cut costs ${cut.price} but its flow proves ${cut.bound}`);
  const devices = new Set(cut.chosen.map(itemOf));
  const paid = [...devices].reduce((sum, item) => sum + (costOf(item) * weight + 1) * scale, 0);
  return {
    devices,
    proved: paid === cut.bound,
    bound_hundredths: Math.floor(cut.bound / scale / weight),
    layerAt: (item) => {
      if (!field.creditable.has(item)) return undefined;
      const layers = gateVertices(graph, item).filter(isBetween).map(cut.layerBefore);
      return layers.length === 0 ? undefined : Math.min(...layers);
    },
  };
}

/** Does a vertex lie between these sources and the work? Two searches of the plant, made when first asked. */
function between(field: BarrierField, sources: readonly SourceVertex[], targets: readonly number[]) {
  let known: { reached: Uint8Array; toFace: BarrierDistance } | undefined;
  return (vertex: number): boolean => {
    known ??= {
      reached: reachableFrom(
        field.graph,
        sources.map((source) => source.vertex),
        null,
      ),
      toFace: barrierDistance(field.graph, targets, null),
    };
    return known.reached[vertex] === 1 && known.toFace.gates[vertex] !== UNREACHED;
  };
}

/** Of each device the gates that lie between; a device of one gate has one wherever it is. */
function gatesBetween(field: BarrierField, isBetween: (vertex: number) => boolean) {
  const counts = new Map<number, number>();
  for (const item of manyGated(field)) {
    const { length } = gateVertices(field.graph, item).filter(isBetween);
    if (length > 1) counts.set(item, length);
  }
  return { counts: [...counts.values()], of: (item: number) => counts.get(item) ?? 1 };
}

const manyGated = onceFor((field: BarrierField) =>
  [...field.creditable].filter((item) => gateVertices(field.graph, item).length > 1),
);

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}
