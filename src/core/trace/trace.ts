import type { Job } from "../request/jobFile";
import type { Carrier } from "../plant/carriers";
import { storedQuantity, wayToMakeHarmless, type StoredQuantity } from "../energy/storedEnergy";
import type { Read } from "../plant/problem";
import { barrierDistance, leastWay, reached, viaNames, UNREACHED, type BarrierDistance } from "./barrierDistance";
import { later, onceFor } from "../onceFor";
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
 * a hidden route of the same row both exist, both rows are given. Rows are sorted by face, source, carrier, arrival. Each
 * list is made when it is first read.
 *
 * Cost: for each face and arriving carrier one search of what reaches it, and for each row the length of its route.
 */
export function trace(graph: StateGraph, job: Job, file = "job"): Read<Trace> {
  const faces = workFaces(graph, job, file);
  if (!faces.ok) return faces;
  return { ok: true, value: traceFaces(graph, faces.value), warnings: [] };
}

export function traceFaces(graph: StateGraph, faces: readonly WorkFace[]): Trace {
  const arrivals = later(() => arrivalsOf(graph, faces));
  const rows = later(() =>
    arrivals().feeding.flatMap((one) => one.routes().map((route) => ({ ...route, source: one.source }))),
  );
  const sources = later(() =>
    rows()
      .map(({ row }) => row)
      .sort(byRow),
  );
  const stored = later(() => arrivals().stored.map(storedRow).sort(byRow));
  const ways = later(() => waysIn(graph, faces, sourcesOf(graph).feeding));
  const findings = later(() => findingsOf(graph, faces, rows()));
  return {
    format: "heavy-lantern/trace",
    version: 1,
    get sources() {
      return sources();
    },
    get stored() {
      return stored();
    },
    get waysIn() {
      return ways();
    },
    get findings() {
      return findings();
    },
  };
}

/** That a source reaches a face in one form; by which ways, and how likely, is worked out when asked for. */
export type Arrival = Readonly<{
  source: SourceVertex;
  face: string;
  arrives: Carrier;
  readonly tier: Tier;
  /** The shortest way, and its plain or hidden twin where both exist. Cost: their lengths. */
  routes: () => readonly Readonly<{ way: number[]; row: TracedSource }>[];
}>;

/**
 * What reaches the faces, without the ways. Cost: a search for each face and arriving carrier; then, once for each of these and
 * when something is first asked of it, one for its tiers, its plain ways, its locks.
 */
export function arrivalsOf(
  graph: StateGraph,
  faces: readonly WorkFace[],
): Readonly<{ feeding: readonly Arrival[]; stored: readonly Arrival[] }> {
  const { feeding, stored } = sourcesOf(graph);
  const hasSource = new Set([...feeding, ...stored].map(({ vertex }) => vertex));
  const work = faceItems(faces);
  const found: { feeding: Arrival[]; stored: Arrival[] } = { feeding: [], stored: [] };
  for (const face of faces) {
    const own = later(() => ownDriveOf(graph, face));
    for (const [arrives, targets] of faceVertices(graph, face)) {
      const isReached = (target: number) =>
        graph.in.first[target]! < graph.in.first[target + 1]! || hasSource.has(target);
      if (!targets.some(isReached)) continue;
      const distance = barrierDistance(graph, targets, null);
      const plainGraph = later(() => withoutHiddenArcs(graph));
      const plainDistance = later(() => barrierDistance(plainGraph(), targets, null));
      const twinOf = hiddenTwinsTo(graph, targets);
      const tiers = later(() => tiersTo(graph, targets, own()));
      const lockOf = later(() => lastLockBefore(graph, targets, work));
      const unconverted = later(() =>
        reached(withoutConversions(graph), targets, new Uint8Array(graph.vertexCount), "in"),
      );
      const describe = (source: SourceVertex, way: readonly number[]) =>
        described(graph, source, face, arrives, way, {
          brings: () => source.carrier === arrives && unconverted()[source.vertex] === 1,
          tier: () => tiers().tierOf(source.vertex),
          likeliest: () => likeliestBut(way, tiers().wayOf(source.vertex)),
          lastLock: () => lockOf()(source.vertex),
        });
      const arrival = (source: SourceVertex, ways: () => readonly number[][]): Arrival => ({
        source,
        face: face.name,
        arrives,
        get tier() {
          return tiers().tierOf(source.vertex);
        },
        routes: later(() =>
          ways().map((way) => {
            const by = hiddenBy(graph, way);
            return { way, row: Object.assign(describe(source, way), { hidden: by.length > 0, hiddenBy: by }) };
          }),
        ),
      });
      for (const source of feeding) {
        if (distance.gates[source.vertex] === UNREACHED) continue;
        const ways = () => waysOf(graph, plainGraph(), source, targets, distance, plainDistance(), twinOf);
        found.feeding.push(arrival(source, ways));
      }
      for (const source of stored) {
        if (distance.gates[source.vertex] === UNREACHED) continue;
        found.stored.push(arrival(source, () => [leastWay(graph, source.vertex, targets, null, distance)!]));
      }
    }
  }
  return found;
}

function storedRow({ source, routes }: Arrival): TracedStored {
  const { hidden: _, hiddenBy: __, ...row } = routes()[0]!.row;
  const { stored: energy, regenerating } = source.source;
  return {
    ...row,
    regenerating,
    quantity: energy === undefined ? null : storedQuantity(energy),
    harmless: wayToMakeHarmless(energy),
  };
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

/** The same graph with only arcs along normal flow that convert nothing, and no control. Made once for each graph. */
const withoutHiddenArcs = onceFor((graph: StateGraph) =>
  keepArcs(graph, (vertex, side, arc) => carrierOf(graph, vertex) !== "control" && side.type[arc] === ARC.plain),
);

/** The same graph with lines only: what goes along them arrives as it was supplied. Made once for each graph. */
const withoutConversions = onceFor((graph: StateGraph) =>
  keepArcs(graph, (_vertex, side, arc) => side.link[arc]! >= 0),
);

/** What takes a search of its own, worked out when it is read. */
type Ranked = Readonly<{
  brings: () => boolean;
  tier: () => Tier;
  likeliest: () => number[] | null;
  lastLock: () => string | null;
}>;

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
    get brings() {
      return contents && brings() ? [contents.fluid, ...contents.hazards].join(", ") : null;
    },
    get tier() {
      return tier();
    },
    get likeliest() {
      const found = likeliest();
      return found && viaNames(graph, found);
    },
    get lastLock() {
      return lastLock();
    },
  };
}

function byRow(a: Omit<TracedSource, "hidden" | "hiddenBy">, b: Omit<TracedSource, "hidden" | "hiddenBy">): number {
  for (const key of ["face", "source", "carrier", "arrives"] as const) {
    if (a[key] !== b[key]) return a[key] < b[key] ? -1 : 1;
  }
  return 0;
}
