import type { Hazard } from "../hazard/jobHazards";
import type { PermitRequired } from "../hazard/permitsRequired";
import type { PermitKind } from "../permit/kinds/kinds";
import { holds, type OnNewPlant } from "../plan/onNewPlant";
import type { Refusal } from "../refusal/refusal";
import type { ProcedureContent } from "./procedure";

/** What is otherwise today than the procedure says. */
export type Differences = Readonly<{
  /** Its points as they would hold on today's register. */
  today: OnNewPlant;
  /** In today's plan, and not in the procedure. */
  pointsMore: readonly string[];
  /** In the procedure, and not in today's plan. */
  pointsLess: readonly string[];
  /** Proposed today, and not decided in it. */
  hazardsMore: readonly string[];
  /** Decided in it, and not proposed any more. */
  hazardsLess: readonly string[];
  permitsMore: readonly PermitKind[];
  permitsLess: readonly PermitKind[];
  /** Work locations, how people meet them, or the rules are not the procedure's. */
  otherWork: boolean;
}>;

/** Compares a procedure with the job that is asked by it, on the plant of today. Cost: linear in both. */
export function differencesOf(
  content: ProcedureContent,
  now: Readonly<{
    today: OnNewPlant;
    points: readonly string[];
    proposed: readonly Hazard[];
    required: readonly PermitRequired[];
    job: ProcedureContent["job"];
  }>,
): Differences {
  const without = <T>(all: readonly T[], others: readonly T[]) => [
    ...new Set(all.filter((one) => !others.includes(one))),
  ];
  const decided = content.hazards.filter(({ verdict }) => verdict !== "added");
  const isSame = (one: Hazard) => decided.some(({ id, hazard }) => id === one.id && hazard === one.hazard);
  const kinds = content.permits.map(({ details }) => details.kind);
  const required = now.required.map(({ kind }) => kind);
  return {
    today: now.today,
    pointsMore: without(now.points, content.points),
    pointsLess: without(content.points, now.points),
    hazardsMore: now.proposed.filter((one) => !isSame(one)).map(({ hazard }) => hazard),
    hazardsLess: decided.filter(({ id }) => !now.proposed.some((one) => one.id === id)).map(({ hazard }) => hazard),
    permitsMore: without(required, kinds),
    permitsLess: without(kinds, required),
    otherWork: workOf(content.job) !== workOf(now.job),
  };
}

/** Places, how people meet them, carriers, rules: what a plan is made for, whatever the order in which it was written. */
function workOf({ faces, profile, longerThanShift }: ProcedureContent["job"]): string {
  const each = faces
    .map(({ place, how, carriers }) => JSON.stringify([place, [...how].sort(), carriers ?? null]))
    .sort();
  return JSON.stringify([each, profile, longerThanShift]);
}

/** The points of the procedure would not do today what they did: nobody isolates by it. */
export function isUnsafe({ today, otherWork }: Differences): boolean {
  return !holds(today) || otherWork;
}

/** Whether there is anything that somebody has to read before it is approved. */
export function isDifferent(all: Differences): boolean {
  const { pointsMore, pointsLess, hazardsMore, hazardsLess, permitsMore, permitsLess, today } = all;
  const lists = [pointsMore, pointsLess, hazardsMore, hazardsLess, permitsMore, permitsLess];
  const { added, removed, changed } = today.change;
  return isUnsafe(all) || [...lists, added, removed, changed].some((list) => list.length > 0);
}

/** By a procedure that does not hold today nobody isolates; what is otherwise than it says is read first. */
export function approvalFault(procedure: string, all: Differences, isRead: boolean): Refusal | null {
  if (isUnsafe(all)) {
    const { missingFaces, lostPoints, short } = all.today;
    const sources = [...new Set(short.map(({ source }) => source))];
    const lost = [...missingFaces, ...lostPoints];
    return { code: "procedure unsafe", procedure, lost, short: sources, otherWork: all.otherWork };
  }
  return isDifferent(all) && !isRead ? { code: "procedure differs", procedure } : null;
}
