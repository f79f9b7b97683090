import type { Job } from "../request/jobFile";
import { meets } from "../requirement/grades";
import type { Route } from "../judge/routes";
import type { StateGraph } from "../trace/stateGraph";
import { check } from "./check";
import type { Plan } from "./plan";
import { regionChange, type RegionChange } from "./regionChange";

/** How a standing plan fares on another register than it was made on. */
export type OnNewPlant = Readonly<{
  /** What changed near it: for reading, it decides nothing. */
  change: RegionChange;
  /** Work locations that the register no longer has. */
  missingFaces: readonly string[];
  /** Isolated devices that are gone, or that count for nothing now. */
  lostPoints: readonly string[];
  /** Ways that hold less than is asked, and less than was accepted when the plan was approved; energy that gets in first. */
  short: readonly Route[];
}>;

/** Whether the points still do what was approved. */
export function holds({
  missingFaces,
  lostPoints,
  short,
}: Readonly<{ missingFaces: readonly string[]; lostPoints: readonly string[]; short: readonly unknown[] }>): boolean {
  return missingFaces.length + lostPoints.length + short.length === 0;
}

/**
 * Checks a plan's devices on another register. All of it is judged again, whatever changed: a source that was joined far
 * away may ask more of barriers that nobody touched.
 *
 * Cost: a check on the new register, and linear in both.
 */
export function onNewPlant(
  before: StateGraph,
  after: StateGraph,
  job: Job,
  made: Plan,
  isolated: readonly string[],
): OnNewPlant {
  const named = [...isolated, ...made.routes.flatMap((route) => [route.face, ...route.via]), ...made.darkZone.places];
  const change = regionChange(before, after, named);
  const missingFaces = job.faces.map(({ place }) => place).filter((place) => !after.places.resolveFace(place).ok);
  const isDevice = (tag: string) => after.plant.items[after.itemByTag.get(tag) ?? -1]?.device !== undefined;
  const faces = job.faces.filter(({ place }) => !missingFaces.includes(place));
  if (faces.length === 0) {
    return { change, missingFaces, lostPoints: isolated.filter((tag) => !isDevice(tag)), short: [] };
  }
  const checked = check(after, { ...job, faces, isolated: isolated.filter(isDevice) });
  if (!checked.ok) throw new Error(`a job no longer fits the plant: ${checked.problems[0]?.message}`);
  const ignored = new Set(checked.value.ignored.map(({ device }) => device));
  const keyOf = ({ source, carrier, face }: Route) => `${source} ${carrier} ${face}`;
  const approved = new Map(made.routes.map((route) => [keyOf(route), route]));
  const isShort = (route: Route) => {
    if (route.held) return false;
    const was = approved.get(keyOf(route));
    // Short then as well, and no worse now: that was accepted.
    if (was === undefined || was.held || was.family !== route.family) return true;
    return route.depth < was.depth || !meets(route.family, route.grade, was.grade);
  };
  return {
    change,
    missingFaces,
    lostPoints: isolated.filter((tag) => !isDevice(tag) || ignored.has(tag)),
    short: checked.value.routes.filter(isShort).sort((a, b) => a.depth - b.depth),
  };
}
