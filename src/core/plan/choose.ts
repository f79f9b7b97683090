import type { Job, Objective, School } from "../request/jobFile";
import type { Problem, Read } from "../plant/problem";
import { profileOf } from "../requirement/profiles";
import type { RuleProfile } from "../requirement/profile";
import { sourcesOf } from "../trace/sources";
import type { StateGraph } from "../trace/stateGraph";
import { traceFaces, type Trace } from "../trace/trace";
import { faceItems, workFaces, type WorkFace } from "../trace/workFaces";
import { choosePoints, firstOf, type Chosen as ChosenPoints } from "../cut/choosePoints";
import type { LayerAt } from "../cut/relaxedCut";
import { priceOf } from "../cut/costs";
import { barrierDepths } from "../barrier/barrierDepth";
import { classFor, DEVICE_CLASSES, ofClass, type DeviceClass } from "../barrier/countsFor";
import { graderOf } from "../judge/grade";
import { impossibleOn, type Impossible } from "../judge/impossible";
import { barrierField, faceByCarrier, facing, narrowed, type BarrierField, type Pair } from "../barrier/pairs";
import { limitsLost } from "../losses/limitsLost";
import {
  openingOf,
  openingPoints,
  openingRepair,
  openingShortOf,
  type Opening,
  type OpeningShort,
} from "./openingStage";
import { positiveStage, type PositiveDemand, type PositiveStage } from "./positiveStage";
import { repair, unheldOf } from "./repair";
import { SEARCHED_WHOLE, searchAll } from "./searchAll";
import { requirePairs, scoped, type RequiredPair, type Scope } from "../judge/requirePairs";

/** How a device came into a plan. */
export type Because = "computed" | "pinned" | "positive" | "to fit the blinds" | "to prove the space between";

/** Pairs to be held over one field: contents where they flow, pushes by every way. */
type Ask = Readonly<{ field: BarrierField; pairs: readonly Pair[] }>;

/** The devices of a plan, before anything is said about them. */
export type Chosen = Readonly<{
  field: BarrierField;
  pairs: readonly RequiredPair[];
  /** What the cuts had to hold: by face under a job's own numbers, else by face, form of arrival and scope. */
  asks: readonly Ask[];
  devices: ReadonlySet<number>;
  because: ReadonlyMap<number, Because>;
  layerAt: LayerAt;
  cost_hundredths: number;
  bound_hundredths: number;
  exact: boolean;
  openingShort: readonly OpeningShort[];
  /** Says of what is not held whether any choice of points could hold it. */
  impossible: Impossible;
  openingImpossible: Impossible;
  profile: RuleProfile;
}>;

/** What is so of a job whatever is minimised: its faces, what reaches them, what is asked between. */
export type Prepared = Readonly<{
  graph: StateGraph;
  job: Job;
  field: BarrierField;
  pairs: readonly RequiredPair[];
  pinned: ReadonlySet<number>;
  profile: RuleProfile;
  traced: Trace;
}>;

/** Cost: see requirePairs. */
export function prepare(graph: StateGraph, job: Job, file: string): Read<Prepared> {
  const faces = workFaces(graph, job, file);
  if (!faces.ok) return faces;
  const named = namedDevices(graph, job, file);
  if (!named.ok) return named;
  const { pinned, struck, passing } = named.value;
  const profile = profileOf(job.profile);
  const field = barrierField(graph, faces.value, struck, passing);
  const pairs = requirePairs(field, job, profile);
  const traced = traceFaces(graph, faces.value);
  return { ok: true, warnings: [], value: { graph, job, field, pairs, pinned, profile, traced } };
}

/**
 * Which devices, under an objective and a school; nothing said about them yet. Where they cut a relief on which a limit of the
 * register stands, they are chosen again without that limit, and again without what cuts it: the better of the two holds.
 */
export function chooseFor(prepared: Prepared, objective: Objective, school: School): Chosen {
  const { graph, field, pinned } = prepared;
  const chosen = chooseOn(prepared, objective, school);
  const lost = limitsLost(graph, chosen.devices);
  if ([...lost].every((item) => field.limitsLost.has(item))) return chosen;
  const without = chooseFor(onField(prepared, withoutLimits(prepared, lost)), objective, school);
  const cutters = new Set(
    [...chosen.devices].filter((item) => !pinned.has(item) && limitsLost(graph, [item]).size > 0),
  );
  if (cutters.size === 0) return without;
  const beside = chooseFor(
    onField(
      prepared,
      narrowed(field, (item) => !cutters.has(item)),
    ),
    objective,
    school,
  );
  const [a, b] = [shortOf(beside), shortOf(without)];
  return a < b || (a === b && beside.cost_hundredths <= without.cost_hundredths) ? beside : without;
}

function withoutLimits({ graph, field, job }: Prepared, lost: ReadonlySet<number>): BarrierField {
  const passing = new Set(job.mustPass.map((tag) => graph.itemByTag.get(tag)!));
  const made = barrierField(graph, field.faces, field.struck, passing, new Set([...field.limitsLost, ...lost]));
  return { ...made, creditable: new Set([...made.creditable].filter((item) => field.creditable.has(item))) };
}

/** The same job over another field: what is asked is worked out anew, for less may be available. */
function onField(prepared: Prepared, field: BarrierField): Prepared {
  return { ...prepared, field, pairs: requirePairs(field, prepared.job, prepared.profile) };
}

/** Ways of a choice that are not held, and flanges that cannot be opened. */
function shortOf({ field, pairs, devices, openingShort }: Chosen): number {
  const grader = graderOf(field, pairs, devices);
  const isShort = (pair: RequiredPair) =>
    pair.demands.some((demand) => {
      const { held, depth } = grader.judge(pair, demand);
      return !held || depth < demand.barriers;
    });
  return pairs.filter(isShort).length + openingShort.length;
}

function chooseOn(prepared: Prepared, objective: Objective, school: School): Chosen {
  const { field, pairs, pinned, profile } = prepared;
  const job = { ...prepared.job, objective, school };
  const atWork = faceItems(field.faces);
  const price = priceOf(field, job.objective, job.school, atWork);

  const positive = positiveStage(field, pairs, price, job.school);
  const opening = openingOf(field, positive.devices, job, profile);
  const toFit = opening ? openingPoints(opening, price, job.school) : new Set<number>();
  const because = new Map<number, Because>();
  for (const item of toFit) because.set(item, "to fit the blinds");
  for (const item of positive.devices) because.set(item, "positive");
  for (const item of pinned) because.set(item, "pinned");

  const asks = job.require ? [{ field, pairs }] : asksByArrival(field, pairs, positive.demands);
  const chosen = chooseAll(asks, (item) => (because.has(item) ? 0 : price(item)), job.school);
  const cut = new Set([...because.keys(), ...chosen.devices]);
  const judged = job.require ? cut : proved({ field, pairs, job, profile, pinned, price, cut, positive, opening });
  const given = [...because.keys()].filter((item) => judged.has(item));
  for (const item of judged) {
    if (cut.has(item)) continue;
    because.set(item, field.graph.plant.items[item]!.device!.positive ? "positive" : "to prove the space between");
  }
  const isRepaired = judged.size !== cut.size || [...judged].some((item) => !cut.has(item));
  const stands = opening && openingOf(field, judged, job, profile);
  const cost_hundredths = [...judged].reduce((sum, item) => sum + price(item), 0);
  return {
    field,
    pairs,
    asks,
    devices: judged,
    because,
    layerAt: chosen.layerAt,
    cost_hundredths,
    bound_hundredths: Math.min(
      cost_hundredths,
      isRepaired ? chosen.bound_hundredths : given.reduce((sum, item) => sum + price(item), chosen.bound_hundredths),
    ),
    exact: chosen.exact && positive.devices.size === 0 && !isRepaired,
    openingShort: stands ? openingShortOf(stands, judged) : [],
    ...impossibility(field, positive, stands),
    profile,
  };
}

/**
 * The points that were cut, with more where that lets more ways be proved, the opening of the flanges among them. On a
 * plant with few devices every set is tried before anything that might be held is left unheld.
 */
function proved(
  p: Readonly<{
    field: BarrierField;
    pairs: readonly RequiredPair[];
    job: Job;
    profile: RuleProfile;
    pinned: ReadonlySet<number>;
    price: (item: number) => number;
    cut: ReadonlySet<number>;
    positive: PositiveStage;
    opening: Opening | null;
  }>,
): ReadonlySet<number> {
  const { field, pairs, job, profile, pinned, price, cut, positive, opening } = p;
  const repaired = repair(field, pairs, cut, price, job.school);
  const more = opening ? openingRepair(opening, repaired.isolated, price, job.school) : new Set<number>();
  const isolated = new Set([...repaired.isolated, ...more]);
  const { impossible, openingImpossible } = impossibility(field, positive, opening);
  const unheldWith = (set: ReadonlySet<number>): number => {
    const main = unheldOf(pairs, graderOf(field, pairs, set)).filter(
      ({ pair, demand }) => !impossible(pair, demand),
    ).length;
    const stands = openingOf(field, set, job, profile);
    if (stands === null) return main;
    const short = openingShortOf(stands, set);
    return main + short.filter(({ pair, demand }) => !openingImpossible(pair, demand)).length;
  };
  const unheld = unheldWith(isolated);
  if (unheld === 0 || field.creditable.size > SEARCHED_WHOLE) return isolated;
  return searchAll(field.creditable, { pinned, costOf: price, unheldWith, start: { isolated, unheld } });
}

function impossibility(
  field: BarrierField,
  positive: PositiveStage,
  opening: Opening | null,
): Readonly<{ impossible: Impossible; openingImpossible: Impossible }> {
  const possible = new Set(positive.demands.filter((one) => one.possible).map(({ demand }) => demand));
  return {
    impossible: impossibleOn(field, (_, demand) => possible.has(demand)),
    openingImpossible: opening ? impossibleOn(opening.field, () => false) : () => false,
  };
}

/**
 * What must be cut, by form of arrival and by what can give the grade: two barriers against oil that comes as oil do not
 * ask two against the motor that the oil could turn, and where a locked isolating device is asked a switch does not do.
 * What positive devices hold needs no more; where there are none, the most barriers that exist, up to two against what
 * flows, stand in for them. Where no device of the right class stands on a way, the best of the others does.
 */
function asksByArrival(
  field: BarrierField,
  pairs: readonly RequiredPair[],
  positive: readonly PositiveDemand[],
): Ask[] {
  const impossible = new Set(positive.filter(({ possible }) => !possible).map(({ demand }) => demand));
  const faces = new Map<string, WorkFace>();
  const reach = depthsOfClass(field);
  const groups = new Map<string, { scope: Scope; kind: DeviceClass; pairs: Pair[] }>();
  for (const pair of pairs) {
    for (const demand of pair.demands) {
      const standIn = demand.family === "flow" ? 2 : 1;
      const required = demand.positive ? (impossible.has(demand) ? standIn : 0) : demand.barriers;
      const own = faceByCarrier(pair.face, demand.arrives);
      const face = faces.get(own.name) ?? own;
      faces.set(own.name, face);
      const kind = DEVICE_CLASSES.slice(0, DEVICE_CLASSES.indexOf(classFor(demand.grade)) + 1).findLast(
        (one) => required === 0 || one === "any" || reach(one, demand.scope, face, pair) > 0,
      )!;
      const key = `${demand.scope} ${kind}`;
      const group = groups.get(key) ?? { scope: demand.scope, kind, pairs: [] };
      groups.set(key, group);
      const available = kind === "any" ? demand.available : Math.min(1, demand.available);
      group.pairs.push({ source: pair.source, face, required, available, k: Math.min(required, available) });
    }
  }
  const met = facing(field, [...faces.values()]);
  const asks = [...groups.values()].map(({ scope, kind, pairs }): Ask => ({
    field: scoped(ofClass(met, kind), scope),
    pairs,
  }));
  return asks.length > 0 ? asks : [{ field, pairs: [] }];
}

/** Barriers of a class that there are between a source and a face; each search is made once. */
function depthsOfClass(field: BarrierField) {
  const known = new Map<string, ReturnType<typeof barrierDepths>>();
  const { feeding } = sourcesOf(field.graph);
  return (kind: DeviceClass, scope: Scope, face: WorkFace, { source }: RequiredPair): number => {
    const key = `${kind} ${scope} ${face.name}`;
    if (!known.has(key)) {
      const own = scoped(ofClass(field, kind), scope);
      known.set(key, barrierDepths(facing(own, [face]), face, feeding, own.creditable, { enough: 1 }));
    }
    return known.get(key)!.get(source)?.depth ?? 0;
  };
}

/**
 * The points for several asks together. Each alone is cheapest; together they are tried in several orders, what is paid
 * for the first being free to the next. Proved when the others have nothing to add to the dearest; else none is cheaper
 * than the dearest of them alone.
 */
function chooseAll(asks: readonly Ask[], price: (item: number) => number, school: School): ChosenPoints {
  const asking = asks.filter(({ pairs }) => pairs.some((pair) => pair.k > 0));
  if (asking.length < 2) {
    const only = asking[0] ?? asks[0]!;
    return choosePoints(only.field, only.pairs, price, school);
  }
  const known = new Map<string, ChosenPoints>();
  /** The points for one ask, what is chosen already being free. Orders that chose the same so far go on alike. */
  const pointsFor = (index: number, free: ReadonlySet<number>): ChosenPoints => {
    const key = `${index} ${[...free].sort((a, b) => a - b).join()}`;
    const { field, pairs } = asking[index]!;
    const found = known.get(key) ?? choosePoints(field, pairs, (item) => (free.has(item) ? 0 : price(item)), school);
    known.set(key, found);
    return found;
  };
  const alone = asking.map((_, index) => pointsFor(index, new Set()));
  const bound_hundredths = Math.max(...alone.map((one) => one.bound_hundredths));
  const inOrder = (order: readonly number[]): ChosenPoints => {
    const devices = new Set<number>();
    const layersAt: LayerAt[] = [];
    let cost_hundredths = 0;
    for (const index of order) {
      const more = pointsFor(index, new Set(devices));
      cost_hundredths += more.cost_hundredths;
      for (const item of more.devices) devices.add(item);
      layersAt.push(more.layerAt);
    }
    return {
      devices,
      layerAt: firstOf(layersAt),
      cost_hundredths,
      bound_hundredths,
      exact: cost_hundredths === bound_hundredths,
    };
  };
  const all = [...asking.keys()];
  // Each of them first once, the others after it as they come and the other way round.
  const orders = all.flatMap((first) => {
    const others = all.filter((one) => one !== first);
    return others.length < 2
      ? [[first, ...others]]
      : [
          [first, ...others],
          [first, ...others.reverse()],
        ];
  });
  return orders.map(inOrder).reduce((best, one) => (one.cost_hundredths < best.cost_hundredths ? one : best));
}

/** The devices that a job pins, strikes out or needs passing; unknown ones are refused by name. */
function namedDevices(
  graph: StateGraph,
  job: Job,
  file: string,
): Read<{ pinned: ReadonlySet<number>; struck: ReadonlySet<number>; passing: ReadonlySet<number> }> {
  const problems: Problem[] = [];
  const find = (tags: readonly string[], field: string) =>
    tags.flatMap((tag) => {
      const index = graph.itemByTag.get(tag);
      const item = index === undefined ? undefined : graph.plant.items[index];
      // A bleed is struck out where it is blocked.
      if (index !== undefined && (item?.device || (field === "struck" && item?.bleed))) return [index];
      const message = index === undefined ? `unknown tag ${tag}` : `${tag} is not a device`;
      problems.push({ file, tag, field, message });
      return [];
    });
  const pinned = new Set(find(job.pinned, "pinned"));
  const struck = find(job.struck, "struck");
  const mustPass = find(job.mustPass, "mustPass");
  for (const item of pinned) {
    const tag = graph.plant.items[item]!.tag;
    if (struck.includes(item)) problems.push({ file, tag, field: "pinned", message: `${tag} is struck out as well` });
    if (mustPass.includes(item)) problems.push({ file, tag, field: "pinned", message: `${tag} must stay passing` });
  }
  if (problems.length > 0) return { ok: false, problems };
  return { ok: true, value: { pinned, struck: new Set(struck), passing: new Set(mustPass) }, warnings: [] };
}
