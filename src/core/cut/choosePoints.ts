import type { School } from "../request/jobFile";
import { cheapestCover, strongest, type WayConstraint } from "./coverSearch";
import { onceFor } from "../onceFor";
import { reached } from "../trace/barrierDistance";
import type { StateGraph } from "../trace/stateGraph";
import type { WorkFace } from "../trace/workFaces";
import type { BarrierField, Pair } from "../barrier/pairs";
import { relaxedCut, type LayerAt, type RelaxedCut } from "./relaxedCut";
import { requirementOffsets } from "./requirementOffsets";
import type { Effort } from "../barrier/barrierDepth";
import { violations, type Violation } from "../barrier/violations";

export type Chosen = Readonly<{
  devices: ReadonlySet<number>;
  cost_hundredths: number;
  /** True when no cheaper set holds the requirement, and this is proved. */
  exact: boolean;
  bound_hundredths: number;
  layerAt: LayerAt;
}>;

/** Search nodes that may be spent on proving one plan, and rounds of finding ways that a trial set leaves short. */
const SEARCH_NODES = 20_000;
const SEARCH_ROUNDS = 300;
/**
 * Vertices and labels that one choice may cost, some seconds: a budget of work, not of time, so that the same plant has the
 * same plan on every machine. What is left of it when a stage begins is that stage's.
 */
const MOST_EFFORT = 300_000_000;

/**
 * The cheapest set of devices that gives every pair its k barriers.
 *
 * First by flow: exact when each device stops one carrier between sources and faces, nothing shares a cause, and k
 * depends on the ends apart. Otherwise the flow is a lower bound; its set is completed where it falls short and thinned
 * where it has too much, and a search over the ways themselves tries to prove a best one: it takes the cheapest set that
 * breaks every way found so far, looks for a way left short, and goes on until there is none. What it cannot prove in
 * its budget is said: exact is false and `bound_hundredths` holds.
 */
export function choosePoints(
  field: BarrierField,
  pairs: readonly Pair[],
  costOf: (item: number) => number,
  school: School,
): Chosen {
  const asking = pairs.filter((pair) => pair.k > 0);
  if (asking.length === 0) {
    return { devices: new Set(), cost_hundredths: 0, exact: true, bound_hundredths: 0, layerAt: () => undefined };
  }
  const guess = flowGuess(field, withUnlisted(field, pairs), costOf, school);
  const effort: Effort = { left: MOST_EFFORT };
  const short = violations(field, pairs, guess.devices, effort);
  if (short.length === 0 && sum(guess.devices, costOf) === guess.bound_hundredths) {
    // Points that cost nothing can be too many where the flow is only a bound.
    const devices = guess.proved ? guess.devices : thin(field, pairs, costOf, new Set(guess.devices), effort);
    return { ...guess, devices, cost_hundredths: guess.bound_hundredths, exact: true };
  }

  const completed = thin(field, pairs, costOf, complete(field, pairs, costOf, guess.devices, effort), effort);
  const proved = searchOverWays(field, pairs, costOf, guess.bound_hundredths, effort);
  const devices = proved.devices ?? completed;
  const cost_hundredths = sum(devices, costOf);
  const bound_hundredths = proved.devices ? cost_hundredths : Math.max(proved.bound_hundredths, guess.bound_hundredths);
  return {
    devices,
    cost_hundredths,
    exact: cost_hundredths === bound_hundredths,
    bound_hundredths,
    layerAt: guess.layerAt,
  };
}

/**
 * The pairs, and those that nobody listed because nothing is asked of them: a source that asks at one face may reach
 * another where it asks nothing or cannot be held, and one flow over both must not ask it there.
 *
 * Cost: a search for each face, the first time.
 */
function withUnlisted(field: BarrierField, pairs: readonly Pair[]): Pair[] {
  const asking = pairs.filter((pair) => pair.k > 0);
  const sources = new Map(asking.map(({ source }) => [source.vertex, source]));
  const faces = new Set(asking.map(({ face }) => face));
  if (faces.size < 2) return [...pairs];
  const listed = new Set(pairs.map(({ source, face }) => `${source.vertex} ${face.name}`));
  const unlisted = [...faces].flatMap((face) => {
    const reaches = mayReach(field, face);
    return [...sources.values()]
      .filter(({ vertex }) => reaches[vertex] === 1 && !listed.has(`${vertex} ${face.name}`))
      .map((source): Pair => ({ source, face, required: 0, available: 0, k: 0 }));
  });
  return [...pairs, ...unlisted];
}

/** 1 at every vertex from which the face may be reached. Made once for each graph and face. */
function mayReach(field: BarrierField, face: WorkFace): Uint8Array {
  const known = reachOn(field.graph);
  const found =
    known.get(face) ?? reached(field.graph, field.targetsOf.get(face)!, new Uint8Array(field.graph.vertexCount), "in");
  known.set(face, found);
  return found;
}

const reachOn = onceFor((_: StateGraph) => new WeakMap<WorkFace, Uint8Array>());

/** One flow where the requirement has the form for it; else a flow for each face, united, and the dearest as bound. */
function flowGuess(
  field: BarrierField,
  pairs: readonly Pair[],
  costOf: (item: number) => number,
  school: School,
): RelaxedCut {
  const offsets = requirementOffsets(pairs);
  if (offsets) return relaxedCut(field, pairs, offsets, costOf, school);
  const devices = new Set<number>();
  const layersAt: LayerAt[] = [];
  let bound_hundredths = 0;
  for (const face of field.faces) {
    const ofFace = pairs.filter((pair) => pair.face === face && pair.k > 0);
    if (ofFace.length === 0) continue;
    const own = requirementOffsets(ofFace);
    if (own === null) throw new Error(`one face always has offsets, ${face.name} has not`);
    const cut = relaxedCut(field, ofFace, own, costOf, school);
    for (const device of cut.devices) devices.add(device);
    layersAt.push(cut.layerAt);
    bound_hundredths = Math.max(bound_hundredths, cut.bound_hundredths);
  }
  return { devices, bound_hundredths, layerAt: firstOf(layersAt.reverse()), proved: false };
}

/** The first that knows of a device. */
export function firstOf(layersAt: readonly LayerAt[]): LayerAt {
  return (item) => {
    for (const layerAt of layersAt) {
      const layer = layerAt(item);
      if (layer !== undefined) return layer;
    }
    return undefined;
  };
}

/**
 * Adds the cheapest devices on ways left short until none is. With all that can be isolated it holds, as far as that was
 * looked at: that is taken where the effort is spent, or where it is not sure that a way holds which has all it could have.
 */
function complete(
  field: BarrierField,
  pairs: readonly Pair[],
  costOf: (item: number) => number,
  start: ReadonlySet<number>,
  effort: Effort,
): Set<number> {
  const devices = new Set(start);
  for (;;) {
    const short = violations(field, pairs, devices, effort);
    if (short.length === 0) return devices;
    if (effort.left <= 0) return new Set(field.creditable);
    for (const { units, pair, isLeast } of short) {
      const missing = [...units.values()]
        .filter((unit) => !unit.some((device) => devices.has(device)))
        .map((unit) => unit.reduce((cheap, device) => (costOf(device) < costOf(cheap) ? device : cheap)))
        .sort((a, b) => costOf(a) - costOf(b) || a - b);
      const [cheapest] = missing;
      if (cheapest === undefined && isLeast) return new Set(field.creditable);
      if (cheapest === undefined) {
        throw new Error(`${pair.face.name} was promised ${pair.k} barriers and has too few devices`);
      }
      devices.add(cheapest);
    }
  }
}

/** Drops points that are not needed, dearest first, while there is effort left to see whether they are. */
function thin(
  field: BarrierField,
  pairs: readonly Pair[],
  costOf: (item: number) => number,
  devices: Set<number>,
  effort: Effort,
): Set<number> {
  for (const device of [...devices].sort((a, b) => costOf(b) - costOf(a) || a - b)) {
    if (effort.left <= 0) break;
    devices.delete(device);
    if (violations(field, pairs, devices, effort).length > 0) devices.add(device);
  }
  return devices;
}

function searchOverWays(
  field: BarrierField,
  pairs: readonly Pair[],
  costOf: (item: number) => number,
  bound: number,
  effort: Effort,
): { devices: Set<number> | null; bound_hundredths: number } {
  // Equal cost prefers fewer points here too.
  const weight = field.creditable.size + 1;
  const weighted = (item: number) => costOf(item) * weight + 1;
  const budget = { nodes: SEARCH_NODES };
  let constraints: readonly WayConstraint[] = [];
  let bound_hundredths = bound;
  for (let round = 0; round < SEARCH_ROUNDS; round++) {
    const cover = cheapestCover(constraints, weighted, budget);
    bound_hundredths = Math.max(bound_hundredths, Math.floor(cover.bound / weight));
    if (cover.devices === null) return { devices: null, bound_hundredths };
    const short = violations(field, pairs, cover.devices, effort);
    if (short.length === 0) return { devices: new Set(cover.devices), bound_hundredths };
    // Not sure to hold, and no way can be shown that does not: nothing more can be asked of the search.
    const isUnclear = short.some(({ units, pair, isLeast }) => isLeast && hit(units, cover.devices!) >= pair.k);
    if (isUnclear || effort.left <= 0) return { devices: null, bound_hundredths };
    const more = short.map(({ units, pair }): WayConstraint => ({ units: [...units.values()], atLeast: pair.k }));
    constraints = strongest([...constraints, ...more]);
  }
  return { devices: null, bound_hundredths };
}

/** How many units of a way are isolated. */
function hit(units: Violation["units"], devices: ReadonlySet<number>): number {
  return [...units.values()].filter((unit) => unit.some((device) => devices.has(device))).length;
}

function sum(devices: Iterable<number>, costOf: (item: number) => number): number {
  let total = 0;
  for (const device of devices) total += costOf(device);
  return total;
}
