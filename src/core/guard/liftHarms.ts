import type { StateGraph } from "../trace/stateGraph";
import { guardRelease, type Harm, type LiveJob } from "./guardRelease";

/** A live job with the isolation that it stands on. */
export type StandingJob = LiveJob & Readonly<{ isolation: string }>;

/**
 * What lifting one point of an isolation would do to the work of others. The isolation's own work is over, or off for a
 * test: its own faces may be lit. For a test the holders of affected jobs have `agreed`; nobody may be there all the same.
 *
 * Cost: guardRelease.
 */
export function liftHarms(
  graph: StateGraph,
  live: readonly StandingJob[],
  lift: Readonly<{ isolation: string; device: string; agreed: ReadonlySet<string> }>,
): Harm[] {
  const isOwn = (one: StandingJob) => one.isolation === lift.isolation;
  const harms = guardRelease(
    graph,
    live.map((one) => (isOwn(one) ? { ...one, job: { ...one.job, faces: [] } } : one)),
    live.filter(isOwn).map(({ number }) => ({ job: number, device: lift.device })),
  );
  return harms.filter(({ job, people }) => people.length > 0 || !lift.agreed.has(job));
}

/** The jobs of an isolation itself, and others whose work would lose a barrier they count on if these points came off. */
export function reachedBy(
  graph: StateGraph,
  live: readonly StandingJob[],
  lift: Readonly<{ isolation: string; devices: readonly string[] }>,
): string[] {
  const own = live.filter(({ isolation }) => isolation === lift.isolation).map(({ number }) => number);
  const release = own.flatMap((job) => lift.devices.map((device) => ({ job, device })));
  const harmed = guardRelease(graph, live, release).map(({ job }) => job);
  return [...new Set([...own, ...harmed])].sort();
}
