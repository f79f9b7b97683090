import { weakDevices } from "../barrier/weakDevices";
import { limitsLost } from "../losses/limitsLost";
import type { StateGraph } from "../trace/stateGraph";

/**
 * One plan needs a device stopping that another job needs passing: as that job asked, or because the other's points count on the
 * relief behind it.
 */
export type Clash = Readonly<{ device: string; stoppedBy: string; neededBy: string; why: "asked" | "relief" }>;

/** What a job stops, by its locks and by its plan, and what it asked to be left passing. */
export type Stops = Readonly<{ number: string; points: readonly string[]; mustPass: readonly string[] }>;

/** Clashes of one job with the others, to either side. Cost: see limitClashesOf. */
export function clashesWith(graph: StateGraph, own: Stops, others: readonly Stops[]): Clash[] {
  const all = [own, ...others.filter(({ number }) => number !== own.number)];
  return [...clashesOf(all), ...limitClashesOf(graph, all)].filter(({ stoppedBy, neededBy }) =>
    [stoppedBy, neededBy].includes(own.number),
  );
}

/** Cost: linear in points and needs. */
export function clashesOf(jobs: readonly Stops[]): Clash[] {
  const stopped = new Map<string, string[]>();
  for (const { number, points } of jobs) {
    for (const device of points) stopped.set(device, [...(stopped.get(device) ?? []), number]);
  }
  return jobs.flatMap(({ number, mustPass }) =>
    mustPass.flatMap((device) =>
      (stopped.get(device) ?? [])
        .filter((other) => other !== number)
        .map((other) => ({ device, stoppedBy: other, neededBy: number, why: "asked" as const })),
    ),
  );
}

/**
 * Devices that one job stops and that another needs passing though nobody wrote it down: they cut the relief on which the other's
 * points count, for without its limit more may come to their flanges than these bear.
 *
 * Cost: nothing where no item has a limit; else a few linear searches for each pair of jobs, and for each point that may be the one.
 */
export function limitClashesOf(
  graph: StateGraph,
  jobs: readonly Readonly<{ number: string; points: readonly string[] }>[],
): Clash[] {
  const limited = new Set(graph.plant.items.flatMap(({ limit_Pa }, item) => (limit_Pa === undefined ? [] : [item])));
  if (limited.size === 0) return [];
  const [bounded, unbounded] = [weakDevices(graph), weakDevices(graph, limited)];
  const indexOf = (points: readonly string[]) => points.flatMap((tag) => graph.itemByTag.get(tag) ?? []);
  return jobs.flatMap(({ number, points }) => {
    const own = indexOf(points);
    const counting = own.filter((item) => unbounded.has(item) && !bounded.has(item));
    if (counting.length === 0) return [];
    const falls = (stopped: readonly number[]) => {
      const weak = weakDevices(graph, limitsLost(graph, stopped));
      return counting.some((item) => weak.has(item));
    };
    if (falls(own)) return [];
    return jobs
      .filter((other) => other.number !== number && falls([...own, ...indexOf(other.points)]))
      .flatMap((other) => {
        const alone = other.points.filter((tag) => falls([...own, ...indexOf([tag])]));
        // Where only several of them together cut it, each is named.
        return (alone.length > 0 ? alone : other.points).map((device) => ({
          device,
          stoppedBy: other.number,
          neededBy: number,
          why: "relief" as const,
        }));
      });
  });
}
