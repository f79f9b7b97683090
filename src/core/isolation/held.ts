import { competenceMissing } from "../procedure/competent";
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
export const BEGUN: ReadonlySet<PlannedStep["kind"]> = new Set<PlannedStep["kind"]>(["empty", "inert", "purge"]);

/** Begun only with somebody beside it who does nothing else, and who shuts it when they are called away. */
export const WATCHED: ReadonlySet<PlannedStep["kind"]> = new Set<PlannedStep["kind"]>(["empty"]);

/** Steps whose wait runs from when conductors were cut off, and not from anything that is begun. */
const FROM_LOCKS: ReadonlySet<PlannedStep["kind"]> = new Set<PlannedStep["kind"]>(["discharge"]);

/** From when the wait of a step runs; null where it has not begun, or where the step waits for nothing. */
export function waitsFrom_ms(life: Pick<IsolationLife, "steps">, step: WalkStep): number | null {
  if (BEGUN.has(step.kind)) return step.begun?.at_ms ?? null;
  if (!FROM_LOCKS.has(step.kind)) return null;
  const cut = life.steps.flatMap((one) =>
    one.phase === step.phase && one.kind === "lock" && one.competence === "electrical" && one.done
      ? [countedFrom_ms(one.done)]
      : [],
  );
  // Nothing electrical was locked: from the last step before it.
  const before = life.steps.flatMap((one) =>
    step.after.includes(one.id) && one.done ? [countedFrom_ms(one.done)] : [],
  );
  const from = cut.length > 0 ? cut : before;
  return from.length > 0 ? Math.max(...from) : null;
}

const countedFrom_ms = ({ at_ms, evidence }: NonNullable<WalkStep["done"]>) =>
  Math.max(at_ms, evidence?.countedFrom_ms ?? -Infinity);

type Wait = ReturnType<IsolationFacts["waitOf"]>;

/**
 * Before when a step cannot be over, in ms; null where it has not begun, or where nothing says so. A pump is as fast as it
 * is, and what is assumed of a drain says nothing against a level that is at zero.
 */
export function overAt_ms(
  life: Pick<IsolationLife, "steps">,
  step: WalkStep,
  wait: Pick<Wait, "least_s" | "isAssumed">,
): number | null {
  const from_ms = waitsFrom_ms(life, step);
  const isLoose = WATCHED.has(step.kind) && (wait.isAssumed || step.begun?.how === "pumped");
  return from_ms === null || isLoose ? null : from_ms + 1000 * wait.least_s;
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
  if (waitsFrom_ms(life, step) === null) return BEGUN.has(step.kind) ? { code: "not begun", step: label } : null;
  const { least_s, because, isAssumed } = facts.waitOf(step);
  const over_ms = overAt_ms(life, step, { least_s, isAssumed });
  const left_s = over_ms === null ? 0 : (over_ms - at_ms) / 1000;
  return left_s > 0 ? { code: "wait not over", step: label, left_s: Math.ceil(left_s), least_s, because } : null;
}

/** Somebody turns it on: its time runs from now, anew if it ran before. */
export function beginStep(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "begin step" }>,
  facts: Pick<IsolationFacts, "nameOf" | "watches">,
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
  const missing = competenceMissing(step, command.competences);
  if (missing !== null) return refuse({ code: "not competent", step: label, needs: missing });
  const { watcher = null, how = null } = command;
  if (WATCHED.has(step.kind)) {
    if (watcher === null) return refuse({ code: "reading missing", step: label, what: "who watches it" });
    if (how === null) return refuse({ code: "reading missing", step: label, what: "whether it is drained or pumped" });
    const where = step.begun?.watcher === watcher ? null : facts.watches(watcher);
    if (where !== null) return refuse({ code: "other duty", who: facts.nameOf(watcher), where });
  }
  const begun = {
    by: command.by,
    at_ms: command.at_ms,
    ...(WATCHED.has(step.kind) ? { watcher: watcher!, how: how! } : {}),
  };
  return accept({ ...life, steps: life.steps.map((one) => (one === step ? { ...one, begun } : one)) });
}

/** It was turned off: what ran before counts for nothing, and it is begun anew. Anybody may: stopping is always safe. */
export function stopStep(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "stop step" }>,
): Result<IsolationLife> {
  const step = life.steps.find(({ id }) => id === command.step);
  if (step === undefined) return refuse({ code: "unknown", what: "step that runs for a time", name: command.step });
  if (step.begun === undefined || isDone(step)) return refuse({ code: "not begun", step: stepLabel(step) });
  const { begun: _, ...stopped } = step;
  return accept({ ...life, steps: life.steps.map((one) => (one === step ? stopped : one)) });
}
