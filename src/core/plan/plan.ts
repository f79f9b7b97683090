import type { Job, Objective, School } from "../request/jobFile";
import type { Carrier } from "../plant/carriers";
import type { Problem, Read } from "../plant/problem";
import { profileOf } from "../requirement/profiles";
import type { RuleProfile } from "../requirement/profile";
import { placeName, type StateGraph } from "../trace/stateGraph";
import { faceItems, workFaces, type WorkFace } from "../trace/workFaces";
import { traceFaces, type Trace } from "../trace/trace";
import { blindList, type Blind } from "./blindList";
import type { Cavity } from "../judge/cavities";
import { choosePoints, type Chosen as ChosenPoints } from "../cut/choosePoints";
import { effortHundredths, priceOf } from "../cut/costs";
import { darkZoneOf, type DarkZone } from "./darkZone";
import { graderOf } from "../judge/grade";
import { lossOf, type Loss } from "../judge/loss";
import { barrierField, faceByCarrier, facing, type BarrierField, type Pair } from "../judge/pairs";
import { openingStage, positiveStage, type PositiveDemand } from "./positiveStage";
import { proofStage } from "./proofStage";
import { requirePairs, scoped, type RequiredPair, type Scope } from "../judge/requirePairs";
import { routesOf, shortfallsOf, type Route, type Shortfall } from "../judge/routes";
import { singleFailures, type SingleFailure } from "../judge/singleFailures";
import { violations } from "../judge/violations";

/** A device to isolate, lock and tag. */
export type Point = Readonly<{
  device: string;
  stops: readonly Carrier[];
  effort_min: number;
  /** Without a lock it can only be tagged, with something more done. */
  lockable: boolean;
  positive: boolean;
  /** 1 is isolated first; 2 is a positive device, fitted once stage 1 stands. */
  stage: 1 | 2;
  /** How it came into the plan. */
  because: "computed" | "pinned" | "positive" | "to fit the blinds" | "to prove the space between";
  /** 0 stands against live plant; 1 is one barrier in, and so on. */
  layer: number;
  /** Without this point these ways have too few barriers: why it is in the plan. */
  holds: readonly Readonly<{ source: string; carrier: Carrier; face: string }>[];
}>;

export type Plan = Readonly<{
  format: "heavy-lantern/plan";
  version: 1;
  objective: Objective;
  school: School;
  profile: string;
  points: readonly Point[];
  /** What the objective minimises, in minutes: under `effort`, the sum of the points' effort. */
  cost: number;
  /** Sum of the points' effort, in minutes. */
  minutes: number;
  /** No cheaper set would do, and that is proved. Otherwise none is cheaper than `bound`. */
  exact: boolean;
  bound: number;
  /** Every pair of source and face has at least as many barriers available as it needs. */
  feasible: boolean;
  /** Every route has the grade that is asked. What is not held is in `shortfalls`. */
  held: boolean;
  routes: readonly Route[];
  shortfalls: readonly Shortfall[];
  singleFailures: readonly SingleFailure[];
  cavities: readonly Cavity[];
  /** Bleeds to open and lock open, sorted. */
  bleeds: readonly string[];
  blinds: readonly Blind[];
  darkZone: DarkZone;
  goesDark: readonly Loss[];
  notices: readonly string[];
  waysIn: Trace["waysIn"];
  stored: Trace["stored"];
  findings: Trace["findings"];
}>;

/** Pairs to be held over one field: contents where they flow, pushes by every way. */
type Ask = Readonly<{ field: BarrierField; pairs: readonly Pair[] }>;

/** The devices of a plan, before anything is said about them. */
export type Chosen = Readonly<{
  field: BarrierField;
  pairs: readonly RequiredPair[];
  /** What the cuts had to hold: by face under a job's own numbers, else by face, form of arrival and scope. */
  asks: readonly Ask[];
  devices: ReadonlySet<number>;
  because: ReadonlyMap<number, Point["because"]>;
  layerOf: ReadonlyMap<number, number>;
  cost_hundredths: number;
  bound_hundredths: number;
  exact: boolean;
  openingShort: readonly RequiredPair[];
  profile: RuleProfile;
}>;

/**
 * The lockout points for a job: the cheapest set of devices that gives every way from a feeding source to a face the
 * barriers it needs, or as many as the plant has. Devices are taken as passing unless chosen, whatever their position.
 *
 * Where positive isolation is asked it is staged: the positive devices by a cut of their own, then the points that make
 * fitting them safe, then the rest with those as given. Each stage is cheapest; the whole is then not proved so.
 *
 * Efforts are compared to a hundredth of a minute. Cost: see choosePoints; the rest is linear for each point and face.
 */
export function plan(graph: StateGraph, job: Job, file = "job"): Read<Plan> {
  const read = chooseFor(graph, job, file);
  if (!read.ok) return read;
  const { field, pairs, devices, profile } = read.value;
  const grader = graderOf(field, pairs, devices);
  const routes = routesOf(field, pairs, devices, grader);
  const shortfalls = shortfallsOf(routes, profile);
  const traced = traceFaces(graph, field.faces);
  const points = pointsOf(read.value);
  const positive = new Set([...devices].filter((item) => graph.plant.items[item]?.device?.positive));
  const isStaged = points.some((point) => point.because === "positive");
  const goesDark = lossOf(graph, devices, faceItems(field.faces));
  return {
    ok: true,
    warnings: [],
    value: {
      format: "heavy-lantern/plan",
      version: 1,
      objective: job.objective,
      school: job.school,
      profile: profile.id,
      points,
      cost: read.value.cost_hundredths / 100,
      minutes: [...devices].reduce((sum, item) => sum + effortHundredths(graph, item), 0) / 100,
      exact: read.value.exact,
      bound: read.value.bound_hundredths / 100,
      feasible: routes.every((route) => route.available >= route.required),
      held: shortfalls.length === 0 && read.value.openingShort.length === 0,
      routes,
      shortfalls: [...shortfalls, ...openingShortfalls(read.value)],
      singleFailures: singleFailures(field, pairs, devices),
      cavities: grader.cavities,
      bleeds: [...new Set(grader.cavities.flatMap((cavity) => cavity.bleeds))].sort(),
      blinds: isStaged ? blindList(field, pairs, positive) : [],
      darkZone: darkZoneOf(graph, grader.cavities),
      goesDark,
      notices: noticesOf(graph, points, grader.cavities),
      waysIn: traced.waysIn,
      stored: traced.stored,
      findings: traced.findings,
    },
  };
}

/** Which devices, under the job's objective and school; nothing said about them yet. */
export function chooseFor(graph: StateGraph, job: Job, file: string): Read<Chosen> {
  const faces = workFaces(graph, job, file);
  if (!faces.ok) return faces;
  const named = namedDevices(graph, job, file);
  if (!named.ok) return named;
  const { pinned, barred } = named.value;
  const profile = profileOf(job.profile);
  const field = barrierField(graph, faces.value, barred);
  const atWork = faceItems(faces.value);
  const pairs = requirePairs(field, job, profile);
  const price = priceOf(field, job.objective, job.school, atWork);

  const positive = positiveStage(field, pairs, price, job.school);
  const opening = openingStage(field, positive.devices, job, profile, price);
  const because = new Map<number, Point["because"]>();
  for (const item of opening.devices) because.set(item, "to fit the blinds");
  for (const item of positive.devices) because.set(item, "positive");
  for (const item of pinned) because.set(item, "pinned");

  const asks = job.require ? [{ field, pairs }] : asksByArrival(field, pairs, positive.demands);
  const chosen = chooseAll(asks, (item) => (because.has(item) ? 0 : price(item)), job.school);
  const devices = new Set([...because.keys(), ...chosen.devices]);
  const toProve = job.require ? new Set<number>() : proofStage(field, pairs, devices, price, job.school);
  for (const item of toProve) {
    devices.add(item);
    because.set(item, "to prove the space between");
  }
  const given = [...because.keys()].reduce((sum, item) => sum + price(item), 0);
  return {
    ok: true,
    warnings: [],
    value: {
      field,
      pairs,
      asks,
      devices,
      because,
      layerOf: chosen.layerOf,
      cost_hundredths: given + chosen.cost_hundredths,
      bound_hundredths: given + chosen.bound_hundredths,
      exact: chosen.exact && positive.devices.size === 0 && toProve.size === 0,
      openingShort: opening.short,
      profile,
    },
  };
}

/**
 * What must be cut, by form of arrival: two barriers against oil that comes as oil do not ask two against the motor that
 * the oil could turn. What positive devices hold needs no more; where there are none, the most barriers that exist, up
 * to two against what flows, stand in for them.
 */
function asksByArrival(
  field: BarrierField,
  pairs: readonly RequiredPair[],
  positive: readonly PositiveDemand[],
): Ask[] {
  const impossible = new Set(positive.filter(({ possible }) => !possible).map(({ demand }) => demand));
  const faces = new Map<string, WorkFace>();
  const asked: { scope: Scope; face: WorkFace; pair: RequiredPair; required: number; available: number }[] = [];
  for (const pair of pairs) {
    for (const demand of pair.demands) {
      const standIn = demand.family === "flow" ? 2 : 1;
      const required = demand.positive ? (impossible.has(demand) ? standIn : 0) : demand.barriers;
      const own = faceByCarrier(pair.face, demand.arrives);
      const face = faces.get(own.name) ?? own;
      faces.set(own.name, face);
      asked.push({ scope: demand.scope, face, pair, required, available: demand.available });
    }
  }
  const met = facing(field, [...faces.values()]);
  return (["contents", "energy"] as const).map((scope): Ask => ({
    field: scoped(met, scope),
    pairs: asked
      .filter((one) => one.scope === scope)
      .map(({ face, pair, required, available }) => ({
        source: pair.source,
        face,
        required,
        available,
        k: Math.min(required, available),
      })),
  }));
}

/**
 * The points for several asks together. Each alone is cheapest; together they are tried in both orders, what is paid for
 * the first being free to the second. Proved when the second has nothing to add; else none is cheaper than the dearer
 * of the two alone.
 */
function chooseAll(asks: readonly Ask[], price: (item: number) => number, school: School): ChosenPoints {
  const asking = asks.filter(({ pairs }) => pairs.some((pair) => pair.k > 0));
  const [first, second] = asking;
  if (first === undefined || second === undefined) {
    const only = first ?? asks[0]!;
    return choosePoints(only.field, only.pairs, price, school);
  }
  const alone = [first, second].map((ask) => choosePoints(ask.field, ask.pairs, price, school));
  const bound_hundredths = Math.max(...alone.map((one) => one.bound_hundredths));
  const both = ([0, 1] as const).map((index): ChosenPoints => {
    const base = alone[index]!;
    const other = [second, first][index]!;
    const rest = choosePoints(other.field, other.pairs, (item) => (base.devices.has(item) ? 0 : price(item)), school);
    const cost_hundredths = base.cost_hundredths + rest.cost_hundredths;
    return {
      devices: new Set([...base.devices, ...rest.devices]),
      cost_hundredths,
      bound_hundredths,
      exact: cost_hundredths === bound_hundredths,
      layerOf: new Map([...rest.layerOf, ...base.layerOf]),
    };
  });
  return both.reduce((best, one) => (one.cost_hundredths < best.cost_hundredths ? one : best));
}

/** The devices that a job pins, strikes out or needs passing; unknown ones are refused by name. */
function namedDevices(
  graph: StateGraph,
  job: Job,
  file: string,
): Read<{ pinned: ReadonlySet<number>; barred: ReadonlySet<number> }> {
  const problems: Problem[] = [];
  const find = (tags: readonly string[], field: string) =>
    tags.flatMap((tag) => {
      const index = graph.itemByTag.get(tag);
      const device = index === undefined ? undefined : graph.plant.items[index]?.device;
      if (index !== undefined && device) return [index];
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
  return { ok: true, value: { pinned, barred: new Set([...struck, ...mustPass]) }, warnings: [] };
}

function pointsOf({ field, asks, devices, because, layerOf }: Chosen): Point[] {
  const { graph } = field;
  const nameOf = (face: WorkFace) => field.faces.find((one) => one.places === face.places)?.name ?? face.name;
  return [...devices]
    .map((index): Point => {
      const item = graph.plant.items[index]!;
      const device = item.device!;
      const without = new Set(devices);
      without.delete(index);
      const reason = because.get(index) ?? "computed";
      const held = asks
        .flatMap((ask) => violations(ask.field, ask.pairs, without))
        .map(({ pair }) => ({
          source: placeName(graph, pair.source.vertex),
          carrier: pair.source.carrier,
          face: nameOf(pair.face),
        }));
      return {
        device: item.tag,
        stops: device.stops,
        effort_min: device.effort_min,
        lockable: device.lockable,
        positive: device.positive,
        stage: reason === "positive" ? 2 : 1,
        because: reason,
        layer: layerOf.get(index) ?? 0,
        holds: [...new Map(held.map((one) => [`${one.source} ${one.carrier} ${one.face}`, one])).values()],
      };
    })
    .sort((a, b) => (a.device < b.device ? -1 : 1));
}

/** Flanges that cannot be opened with the barriers they need: a blind with no valve to fit it. */
function openingShortfalls({ openingShort, field }: Chosen): Shortfall[] {
  return openingShort.map((pair) => ({
    source: placeName(field.graph, pair.source.vertex),
    carrier: pair.source.carrier,
    face: pair.face.name,
    required: pair.required,
    available: pair.available,
    requiredGrade: pair.demands[0]?.grade ?? null,
    grade: pair.available === 0 ? "none" : "unproved single",
    because: [`fitting ${pair.face.name} opens the line, and too few devices stand before it`],
    measures: ["gauge in view", "watcher", "blind downstream"],
  }));
}

function noticesOf(graph: StateGraph, points: readonly Point[], cavities: readonly Cavity[]): string[] {
  const notices: string[] = [];
  const item = (tag: string) => graph.plant.items[graph.itemByTag.get(tag) ?? -1];
  const untested = points.filter(({ device, positive, stops }) => {
    const found = item(device)?.device;
    return !positive && stops.some((carrier) => carrier === "fluid") && found?.seatTested !== true;
  });
  if (untested.length > 0) {
    notices.push(
      `Nobody has written down a seat test of ${untested.map(({ device }) => device).join(", ")}. Test each seat before it is relied on.`,
    );
  }
  for (const { device } of points) {
    const safety = item(device)?.device?.safety;
    if (safety) notices.push(`Isolating ${device} takes away ${safety}. A person with authority approves that first.`);
    if (!item(device)?.device?.lockable) {
      notices.push(`${device} takes no lock: it is tagged only, with something more done.`);
    }
  }
  for (const cavity of cavities) {
    if (cavity.zone !== "between" || cavity.undrained.length === 0) continue;
    const liquid = cavity.undrained.some((place) => {
      const phase = item(place)?.contents?.phase;
      return phase === undefined || phase === "liquid" || phase === "two-phase";
    });
    if (liquid && cavity.barriers.length >= 2) {
      notices.push(
        `Between ${cavity.barriers.join(" and ")} a liquid may be blocked in with no bleed. It expands when it warms: find a relief or drain it.`,
      );
    }
  }
  return notices;
}
