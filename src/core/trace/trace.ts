import type { Job } from "../request/jobFile";
import type { Carrier } from "../plant/carriers";
import { storedQuantity, wayToMakeHarmless, type StoredQuantity } from "../energy/storedEnergy";
import type { Read } from "../plant/problem";
import { barrierDistance, leastWay, reached, viaNames, UNREACHED, type BarrierDistance } from "./barrierDistance";
import { findingsOf, type Finding } from "./findings";
import { hiddenBy, hiddenTwinsTo, type HiddenBy } from "./hiddenRoute";
import { keepArcs } from "./keepArcs";
import { sourcesOf, type SourceVertex } from "./sources";
import { ARC, carrierOf, itemAt, placeName, type StateGraph } from "./stateGraph";
import { waysIn, type WayIn } from "./waysIn";
import { lastLockBefore } from "./lastLock";
import { ownDriveOf, tiersTo, type Tier } from "./tiers";
import { faceItems, faceVertices, workFaces, type WorkFace } from "./workFaces";

/** One energy that reaches the work: a row for each source, carrier supplied, face and carrier as it arrives. */
export type TracedSource = Readonly<{
  source: string;
  carrier: Carrier;
  face: string;
  arrives: Carrier;
  /** Place names from source to face, both included. */
  via: readonly string[];
  hidden: boolean;
  hiddenBy: readonly HiddenBy[];
  /** Tags of the devices and bleeds on the route, in its order. */
  devices: readonly string[];
  bleeds: readonly string[];
  /**
   * What the route would bring, from the contents of the source item; null when the register does not say, and where it
   * only pushes or turns: nothing of the source arrives by a conversion.
   */
  brings: string | null;
  /** How likely it is to come: the best over all ways of the row, not that of the route shown. */
  tier: Tier;
  /** A way of that tier, in place names; null where the route shown is one. */
  likeliest: readonly string[] | null;
  /** The creditable device nearest the face that every way crosses; null where there is none. */
  lastLock: string | null;
}>;

export type TracedStored = Readonly<
  Omit<TracedSource, "hidden" | "hiddenBy"> & {
    regenerating: boolean;
    quantity: StoredQuantity | null;
    harmless: string;
  }
>;

export type Trace = Readonly<{
  format: "heavy-lantern/trace";
  version: 1;
  sources: readonly TracedSource[];
  stored: readonly TracedStored[];
  waysIn: readonly WayIn[];
  findings: readonly Finding[];
}>;

/**
 * Every energy that may reach the job's faces, with every device passing.
 *
 * The route shown has the fewest links; of equal ones the first by the code units of its place names. Where a plain and
 * a hidden route of the same row both exist, both rows are given. Rows are sorted by face, source, carrier, arrival.
 *
 * Cost: for each face and arriving carrier one search of what reaches it, and for each row the length of its route.
 */
export function trace(graph: StateGraph, job: Job, file = "job"): Read<Trace> {
  const faces = workFaces(graph, job, file);
  if (!faces.ok) return faces;
  return { ok: true, value: traceFaces(graph, faces.value), warnings: [] };
}

export function traceFaces(graph: StateGraph, faces: readonly WorkFace[]): Trace {
  const { feeding, stored } = sourcesOf(graph);
  const rows: { row: TracedSource; way: number[]; source: SourceVertex }[] = [];
  const storedRows: TracedStored[] = [];
  const plainGraph = withoutHiddenArcs(graph);
  const work = faceItems(faces);
  const lines = withoutConversions(graph);
  const nothingShut = new Uint8Array(graph.vertexCount);
  for (const face of faces) {
    const own = ownDriveOf(graph, face);
    for (const [arrives, targets] of faceVertices(graph, face)) {
      if (targets.every((target) => graph.in.first[target] === graph.in.first[target + 1] && !hasSource(target)))
        continue;
      const distance = barrierDistance(graph, targets, null);
      const reaching = feeding.filter((source) => distance.gates[source.vertex] !== UNREACHED);
      const plainDistance = reaching.length === 0 ? null : barrierDistance(plainGraph, targets, null);
      const twinOf = hiddenTwinsTo(graph, targets);
      const tiers = tiersTo(graph, targets, own);
      const lockOf = lastLockBefore(graph, targets, work);
      const unconverted = reached(lines, targets, nothingShut, "in");
      const describe = (source: SourceVertex, way: readonly number[]) =>
        described(graph, source, face, arrives, way, {
          brings: source.carrier === arrives && unconverted[source.vertex] === 1,
          tier: tiers.tierOf(source.vertex),
          likeliest: likeliestBut(way, tiers.wayOf(source.vertex)),
          lastLock: lockOf(source.vertex),
        });
      for (const source of reaching) {
        for (const way of waysOf(graph, plainGraph, source, targets, distance, plainDistance!, twinOf)) {
          const by = hiddenBy(graph, way);
          rows.push({
            way,
            source,
            row: { ...describe(source, way), hidden: by.length > 0, hiddenBy: by },
          });
        }
      }
      for (const source of stored) {
        const way = leastWay(graph, source.vertex, targets, null, distance);
        if (way === null) continue;
        const { stored: energy, regenerating } = source.source;
        storedRows.push({
          ...describe(source, way),
          regenerating,
          quantity: energy === undefined ? null : storedQuantity(energy),
          harmless: wayToMakeHarmless(energy),
        });
      }
    }
  }
  return {
    format: "heavy-lantern/trace",
    version: 1,
    sources: rows.map(({ row }) => row).sort(byRow),
    stored: storedRows.sort(byRow),
    waysIn: waysIn(graph, faces, feeding),
    findings: findingsOf(graph, faces, rows),
  };

  function hasSource(vertex: number): boolean {
    return feeding.some((s) => s.vertex === vertex) || stored.some((s) => s.vertex === vertex);
  }
}

/** The witness routes of one row: the shortest, and its plain or hidden twin where both exist. */
function waysOf(
  graph: StateGraph,
  plainGraph: StateGraph,
  source: SourceVertex,
  targets: readonly number[],
  distance: BarrierDistance,
  plainDistance: BarrierDistance,
  twinOf: (source: number) => number[] | null,
): number[][] {
  const shortest = leastWay(graph, source.vertex, targets, null, distance);
  if (shortest === null) throw new Error(`${placeName(graph, source.vertex)} was said to reach the face`);
  const plain = leastWay(plainGraph, source.vertex, targets, null, plainDistance);
  if (plain === null || hiddenBy(graph, plain).length > 0) return [shortest];
  // Of equal lengths the plain one leads: it is the one people expect, and the hidden twin follows it.
  if (distance.steps[source.vertex]! < plainDistance.steps[source.vertex]!) return [plain, shortest];
  const twin = hiddenBy(graph, shortest).length > 0 ? shortest : twinOf(source.vertex);
  return twin === null ? [plain] : [plain, twin];
}

const plainGraphs = new WeakMap<StateGraph, StateGraph>();

/** The same graph with only arcs along normal flow that convert nothing, and no control. Made once for each graph. */
function withoutHiddenArcs(graph: StateGraph): StateGraph {
  const known = plainGraphs.get(graph);
  if (known) return known;
  const plain = keepArcs(
    graph,
    (vertex, side, arc) => carrierOf(graph, vertex) !== "control" && side.type[arc] === ARC.plain,
  );
  plainGraphs.set(graph, plain);
  return plain;
}

const lineGraphs = new WeakMap<StateGraph, StateGraph>();

/** The same graph with lines only: what goes along them arrives as it was supplied. Made once for each graph. */
function withoutConversions(graph: StateGraph): StateGraph {
  const known = lineGraphs.get(graph) ?? keepArcs(graph, (_vertex, side, arc) => side.link[arc]! >= 0);
  lineGraphs.set(graph, known);
  return known;
}

type Ranked = Readonly<{ brings: boolean; tier: Tier; likeliest: number[] | null; lastLock: string | null }>;

function likeliestBut(shown: readonly number[], way: number[]): number[] | null {
  return way.join() === shown.join() ? null : way;
}

function described(
  graph: StateGraph,
  source: SourceVertex,
  face: WorkFace,
  arrives: Carrier,
  way: readonly number[],
  { brings, tier, likeliest, lastLock }: Ranked,
) {
  const crossed = [...new Set(way.map((vertex) => itemAt(graph, vertex)))];
  const contents = graph.plant.items[source.item]?.contents;
  return {
    source: placeName(graph, source.vertex),
    carrier: source.carrier,
    face: face.name,
    arrives,
    via: viaNames(graph, way),
    devices: crossed.filter((item) => item.device).map((item) => item.tag),
    bleeds: crossed.filter((item) => item.bleed).map((item) => item.tag),
    brings: brings && contents ? [contents.fluid, ...contents.hazards].join(", ") : null,
    tier,
    likeliest: likeliest && viaNames(graph, likeliest),
    lastLock,
  };
}

function byRow(a: Omit<TracedSource, "hidden" | "hiddenBy">, b: Omit<TracedSource, "hidden" | "hiddenBy">): number {
  for (const key of ["face", "source", "carrier", "arrives"] as const) {
    if (a[key] !== b[key]) return a[key] < b[key] ? -1 : 1;
  }
  return 0;
}
