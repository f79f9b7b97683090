import type { Job, School } from "../job/jobFile";
import type { Carrier } from "../plant/carriers";
import type { Read } from "../plant/problem";
import { placeName, type StateGraph } from "../trace/stateGraph";
import { workFaces } from "../trace/workFaces";
import { traceFaces, type Trace } from "../trace/trace";
import { choosePoints } from "./choosePoints";
import { barrierField, type BarrierField } from "./pairs";
import { requirePairs, type RequiredPair } from "./requirePairs";
import { routesOf, shortfallsOf, type Route, type Shortfall } from "./routes";
import { singleFailures, type SingleFailure } from "./singleFailures";
import { violations } from "./violations";

/** A device to isolate, lock and tag. */
export type Point = Readonly<{
  device: string;
  stops: readonly Carrier[];
  effort_min: number;
  /** Without a lock it can only be tagged, with something more done. */
  lockable: boolean;
  positive: boolean;
  /** 0 stands against live plant; 1 is one barrier in, and so on. */
  layer: number;
  /** Without this point these ways have too few barriers: why it is in the plan. */
  holds: readonly Readonly<{ source: string; carrier: Carrier; face: string }>[];
}>;

export type Plan = Readonly<{
  format: "heavy-lantern/plan";
  version: 1;
  objective: "effort";
  school: School;
  points: readonly Point[];
  /** Sum of the points' effort, in minutes. */
  cost: number;
  /** No cheaper set would do, and that is proved. Otherwise none is cheaper than `bound`. */
  exact: boolean;
  bound: number;
  /** Every pair of source and face has at least as many barriers available as it needs. */
  feasible: boolean;
  routes: readonly Route[];
  shortfalls: readonly Shortfall[];
  singleFailures: readonly SingleFailure[];
  notices: readonly string[];
  waysIn: Trace["waysIn"];
  stored: Trace["stored"];
  findings: Trace["findings"];
}>;

/**
 * The lockout points for a job: the cheapest set of devices that gives every way from a feeding source to a face the
 * barriers it needs, or as many as the plant has. Devices are taken as passing unless chosen, whatever their position.
 *
 * Efforts are compared to a hundredth of a minute. Cost: see choosePoints; the rest is linear for each point and face.
 */
export function plan(graph: StateGraph, job: Job, file = "job"): Read<Plan> {
  const faces = workFaces(graph, job, file);
  if (!faces.ok) return faces;
  const field = barrierField(graph, faces.value);
  const pairs = requirePairs(field, job);
  const chosen = choosePoints(field, pairs, (item) => effortHundredths(graph, item), job.school);
  const routes = routesOf(field, pairs, chosen.devices);
  const shortfalls = shortfallsOf(routes);
  const traced = traceFaces(graph, faces.value);
  return {
    ok: true,
    warnings: [],
    value: {
      format: "heavy-lantern/plan",
      version: 1,
      objective: job.objective,
      school: job.school,
      points: pointsOf(field, pairs, chosen),
      cost: chosen.cost_hundredths / 100,
      exact: chosen.exact,
      bound: chosen.bound_hundredths / 100,
      feasible: shortfalls.length === 0,
      routes,
      shortfalls,
      singleFailures: singleFailures(field, pairs, chosen.devices),
      notices: noticesOf(routes),
      waysIn: traced.waysIn,
      stored: traced.stored,
      findings: traced.findings,
    },
  };
}

function effortHundredths(graph: StateGraph, item: number): number {
  return Math.round((graph.plant.items[item]?.device?.effort_min ?? 0) * 100);
}

function pointsOf(
  field: BarrierField,
  pairs: readonly RequiredPair[],
  chosen: { devices: ReadonlySet<number>; layerOf: ReadonlyMap<number, number> },
): Point[] {
  const { graph } = field;
  return [...chosen.devices]
    .map((index): Point => {
      const item = graph.plant.items[index]!;
      const device = item.device!;
      const without = new Set(chosen.devices);
      without.delete(index);
      return {
        device: item.tag,
        stops: device.stops,
        effort_min: device.effort_min,
        lockable: device.lockable,
        positive: device.positive,
        layer: chosen.layerOf.get(index) ?? 0,
        holds: violations(field, pairs, without).map(({ pair }) => ({
          source: placeName(graph, pair.source.vertex),
          carrier: pair.source.carrier,
          face: pair.face.name,
        })),
      };
    })
    .sort((a, b) => (a.device < b.device ? -1 : 1));
}

function noticesOf(routes: readonly Route[]): string[] {
  const positive = routes.filter((route) => route.requiredGrade === "positive");
  if (positive.length === 0) return [];
  const sources = [...new Set(positive.map((route) => route.source))].join(", ");
  return [
    `Positive isolation is required from ${sources}. The points below are counted as barriers only: choose and fit the blinds by your own procedure.`,
  ];
}
