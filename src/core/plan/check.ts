import type { Job } from "../request/jobFile";
import type { Problem, Read } from "../plant/problem";
import type { StateGraph } from "../trace/stateGraph";
import { limitsLost } from "../losses/limitsLost";
import { unlinked } from "../trace/findings";
import { workFaces } from "../trace/workFaces";
import { profileOf } from "../requirement/profiles";
import type { Cavity } from "../judge/sections";
import { graderOf } from "../judge/grade";
import { barrierField } from "../barrier/pairs";
import { requirePairs } from "../judge/requirePairs";
import { routesOf, shortfallsOf, type Route, type Shortfall } from "../judge/routes";
import { litWith, singleFailures, type Lit, type SingleFailure } from "../barrier/singleFailures";

/** A tag in the set that counts for nothing, and why. */
export type Ignored = Readonly<{ device: string; reason: string }>;

export type Check = Readonly<{
  format: "heavy-lantern/check";
  version: 1;
  /** No face is lit and every route has the depth and the grade it needs. */
  ok: boolean;
  /** Faces that the register joins to nothing: of them nothing can be said. */
  unlinked: readonly string[];
  routes: readonly Route[];
  lit: readonly Lit[];
  singleFailures: readonly SingleFailure[];
  shortfalls: readonly Shortfall[];
  cavities: readonly Cavity[];
  ignored: readonly Ignored[];
}>;

/**
 * What a set of devices that someone else chose really does. Every device outside the set is taken as passing. Cost: as
 * the parts of a plan without choosing.
 */
export function check(graph: StateGraph, job: Job, file = "job"): Read<Check> {
  const faces = workFaces(graph, job, file);
  if (!faces.ok) return faces;
  const named = (job.isolated ?? []).flatMap((tag) => graph.itemByTag.get(tag) ?? []);
  const none = new Set<number>();
  const field = barrierField(graph, faces.value, none, none, limitsLost(graph, named));
  const problems: Problem[] = [];
  const isolated = new Set<number>();
  const ignored: Ignored[] = [];
  for (const tag of new Set(job.isolated)) {
    const index = graph.itemByTag.get(tag);
    const item = index === undefined ? undefined : graph.plant.items[index];
    if (index === undefined || item === undefined) {
      problems.push({ file, tag, field: "isolated", message: `unknown tag ${tag}` });
    } else if (item.device === undefined) {
      problems.push({ file, tag, field: "isolated", message: `${tag} is not a device and cannot be isolated` });
    } else if (field.creditable.has(index)) isolated.add(index);
    else ignored.push({ device: tag, reason: whyIgnored(item.device.credit, item.device.heldBy) });
  }
  if (problems.length > 0) return { ok: false, problems };

  const profile = profileOf(job.profile);
  const pairs = requirePairs(field, job, profile);
  const grader = graderOf(field, pairs, isolated);
  const routes = routesOf(field, pairs, isolated, grader);
  const lit = litWith(field, pairs, isolated);
  const alone = unlinked(graph, faces.value);
  return {
    ok: true,
    warnings: [],
    value: {
      format: "heavy-lantern/check",
      version: 1,
      ok: lit.length === 0 && routes.every((route) => route.held) && alone.length === 0,
      unlinked: alone,
      routes,
      lit,
      singleFailures: singleFailures(field, pairs, isolated),
      shortfalls: shortfallsOf(routes, profile),
      cavities: grader.cavities,
      ignored: ignored.sort((a, b) => (a.device < b.device ? -1 : 1)),
    },
  };
}

function whyIgnored(credit: boolean, heldBy: readonly string[]): string {
  if (!credit) return "it has no credit as a barrier";
  if (heldBy.length > 0) return `it is held in place by ${heldBy.join(", ")}, which is not proved safe`;
  return "it is itself the work, or has no position that passes nothing";
}
