import type { Plan } from "../plan/plan";
import { familyOf } from "../requirement/grades";
import type { Job } from "../request/jobFile";
import type { StateGraph } from "../trace/stateGraph";
import { itemTagOf, type StepList } from "./steps";

/** Which of the places where people work ask for what: a cap, an earth, air, a bleed to look at. */

/** Neighbours by which power enters a face: an earth stands at each, or at the face itself. */
export function entrancesByPower(plan: Plan, face: string): string[] {
  return [
    ...new Set(plan.waysIn.filter((way) => way.face === face && way.carrier === "power").map((way) => way.through)),
  ];
}

/** Faces whose containment is opened and that a flow can reach: they are capped and leak tested before they fill. */
export function openedLines(plan: Plan, faces: Job["faces"]): string[] {
  return facesWhere(faces, ["open", "enter"]).filter((face) =>
    plan.waysIn.some((way) => way.face === face && familyOf(way.carrier) === "flow"),
  );
}

export function facesWhere(faces: Job["faces"], hows: readonly string[]): string[] {
  return [...new Set(faces.filter((face) => face.how.some((how) => hows.includes(how))).map((face) => face.place))];
}

/** Above this conductors that people touch are earthed, and where the register does not say. Common practice. */
const EARTH_ABOVE_V = 1000;

export function facesToEarth({ plan, graph, item }: StepList, faces: Job["faces"]): string[] {
  return facesWhere(faces, ["touch", "open", "enter", "hot"]).filter((face) => {
    const powered = plan.waysIn.some((way) => way.face === face && way.carrier === "power");
    const { voltage_V } = item(itemTagOf(graph, face));
    return powered && (voltage_V === undefined || voltage_V > EARTH_ABOVE_V);
  });
}

/** Bleeds that are linked straight to the work: the nearest place where a person can see that nothing comes. */
export function bleedsAt(graph: StateGraph, faceTags: readonly string[]): string[] {
  const near = new Set<string>();
  for (const { from, to } of graph.plant.links) {
    for (const [end, other] of [
      [from, to],
      [to, from],
    ] as const) {
      const bleed = graph.plant.items[graph.itemByTag.get(end) ?? -1]?.bleed;
      if (bleed && faceTags.includes(other)) near.add(end);
    }
  }
  return [...near].sort();
}
