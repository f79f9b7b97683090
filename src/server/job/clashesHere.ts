import { clashesWith, type Clash, type Stops } from "../../core/guard/clashes";
import type { Plan } from "../../core/plan/plan";
import type { StateGraph } from "../../core/trace/stateGraph";
import type { Tx } from "../db/database";
import { liveStops } from "../isolation/liveJobs";

/** Clashes of a job's plan with every other live job, to either side. Cost: three queries, and clashesWith. */
export function clashesHere(
  tx: Tx,
  job: Omit<Stops, "points">,
  plan: Pick<Plan, "points">,
  graph: StateGraph,
): readonly Clash[] {
  return clashesWith(graph, { ...job, points: plan.points.map(({ device }) => device) }, liveStops(tx));
}
