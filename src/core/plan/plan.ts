import type { Job, Objective, School } from "../request/jobFile";
import type { Carrier } from "../plant/carriers";
import type { Read } from "../plant/problem";
import { barrierDistance, UNREACHED } from "../trace/barrierDistance";
import { contentsGraph } from "../trace/contentsGraph";
import { gateVertices, placeName, type StateGraph } from "../trace/stateGraph";
import { allFaceVertices, faceItems, type WorkFace } from "../trace/workFaces";
import { later } from "../onceFor";
import { unlinked } from "../trace/findings";
import type { Trace } from "../trace/trace";
import { blindList, type Blind } from "./blindList";
import type { Cavity } from "../judge/sections";
import { effortHundredths } from "../cut/costs";
import { vesselsShut } from "./emptiable";
import { darkZoneOf, type DarkZone } from "./darkZone";
import { bodiesBled, isFlow } from "../judge/drains";
import { graderOf } from "../judge/grade";
import type { Loss } from "../losses/fedNoMore";
import { lossesOf, type AlsoStops, type Losses } from "../losses/alsoStops";
import type { BarrierField } from "../barrier/pairs";
import type { RequiredPair } from "../judge/requirePairs";
import { routesOf, shortfallsOf, type Route, type Shortfall } from "../judge/routes";
import { singleFailures, type SingleFailure } from "../barrier/singleFailures";
import { violations } from "../barrier/violations";

import { energiesOf, type EnergyGroup } from "./energies";
import { chooseFor, prepare, type Because, type Chosen, type Prepared } from "./choose";

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
  because: Because;
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
  /** Every route has the grade that is asked, and of every face something is known. What is not held is in `shortfalls`. */
  held: boolean;
  /** Faces that the register joins to nothing: of them nothing can be said. */
  unlinked: readonly string[];
  routes: readonly Route[];
  shortfalls: readonly Shortfall[];
  singleFailures: readonly SingleFailure[];
  cavities: readonly Cavity[];
  /** Bleeds to open and lock open, sorted. */
  bleeds: readonly string[];
  /** Valves before them to open and lock open, sorted. */
  opens: readonly string[];
  /** Devices and bleeds that the job struck out, sorted: no step uses them. */
  unusable: readonly string[];
  blinds: readonly Blind[];
  darkZone: DarkZone;
  /** Consumers that are fed no more. */
  goesDark: readonly Loss[];
  /** What else stops, is left unprotected, backs up or is locked in. */
  alsoStops: readonly AlsoStops[];
  notices: readonly string[];
  /** What reaches the work, grouped by what stops it; what matters first in front. */
  energies: readonly EnergyGroup[];
  waysIn: Trace["waysIn"];
  stored: Trace["stored"];
  findings: Trace["findings"];
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
  const prepared = prepare(graph, job, file);
  if (!prepared.ok) return prepared;
  return { ok: true, warnings: [], value: planFor(prepared.value, job.objective, job.school) };
}

/** The same, for a job of which is known what reaches it. What is said of the points is worked out when it is first read. */
export function planFor(prepared: Prepared, objective: Objective, school: School): Plan {
  const { graph, job, traced } = prepared;
  const chosen = chooseFor(prepared, objective, school);
  const { field, pairs, devices, profile } = chosen;
  const grader = graderOf(field, pairs, devices);
  const routes = routesOf(field, pairs, devices, grader);
  const short = shortfallsOf(routes, profile).map((one) => withProof(one, chosen));
  const alone = unlinked(graph, field.faces);
  const shut = vesselsShut(graph, job, grader.cavities);
  const points = pointsOf(chosen);
  const isStaged = points.some((point) => point.because === "positive");
  const positive = new Set([...devices].filter((item) => graph.plant.items[item]?.device?.positive));
  const blinds = later(() => (isStaged ? blindList(field, pairs, positive) : []));
  const bleeds = later(() =>
    [...new Set([...grader.cavities.flatMap((cavity) => cavity.bleeds), ...bodyBleedsOf(chosen)])].sort(),
  );
  const opens = later(() => [...new Set(grader.cavities.flatMap((cavity) => cavity.opens))].sort());
  const itemsOf = (tags: readonly string[]) => new Set(tags.map((tag) => graph.itemByTag.get(tag)!));
  const losses = later(() => {
    const { lit, drains } = grader.standing;
    return lossesOf(graph, devices, faceItems(field.faces), {
      isSafe: (vertex) => lit[vertex] === 0 && (!isFlow(graph, vertex) || drains.isDrained(vertex)),
      bleeds: itemsOf(bleeds()),
      opens: itemsOf(opens()),
    });
  });
  const failures = later(() => singleFailures(field, pairs, devices));
  const darkZone = later(() => darkZoneOf(graph, grader.cavities));
  const notices = later(() => [...noticesOf(graph, points), ...tooWeak(field)]);
  const energies = later(() =>
    energiesOf(traced.sources, new Set(points.map(({ device }) => device)), [
      ...short,
      ...routes.filter(({ depth, required }) => depth === 0 && required > 0),
    ]),
  );
  const findings = later(() => [
    ...traced.findings,
    ...undrainedZones(field, grader.cavities),
    ...lossFindings(losses()),
  ]);
  return {
    format: "heavy-lantern/plan",
    version: 1,
    objective,
    school,
    profile: profile.id,
    points,
    cost: chosen.cost_hundredths / 100,
    minutes: [...devices].reduce((sum, item) => sum + effortHundredths(graph, item), 0) / 100,
    exact: chosen.exact,
    bound: chosen.bound_hundredths / 100,
    feasible: routes.every((route) => route.available >= route.required),
    held: short.length + chosen.openingShort.length + alone.length + shut.length === 0,
    unlinked: alone,
    routes,
    shortfalls: [...short, ...openingShortfalls(chosen), ...shut],
    get singleFailures() {
      return failures();
    },
    get cavities() {
      return grader.cavities;
    },
    get bleeds() {
      return bleeds();
    },
    get opens() {
      return opens();
    },
    unusable: [...job.struck].sort(),
    get blinds() {
      return blinds();
    },
    get darkZone() {
      return darkZone();
    },
    get goesDark() {
      return losses().goesDark;
    },
    get alsoStops() {
      return losses().alsoStops;
    },
    get notices() {
      return notices();
    },
    get energies() {
      return energies();
    },
    get waysIn() {
      return traced.waysIn;
    },
    get stored() {
      return traced.stored;
    },
    get findings() {
      return findings();
    },
  };
}

function pointsOf({ field, asks, devices, because, layerAt }: Chosen): Point[] {
  const { graph } = field;
  const nameOf = (face: WorkFace) => field.faces.find((one) => one.places === face.places)?.name ?? face.name;
  return [...devices]
    .map((index): Point => {
      const item = graph.plant.items[index]!;
      const device = item.device!;
      const reason = because.get(index) ?? "computed";
      const holds = later(() => {
        const without = new Set(devices);
        without.delete(index);
        const held = asks
          .flatMap((ask) => violations(ask.field, ask.pairs, without))
          .map(({ pair }) => ({
            source: placeName(graph, pair.source.vertex),
            carrier: pair.source.carrier,
            face: nameOf(pair.face),
          }));
        return [...new Map(held.map((one) => [`${one.source} ${one.carrier} ${one.face}`, one])).values()];
      });
      return {
        device: item.tag,
        stops: device.stops,
        effort_min: device.effort_min,
        lockable: device.lockable,
        positive: device.positive,
        stage: reason === "positive" ? 2 : 1,
        because: reason,
        layer: layerAt(index) ?? 0,
        get holds() {
          return holds();
        },
      };
    })
    .sort((a, b) => (a.device < b.device ? -1 : 1));
}

/** Says of a way that falls short whether any points could hold it, or none were found. */
function withProof(shortfall: Shortfall, { pairs, field, impossible }: Chosen): Shortfall {
  const isThis = ({ source, face }: RequiredPair) =>
    placeName(field.graph, source.vertex) === shortfall.source &&
    source.carrier === shortfall.carrier &&
    face.name === shortfall.face;
  const pair = pairs.find(isThis);
  const isImpossible = pair === undefined || pair.demands.some((demand) => impossible(pair, demand));
  return { ...shortfall, proved: isImpossible ? "impossible" : "not found" };
}

/** Flanges that cannot be opened as opening a line asks: a blind with nothing that makes fitting it safe. */
function openingShortfalls({ openingShort, openingImpossible, field }: Chosen): Shortfall[] {
  // Of what one way asks, what is hardest to hold stands first.
  const byPair = new Map([...openingShort].reverse().map((one) => [one.pair, one]));
  return [...byPair.values()].map(({ pair, demand, judged }) => ({
    source: placeName(field.graph, pair.source.vertex),
    carrier: pair.source.carrier,
    face: pair.face.name,
    required: demand.barriers,
    available: demand.available,
    requiredGrade: demand.grade,
    grade: judged.grade,
    because: [
      `fitting ${pair.face.name} opens the line`,
      ...(judged.depth === 0 ? ["nothing on the way can stop it"] : judged.because),
    ],
    proved: openingImpossible(pair, demand) ? "impossible" : "not found",
    measures: ["gauge in view", "watcher", "blind downstream"],
  }));
}

/** Devices before the work that are left out, for their flanges bear less than may come to them by the register. */
function tooWeak({ graph, faces, weak }: BarrierField): string[] {
  if (weak.size === 0) return [];
  const targets = faces.flatMap((face) => allFaceVertices(graph, face));
  const { gates } = barrierDistance(contentsGraph(graph), targets, null);
  const bar = (pressure: number) => `${Math.round(pressure / 1e4) / 10} bar`;
  return [...weak].flatMap(([item, { flangeClass, rated_Pa, pressure_Pa, from }]) =>
    gateVertices(graph, item).some((vertex) => gates[vertex] !== UNREACHED)
      ? [
          `${graph.plant.items[item]!.tag} counts for nothing: it stands in a flange of class ${flangeClass}, ${bar(rated_Pa)}, and by the register ${from} may bring ${bar(pressure_Pa)}. Have it shown that so much cannot come, or isolate elsewhere.`,
        ]
      : [],
  );
}

/** Bleeds between the seats of isolated devices. */
function bodyBleedsOf({ field, devices }: Chosen): string[] {
  return [...bodiesBled(field, devices)].flatMap((item) => field.graph.plant.items[item]!.device!.bodyBleed ?? []);
}

/** A work zone that people open, enter or bring a flame to, and in which something is left that nothing drains. */
function undrainedZones({ faces }: BarrierField, cavities: readonly Cavity[]): Trace["findings"][number][] {
  const opened = new Set(
    faces
      .filter(({ how }) => how.some((one) => one === "open" || one === "enter" || one === "hot"))
      .map(({ name }) => name),
  );
  return cavities
    .filter(
      ({ zone, undrained, faces: own }) =>
        zone === "work" && undrained.length > 0 && own.some((face) => opened.has(face)),
    )
    .map(({ undrained, bleeds, carrier, faces: own }) => ({
      code: "not drained",
      tags: [...own, ...undrained],
      sentence: `${bleeds.length === 0 ? "No bleed opens" : "No bleed surely drains all of"} the work zone of ${own.join(", ")} (${carrier}): what stands in ${undrained.join(", ")} is to be released there before anybody opens, enters or brings a flame.`,
    }));
}

/** What could not be judged of what else stops, or only by an assumption. */
function lossFindings({ assumedSinks, protectsUnknown }: Losses): Trace["findings"][number][] {
  const found: Trace["findings"][number][] = [];
  if (assumedSinks.length > 0) {
    found.push({
      code: "assumed sink",
      tags: assumedSinks,
      sentence: `No sink is known where flow ends, so it is taken to end at ${assumedSinks.join(", ")}. Mark the true ends in the register (sink).`,
    });
  }
  if (protectsUnknown.length > 0) {
    found.push({
      code: "protects unknown",
      tags: protectsUnknown,
      sentence: `Nobody has written down what ${protectsUnknown.join(", ")} protects, so nothing is said of losing it. Enter its tags (protects).`,
    });
  }
  return found;
}

function noticesOf(graph: StateGraph, points: readonly Point[]): string[] {
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
  return notices;
}
