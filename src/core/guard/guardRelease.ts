import type { Job } from "../request/jobFile";
import { profileOf } from "../requirement/profiles";
import { placeName, type StateGraph } from "../trace/stateGraph";
import { workFaces } from "../trace/workFaces";
import { barrierDepths } from "../judge/barrierDepth";
import { barrierField } from "../judge/pairs";
import { requirePairs } from "../judge/requirePairs";

/** A job that is standing on locked points, with what it counts on. */
export type LiveJob = Readonly<{
  number: string;
  job: Job;
  /** Tags of the devices its own isolation holds now. */
  holds: readonly string[];
  /** Depths that a person accepted below what the rules ask, by `source carrier face`. */
  accepted: Readonly<Record<string, number>>;
  people: readonly string[];
  /** Its isolation is proven: it counts on every lock that hangs. Before that, and on its way back, on its own only. */
  counts: boolean;
}>;

/** A face that a release would light, or leave with too few barriers. */
export type Harm = Readonly<{
  job: string;
  face: string;
  source: string;
  depth: number;
  needs: number;
  people: readonly string[];
}>;

/**
 * What lifting these devices would do to every live job, the releasing one left out when its own work is over: a harm for
 * each way that would be lit, or fall below the least of what the rules ask, what was accepted and what stands today.
 * Empty means that nobody's face loses a barrier they count on. All jobs' held devices together keep a face dark, for
 * nobody asks whose lock it is; a device stays held while any other job holds it. A job that is not proven yet, or is on
 * its way back, has proved nothing with other jobs' locks and loses nothing with them: its own alone are counted for it.
 *
 * Cost: two or three depth searches for each face of each live job.
 */
export function guardRelease(
  graph: StateGraph,
  live: readonly LiveJob[],
  release: readonly Readonly<{ job: string; device: string }>[],
): Harm[] {
  const held = new Map<string, Set<string>>();
  for (const { number, holds } of live) {
    for (const device of holds) held.set(device, (held.get(device) ?? new Set()).add(number));
  }
  const now = new Set(held.keys());
  for (const { job, device } of release) held.get(device)?.delete(job);
  const then = new Set([...held].filter(([, by]) => by.size > 0).map(([device]) => device));
  const index = (tags: ReadonlySet<string>) => new Set([...tags].flatMap((tag) => graph.itemByTag.get(tag) ?? []));

  const harms: Harm[] = [];
  for (const { number, job, holds, counts, accepted, people } of live) {
    const faces = workFaces(graph, job, number);
    // A face that the register no longer has cannot be shown to be dark.
    if (!faces.ok) {
      for (const face of job.faces) {
        harms.push({ job: number, face: face.place, source: "the register", depth: 0, needs: 1, people });
      }
      continue;
    }
    const field = barrierField(graph, faces.value);
    const pairs = requirePairs(field, job, profileOf(job.profile));
    for (const face of faces.value) {
      const ofFace = pairs.filter((pair) => pair.face === face && pair.required > 0);
      const sources = ofFace.map((pair) => pair.source);
      const asked = Math.max(0, ...ofFace.map((pair) => pair.required));
      const depthNow = barrierDepths(field, face, sources, index(counts ? now : new Set(holds)), asked);
      const depthThen = barrierDepths(field, face, sources, index(then), asked);
      for (const pair of ofFace) {
        const source = placeName(graph, pair.source.vertex);
        const allowed = accepted[`${source} ${pair.source.carrier} ${face.name}`];
        const stands = depthNow.get(pair.source)?.depth ?? 0;
        const depth = depthThen.get(pair.source)?.depth ?? 0;
        const needs = Math.min(pair.required, allowed ?? pair.required, stands);
        if (depth < needs) harms.push({ job: number, face: face.name, source, depth, needs, people });
      }
    }
  }
  return harms;
}
