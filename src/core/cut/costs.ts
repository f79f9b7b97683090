import type { Objective, School } from "../request/jobFile";
import { barrierDistance, UNREACHED } from "../trace/barrierDistance";
import { sourcesOf } from "../trace/sources";
import { gateVertices, type StateGraph } from "../trace/stateGraph";
import type { BarrierField } from "../barrier/pairs";
import { MINUTES_A_CONSUMER, outageOf } from "../losses/outage";

/** Hanging one more lock: fetching it, the tag, the entry, lifting it again. Common practice, in minutes. */
export const MINUTES_A_LOCK = 4;

export function effortHundredths(graph: StateGraph, item: number): number {
  return Math.round((graph.plant.items[item]?.device?.effort_min ?? 0) * 100);
}

/**
 * The price of a device under an objective, in whole hundredths of a minute.
 *
 * effort: its effort alone. quickest: effort and the handling of a lock. fewest locks and least outage: that first, then
 * effort. balanced: effort weighed by (1 + 0.1 · links to the nearest face, or to the nearest source for the school at
 * the supply), and the consumers that depend on the device.
 */
export function priceOf(
  field: BarrierField,
  objective: Objective,
  school: School,
  work: ReadonlySet<number>,
): (item: number) => number {
  const { graph } = field;
  const effort = (item: number) => effortHundredths(graph, item);
  switch (objective) {
    case "effort":
      return effort;
    case "quickest":
      return (item) => effort(item) + MINUTES_A_LOCK * 100;
    case "fewest locks":
      return (item) => COMES_FIRST + effort(item);
    case "least outage": {
      const outage = outageOf(graph, work);
      return (item) => Math.round(outage[item]! * COMES_FIRST) + effort(item);
    }
    case "balanced": {
      const outage = outageOf(graph, work);
      const links = linksTo(field, school);
      return (item) =>
        Math.round(effort(item) * (1 + 0.1 * links(item))) + Math.round(outage[item]! * MINUTES_A_CONSUMER * 100);
    }
  }
}

/** More than the effort of any plan, 10,000 minutes, and small enough for exact sums over every device of a plant. */
const COMES_FIRST = 1_000_000;

/** Links from a device to the nearest face, or to the nearest feeding source. */
function linksTo(field: BarrierField, school: School): (item: number) => number {
  const { graph } = field;
  const steps =
    school === "work"
      ? barrierDistance(graph, [...field.targetsOf.values()].flat(), null).steps
      : // The same search with every arc turned round.
        barrierDistance(
          { ...graph, in: graph.out, out: graph.in },
          sourcesOf(graph).feeding.map((source) => source.vertex),
          null,
        ).steps;
  return (item) => {
    const found = gateVertices(graph, item).map((vertex) => steps[vertex]!);
    const least = Math.min(...found);
    return least === UNREACHED || !Number.isFinite(least) ? 0 : least;
  };
}
