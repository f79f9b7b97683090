import type { School } from "../request/jobFile";
import { barrierDistance, reachableFrom, UNREACHED } from "../trace/barrierDistance";
import { gateVertices } from "../trace/stateGraph";
import { kBarrierCut, type CutProblem } from "./kBarrierCut";
import type { BarrierField, Pair } from "../judge/pairs";
import type { requirementOffsets } from "./requirementOffsets";

export type RelaxedCut = Readonly<{
  devices: ReadonlySet<number>;
  /** No set of devices that holds the requirement costs less, in hundredths of a minute. */
  bound_hundredths: number;
  /** The set costs what the flow proves, points counted too: none as cheap has fewer. Says nothing of whether it holds. */
  proved: boolean;
  /** The layer on the supply side of each gate's device; the lowest, for a device of several carriers. */
  layerOf: ReadonlyMap<number, number>;
}>;

/**
 * The k-barrier cut on the state graph, every gate paid for itself. Where each device has one gate this is the plan
 * itself; a device with several gates has its cost shared among them, and devices with a common cause are taken as
 * apart, so in general it is a lower bound and a good first guess.
 *
 * Only vertices between some asking source and some face take part.
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
  const reached = reachableFrom(
    graph,
    sources.map((source) => source.vertex),
    null,
  );
  const toFace = barrierDistance(graph, targets, null);

  const nodeOf = new Map<number, number>();
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    if (reached[vertex] === 1 && toFace.gates[vertex] !== UNREACHED) nodeOf.set(vertex, nodeOf.size);
  }
  const arcs: [number, number][] = [];
  for (const [vertex, node] of nodeOf) {
    for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) {
      const to = nodeOf.get(graph.out.other[arc]!);
      if (to !== undefined) arcs.push([node, to]);
    }
  }

  const gatesByDevice = new Map<number, number[]>();
  for (const item of field.creditable) {
    const nodes = gateVertices(graph, item).flatMap((vertex) => nodeOf.get(vertex) ?? []);
    if (nodes.length > 0) gatesByDevice.set(item, nodes);
  }
  // Shares must be whole: scale all prices by the least common multiple of the gate counts.
  const scale = [...gatesByDevice.values()].reduce((lcm, nodes) => (lcm * nodes.length) / gcd(lcm, nodes.length), 1);
  // One more than the number of devices: then equal cost prefers fewer points, and cost always comes first.
  const weight = gatesByDevice.size + 1;
  const gates = new Map<number, number>();
  const deviceAt = new Map<number, number>();
  for (const [item, nodes] of gatesByDevice) {
    for (const node of nodes) {
      gates.set(node, ((costOf(item) * weight + 1) * scale) / nodes.length);
      deviceAt.set(node, item);
    }
  }

  const maxA = Math.max(...offsets.ofSource.values());
  const maxB = Math.max(...offsets.ofFace.values());
  const problem: CutProblem = {
    nodeCount: nodeOf.size,
    arcs,
    gates,
    K: maxA + maxB,
    entries: sources.map(({ vertex }) => ({ node: nodeOf.get(vertex)!, skips: maxA - offsets.ofSource.get(vertex)! })),
    exits: faces.flatMap((face) =>
      field.targetsOf.get(face)!.flatMap((vertex) => {
        const node = nodeOf.get(vertex);
        return node === undefined ? [] : [{ node, skips: maxB - offsets.ofFace.get(face.name)! }];
      }),
    ),
  };
  const cut = kBarrierCut(problem, school);
  if (cut.price !== cut.bound) throw new Error(`the cut costs ${cut.price} but its flow proves ${cut.bound}`);
  const layerOf = new Map<number, number>();
  for (const [node, layer] of cut.layerBefore) {
    const item = deviceAt.get(node)!;
    layerOf.set(item, Math.min(layer, layerOf.get(item) ?? layer));
  }
  const devices = new Set(cut.chosen.map((node) => deviceAt.get(node)!));
  const paid = [...devices].reduce((sum, item) => sum + (costOf(item) * weight + 1) * scale, 0);
  return {
    devices,
    proved: paid === cut.bound,
    bound_hundredths: Math.floor(cut.bound / scale / weight),
    layerOf,
  };
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}
