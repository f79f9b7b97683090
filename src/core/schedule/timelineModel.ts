import type { Job } from "../request/jobFile";
import { governsOf } from "./stepTime";
import { shortfallsNotAccepted, type Accepted } from "../plan/deviations";
import type { Plan } from "../plan/plan";
import { itemTagOf, stepLabel, type PlannedStep } from "../procedure/steps";
import { AFTER_WATCHES } from "../fire/hotWork";
import type { RuleProfile } from "../requirement/profile";
import type { StateGraph } from "../trace/stateGraph";
import { roundWait } from "./airWaits";
import { workOf } from "./stepWork";
import { PERMIT_s, type TimelineModel, type TimelineStep } from "./timeline";
import type { Spot } from "./walkingOrder";

/**
 * What the timeline of a job is made of. Steps that are done are left out, and nothing waits for them any more.
 * Cost: linear in steps and in what is trapped.
 */
export function timelineModel(p: {
  graph: StateGraph;
  plan: Plan;
  job: Job;
  profile: RuleProfile;
  steps: readonly (PlannedStep & { done?: unknown })[];
  window: Readonly<{ from_ms: number; to_ms: number }>;
  /** What an approver answered for; a way that got worse since counts as open. */
  accepted: readonly Accepted[];
  /** It is being given back, or was given up: what was never isolated need not be any more. */
  isRestoring?: boolean;
  /** Shift changes around the window; the core knows no time zone. */
  shifts_ms?: readonly number[];
}): TimelineModel {
  const { graph, plan, job, profile, steps, window, accepted, isRestoring = false, shifts_ms = [] } = p;
  const work = new Map(workOf(steps, plan, graph).map((one) => [one.step, one]));
  const open = steps.filter((step) => !step.done && !(isRestoring && step.phase !== "restore"));
  const still = new Set(open.map(({ id }) => id));
  const itemAt = (place: string) => graph.plant.items[graph.itemByTag.get(itemTagOf(graph, place)) ?? -1];
  const faceSpot = spotOf(graph, job.faces[0]!.place) ?? DATUM;
  const briefs = (phase: PlannedStep["phase"]): TimelineStep[] =>
    open
      .filter((step) => step.phase === phase)
      .map((step) => {
        const own = work.get(step.id)!;
        return {
          id: step.id,
          label: stepLabel(step),
          after: step.after.filter((id) => still.has(id)),
          spot: spotOf(graph, step.subject) ?? faceSpot,
          work: own.waitsFrom === null ? own : { ...own, waitsFrom: own.waitsFrom.filter((id) => still.has(id)) },
        };
      });
  const hows = new Set(job.faces.flatMap((face) => face.how));
  const hot = hows.has("hot");
  const isolate = briefs("isolate");
  const isIsolated = isolate.length === 0 && steps.length > 0;
  return {
    stage: isRestoring ? "restoring" : isIsolated ? "isolated" : "isolating",
    isolate,
    restore: briefs("restore"),
    done: steps.filter((step) => step.done).length,
    airRetest_s: hot || hows.has("enter") ? profile.airRetest_min * 60 : null,
    airRounds: job.faces
      .filter(({ how }) => how.includes("enter") || how.includes("hot"))
      .map(({ place, how }) => roundWait(place, itemAt(place), how.includes("enter"))),
    afterWatch: hot ? AFTER_WATCHES.find(({ id }) => id === profile.afterWatch)! : null,
    governs: governsOf(profile),
    window,
    stoppedBy: stopping(plan, accepted),
    shifts_ms,
    permit_s: hot ? PERMIT_s.hot : PERMIT_s.other,
  };
}

/** What stands against a start, in words: faces joined to nothing, and ways held worse than asked that nobody answered for. */
function stopping(plan: Plan, accepted: readonly Accepted[]): string[] {
  return [
    ...plan.unlinked.map((face) => `${face}: the register joins it to nothing`),
    ...shortfallsNotAccepted(plan, accepted).map(({ source, face, grade, required, requiredGrade, noWayOut }) => {
      if (noWayOut) return `${face}: no way to empty it is known`;
      const asked = requiredGrade ?? (required === 1 ? "1 barrier" : `${required} barriers`);
      return `${source} to ${face}: ${grade}, where ${asked} is asked`;
    }),
  ];
}

const DATUM: Spot = { x_m: 0, y_m: 0, level_m: 0 };

/** Where a place is: its own coordinates, else the middle of its area; null where neither is in the register. */
export function spotOf(graph: StateGraph, place: string): Spot | null {
  const item = graph.plant.items[graph.itemByTag.get(itemTagOf(graph, place)) ?? -1];
  if (item === undefined) return null;
  const area = graph.plant.areas.find(({ name }) => name === item.area);
  const level_m = item.level_m ?? area?.level_m ?? 0;
  if (item.x_m !== undefined && item.y_m !== undefined) return { x_m: item.x_m, y_m: item.y_m, level_m };
  return area === undefined ? null : { x_m: area.x_m + area.width_m / 2, y_m: area.y_m + area.depth_m / 2, level_m };
}
