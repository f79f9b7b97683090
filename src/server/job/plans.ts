import { eq } from "drizzle-orm";
import type { Comparison } from "../../core/plan/compare";
import type { Plan } from "../../core/plan/plan";
import type { Read } from "../../core/plant/problem";
import {
  lanternLight,
  lanternScene,
  type LanternExtent,
  type LanternLight,
  type LanternScene,
} from "../../core/lantern/lanternScene";
import type { School } from "../../core/request/jobFile";
import { database } from "../db/database";
import { isolations } from "../db/schema";
import { plantAt, type CurrentPlant } from "../plant/plantStore";
import type { JobView } from "./jobView";
import { compared, planned } from "./planned";

/** The plan of a job and what is drawn and said of it. */

export function plantOf(view: JobView): CurrentPlant {
  return plantAt(database(), view.plantRevision);
}

/** The plan as approved, or what it would be under a school. */
export async function planOf(view: JobView, school: School): Promise<Plan> {
  if (view.isolation) return approvedPlan(view.isolation.number);
  return fitting(view, await planned(database(), view.plantRevision, { ...view.job, school }));
}

function fitting<T>(view: JobView, made: Read<T>): T {
  if (!made.ok) throw new Error(`job ${view.number} no longer fits the plant: ${made.problems[0]?.message}`);
  return made.value;
}

export function approvedPlan(isolation: string): Plan {
  const row = database()
    .select({ plan: isolations.plan })
    .from(isolations)
    .where(eq(isolations.number, isolation))
    .get();
  if (row === undefined) throw new Error(`isolation ${isolation} is gone`);
  return row.plan;
}

export type LanternView = Readonly<{
  scene: LanternScene;
  /** The light before the first point and after each. */
  frames: readonly (LanternLight & { label: string; isolated: readonly string[] })[];
  /** Frame that stands now on the plant. */
  now: number;
}>;

/** The lantern of a job: one frame for each point, in the order of the walk. */
export function lanternOf(view: JobView, made: Plan, extent?: LanternExtent): LanternView {
  const { graph } = plantOf(view);
  const scene = lanternScene(graph, made, extent);
  const walked = view.isolation?.steps.filter((step) => step.kind === "lock") ?? [];
  const order = view.isolation ? walked.map((step) => step.subject) : made.points.map((point) => point.device);
  const frames = [{ label: "nothing isolated", isolated: [] as string[], ...lanternLight(graph, scene, []) }];
  order.forEach((tag, index) => {
    const isolated = order.slice(0, index + 1);
    frames.push({ label: `${tag} isolated`, isolated, ...lanternLight(graph, scene, isolated) });
  });
  const locked = order.filter((tag) => view.held.includes(tag));
  if (view.isolation && !order.slice(0, locked.length).every((tag) => locked.includes(tag))) {
    // Worked by several people at once, or half restored: what stands now is a frame of its own.
    frames.push({ label: "as it stands now", isolated: locked, ...lanternLight(graph, scene, locked) });
    return { scene, frames, now: frames.length - 1 };
  }
  return { scene, frames, now: view.isolation ? locked.length : 0 };
}

/** The plans to choose from, laid side by side. */
export async function comparisonOf(
  view: JobView,
): Promise<Readonly<{ comparison: Comparison; plans: readonly Plan[] }>> {
  return fitting(view, await compared(database(), view.plantRevision, view.job));
}
