import type { School } from "../request/jobFile";
import { graderOf, type Grader } from "../judge/grade";
import { barrierField, narrowed, type BarrierField, type Pair } from "../barrier/pairs";
import { gateOf } from "../judge/positiveGate";
import type { Demand, RequiredPair } from "../judge/requirePairs";
import type { FaceWays } from "../judge/standing";
import { NO_WAY, unprovedWalk } from "../judge/ways";
import { barrierDepths } from "../barrier/barrierDepth";
import { choosePoints } from "../cut/choosePoints";
import { sourcesOf } from "../trace/sources";
import { carrierOf, placeName, placeOf, vertexOf } from "../trace/stateGraph";
import type { WorkFace } from "../trace/workFaces";
import { drainsAtMost } from "../judge/drains";

/** Judgements that repairing one plan may cost. */
const MOST_JUDGED = 24;
/** Rounds of adding points; more have found nothing further on any plant tried. */
const ROUNDS = 6;

export type Repaired = Readonly<{ added: ReadonlySet<number>; isolated: ReadonlySet<number>; unheld: number }>;

type Unheld = Readonly<{ pair: RequiredPair; demand: Demand }>;

export function unheldOf(pairs: readonly RequiredPair[], grader: Grader): Unheld[] {
  return pairs.flatMap((pair) =>
    pair.demands.flatMap((demand) => (grader.judge(pair, demand).held ? [] : [{ pair, demand }])),
  );
}

/**
 * Adds points so that more ways are proved: it darkens spaces that another energy keeps live, isolates a device on either
 * side of a place that drains, and cuts off what does not drain from the face. Judged after each round; what did not help
 * is taken back. Greedy, so the plan is then not proved cheapest.
 *
 * Cost: at most MOST_JUDGED judgements, and a cut for each round.
 */
export function repair(
  field: BarrierField,
  pairs: readonly RequiredPair[],
  chosen: ReadonlySet<number>,
  costOf: (item: number) => number,
  school: School,
): Repaired {
  let judged = 0;
  const judge = (isolated: ReadonlySet<number>) => {
    judged++;
    const grader = graderOf(field, pairs, isolated);
    return { grader, unheld: unheldOf(pairs, grader) };
  };
  let isolated = new Set(chosen);
  let now = judge(isolated);
  const before = now.unheld.length;
  let best = { isolated: new Set(isolated), unheld: before };
  for (let round = 0; round < ROUNDS && now.unheld.length > 0 && judged < MOST_JUDGED / 2; round++) {
    const more = new Set([...wanted(field, now.unheld, now.grader, costOf, isolated)]);
    const live = liveOn(field, now.unheld, now.grader);
    for (const item of darken(field, live, isolated, costOf, school)) more.add(item);
    const trial = new Set([...isolated, ...more]);
    if (trial.size === isolated.size) break;
    isolated = trial;
    now = judge(isolated);
    if (now.unheld.length < best.unheld) best = { isolated: new Set(isolated), unheld: now.unheld.length };
  }
  if (best.unheld === before) return { added: new Set(), isolated: chosen, unheld: before };
  const added = new Set([...best.isolated].filter((item) => !chosen.has(item)));
  isolated = new Set(best.isolated);
  for (const item of [...added].sort((a, b) => costOf(b) - costOf(a) || a - b)) {
    if (judged >= MOST_JUDGED) break;
    isolated.delete(item);
    if (judge(isolated).unheld.length > best.unheld) isolated.add(item);
    else added.delete(item);
  }
  return { added, isolated, unheld: best.unheld };
}

function waysOf({ graph }: BarrierField, { standing }: Grader, { pair, demand }: Unheld): FaceWays[] {
  const ask = { scope: demand.scope, gate: gateOf(demand, pair), source: pair.source };
  return pair.face.places
    .map((place) => vertexOf(graph, place, demand.arrives))
    .filter((vertex) => vertex >= 0)
    .map((face) => standing.ways({ ...ask, face }))
    .filter(({ ways }) => ways.crossed[pair.source.vertex] !== NO_WAY);
}

/** Devices that would put a drained place between two barriers, or what does not drain behind one. */
function wanted(
  field: BarrierField,
  unheld: readonly Unheld[],
  grader: Grader,
  costOf: (item: number) => number,
  isolated: ReadonlySet<number>,
): Set<number> {
  const { graph } = field;
  const found = new Set<number>();
  const everywhere = drainsAtMost(field);
  const itemOf = (vertex: number) => graph.places.itemOf[placeOf(graph, vertex)]!;
  const isDevice = (vertex: number) => {
    const device = graph.plant.items[itemOf(vertex)]!.device;
    return (
      device !== undefined && field.creditable.has(itemOf(vertex)) && device.stops.includes(carrierOf(graph, vertex))
    );
  };
  const price = (item: number) => (isolated.has(item) || found.has(item) ? 0 : costOf(item));
  for (const one of unheld) {
    if (one.demand.family !== "flow") continue;
    for (const at of waysOf(field, grader, one)) {
      const walk = unprovedWalk(at.ways, one.pair.source.vertex);
      const own = one.pair.source.item;
      if (one.demand.grade === "proved double") {
        const pair = cheapestSpace(walk.slice(0, -1), own, {
          isDevice,
          itemOf,
          price,
          drains: everywhere.isDrained,
        });
        for (const item of pair ?? []) found.add(item);
      } else {
        // What does not drain is kept from the face by the last device behind it.
        const nearest = walk.slice(1, -1).findLast((vertex) => isDevice(vertex) && itemOf(vertex) !== own);
        if (nearest !== undefined) found.add(itemOf(nearest));
      }
    }
  }
  return found;
}

type Walk = Readonly<{
  isDevice: (vertex: number) => boolean;
  itemOf: (vertex: number) => number;
  price: (item: number) => number;
  drains: (vertex: number) => boolean;
}>;

/** Of two devices on a walk with nothing but drained places between, at least one, the cheapest pair. */
function cheapestSpace(walk: readonly number[], own: number, p: Walk): readonly [number, number] | null {
  let best: readonly [number, number] | null = null;
  let least = Infinity;
  for (let i = 0; i < walk.length; i++) {
    if (!p.isDevice(walk[i]!) || p.itemOf(walk[i]!) === own) continue;
    for (let j = i + 1; j < walk.length; j++) {
      const between = walk.slice(i + 1, j);
      if (between.some((vertex) => !p.drains(vertex))) break;
      if (between.length === 0 || !p.isDevice(walk[j]!) || p.itemOf(walk[j]!) === own) continue;
      // Nothing isolated stands in between, or the space is another.
      if (between.some((vertex) => p.isDevice(vertex) && p.price(p.itemOf(vertex)) === 0)) continue;
      const price = p.price(p.itemOf(walk[i]!)) + p.price(p.itemOf(walk[j]!));
      if (price < least && p.itemOf(walk[i]!) !== p.itemOf(walk[j]!)) {
        least = price;
        best = [p.itemOf(walk[i]!), p.itemOf(walk[j]!)];
      }
    }
  }
  return best;
}

/** Live places that keep a way from being proved: between barriers of it, or in its work zone. */
function liveOn(field: BarrierField, unheld: readonly Unheld[], grader: Grader): WorkFace[] {
  const { graph } = field;
  const { lit } = grader.standing;
  const faces = new Map<string, WorkFace>();
  const add = (vertex: number) => {
    const name = `${placeName(graph, vertex)} ${carrierOf(graph, vertex)}`;
    faces.set(name, {
      name,
      how: [],
      items: [],
      places: [placeOf(graph, vertex)],
      carriers: [carrierOf(graph, vertex)],
      narrowedWithoutReason: false,
    });
  };
  for (const one of unheld) {
    if (one.demand.family !== "flow") continue;
    for (const at of waysOf(field, grader, one)) {
      const walk = unprovedWalk(at.ways, one.pair.source.vertex);
      const crossings = walk.flatMap((vertex, i) => (at.positions.gates[vertex] === 1 && i > 0 ? [i] : []));
      const [first, last] = [crossings[0], crossings.at(-1)];
      if (one.demand.grade === "proved double" && first !== undefined && last !== undefined) {
        for (const vertex of walk.slice(first, last)) {
          if (lit[vertex] === 1 && at.positions.gates[vertex] === 0) add(vertex);
        }
      } else if (one.demand.grade === "proved single") {
        const zone = at.zone();
        for (const vertex of [at.face, ...zone.spoilt]) if (lit[vertex] === 1) add(vertex);
      }
    }
  }
  return [...faces.values()];
}

/** The cheapest further devices that put one barrier between these places and every feeding source. */
function darken(
  field: BarrierField,
  faces: readonly WorkFace[],
  isolated: ReadonlySet<number>,
  costOf: (item: number) => number,
  school: School,
): ReadonlySet<number> {
  if (faces.length === 0) return new Set();
  const own = narrowed(barrierField(field.graph, faces), (item) => field.creditable.has(item));
  const { feeding } = sourcesOf(field.graph);
  const pairs = faces.flatMap((face) => {
    const depths = barrierDepths(own, face, feeding, own.creditable, { enough: 1 });
    return [...depths].map(([source, { depth }]): Pair => ({
      source,
      face,
      required: 1,
      available: depth,
      k: Math.min(1, depth),
    }));
  });
  return choosePoints(own, pairs, (item) => (isolated.has(item) ? 0 : costOf(item)), school).devices;
}
