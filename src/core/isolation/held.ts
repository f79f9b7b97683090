import { stepLabel, type PlannedStep } from "../procedure/steps";
import { accept, refuse, type Result } from "../refusal/result";
import type { Refusal } from "../refusal/refusal";
import {
  phaseState,
  wrongState,
  type IsolationCommand,
  type IsolationFacts,
  type IsolationLife,
  type WalkStep,
} from "./isolation";
import { isDone } from "./failures";

/** These run for a time that somebody begins, and are done when it is over. */
export const BEGUN: ReadonlySet<PlannedStep["kind"]> = new Set<PlannedStep["kind"]>(["inert", "purge"]);

/** Steps whose wait runs from when conductors were cut off, and not from anything that is begun. */
const FROM_LOCKS: ReadonlySet<PlannedStep["kind"]> = new Set<PlannedStep["kind"]>(["discharge"]);

/** From when the wait of a step runs; null where it has not begun, or where the step waits for nothing. */
export function waitsFrom_ms(life: Pick<IsolationLife, "steps">, step: WalkStep): number | null {
  if (BEGUN.has(step.kind)) return step.begun?.at_ms ?? null;
  if (!FROM_LOCKS.has(step.kind)) return null;
  const cut = life.steps.flatMap((one) =>
    one.phase === step.phase && one.kind === "lock" && one.competence === "electrical" && one.done
      ? [one.done.at_ms]
      : [],
  );
  // Nothing electrical was locked: from the last step before it.
  const before = life.steps.flatMap((one) => (step.after.includes(one.id) && one.done ? [one.done.at_ms] : []));
  const from = cut.length > 0 ? cut : before;
  return from.length > 0 ? Math.max(...from) : null;
}

/** Why a step that runs for a time is not over yet; null when it is, and for every other step. */
export function heldFault(
  life: IsolationLife,
  step: WalkStep,
  at_ms: number,
  facts: Pick<IsolationFacts, "waitOf">,
): Refusal | null {
  if (!BEGUN.has(step.kind) && !FROM_LOCKS.has(step.kind)) return null;
  const label = stepLabel(step);
  const from_ms = waitsFrom_ms(life, step);
  if (from_ms === null) return BEGUN.has(step.kind) ? { code: "not begun", step: label } : null;
  const { least_s, because } = facts.waitOf(step);
  const left_s = least_s - (at_ms - from_ms) / 1000;
  return left_s > 0 ? { code: "wait not over", step: label, left_s: Math.ceil(left_s), least_s, because } : null;
}

/** Somebody turns it on: its time runs from now, anew if it ran before. */
export function beginStep(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "begin step" }>,
  facts: Pick<IsolationFacts, "nameOf">,
): Result<IsolationLife> {
  const step = life.steps.find(({ id }) => id === command.step);
  if (step === undefined || !BEGUN.has(step.kind)) {
    return refuse({ code: "unknown", what: "step that runs for a time", name: command.step });
  }
  const label = stepLabel(step);
  if (step.done && isDone(step)) return refuse({ code: "already done", what: label, by: facts.nameOf(step.done.by) });
  const needs = phaseState(step.phase);
  if (life.state !== needs) return wrongState(life, needs);
  const first = life.steps.filter((other) => step.after.includes(other.id) && !isDone(other));
  if (first.length > 0) return refuse({ code: "out of order", step: label, first: first.slice(0, 3).map(stepLabel) });
  if (step.stuck) return refuse({ code: "stuck", step: label, why: step.stuck.why, by: facts.nameOf(step.stuck.by) });
  if (step.competence !== null && !command.competences.includes(step.competence)) {
    return refuse({ code: "not competent", step: label, needs: step.competence });
  }
  const begun = { by: command.by, at_ms: command.at_ms };
  return accept({ ...life, steps: life.steps.map((one) => (one === step ? { ...one, begun } : one)) });
}
