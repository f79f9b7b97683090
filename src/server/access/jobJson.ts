import { stepLabel } from "../../core/procedure/steps";
import { database } from "../db/database";
import { jobHazards } from "../hazard/hazardStore";
import { jobView } from "../job/jobView";

/**
 * A job for programs, as it stands: its window, what its hazards still ask, its isolation step by step, its permits. Null where
 * there is none of that number. What is here is for showing; every act is decided anew when it comes.
 */
export function jobJson(number: string, now_ms: number): object | null {
  const view = jobView(number, now_ms);
  if (view === null) return null;
  const hazards = jobHazards(database(), number);
  const steps = view.isolation?.steps ?? [];
  const isDone = new Set(steps.filter(({ done }) => done !== null).map(({ id }) => id));
  return {
    number,
    title: view.title,
    state: view.state,
    windowFrom_ms: view.windowFrom_ms,
    windowTo_ms: view.windowTo_ms,
    faces: view.job.faces.map(({ place, how }) => ({ place, how })),
    plantRevision: view.plantRevision,
    plantRevisionNow: view.plantRevisionNow,
    hazards: (hazards?.proposed ?? []).map(({ id, hazard, controls, owner }) => ({ id, hazard, controls, owner })),
    hazardsOpen: hazards?.open ?? [],
    isolation:
      view.isolation === null
        ? null
        : {
            number: view.isolation.number,
            state: view.isolation.state,
            /** Why its plan or its locks may not be counted on now; null where nothing is known against them. */
            fault: view.planFault,
            /** Proofs that are done again before anybody goes on, and why: proven or not, nobody works on meanwhile. */
            stale: view.stale,
            held: view.held,
            steps: steps.map((step) => {
              const { done: _done, begun: _begun, stuck, failures, ...planned } = step;
              return {
                ...planned,
                words: stepLabel(step),
                isDone: isDone.has(step.id),
                /** Somebody wrote that it cannot be done, or that it failed: it is not simply still to do. */
                isStuck: stuck !== null,
                failures: failures?.length ?? 0,
                waitsFor: step.after.filter((id) => !isDone.has(id)),
              };
            }),
          },
    permits: view.permits.map((permit) => ({ number: permit.number, kind: permit.kind, state: permit.state })),
    next: view.next === null ? null : { words: view.next.words, who: view.next.who, urgent: view.next.urgent },
  };
}
