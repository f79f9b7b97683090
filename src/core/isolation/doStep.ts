import { competenceMissing } from "../procedure/competent";
import { stepLabel } from "../procedure/steps";
import type { Refusal } from "../refusal/refusal";
import { accept, refuse, type Result } from "../refusal/result";
import { personalLockFault, siteLockFault } from "../gear/gear";
import {
  phaseState,
  samePlate,
  wrongState,
  type Done,
  type IsolationFacts,
  type IsolationLife,
  type StepCommand,
  type WalkStep,
} from "./isolation";
import { failed, failureOf, isDone, secondProofFault, settled } from "./failures";
import { heldFault } from "./held";
import { asksOf } from "./stepAsks";
import { judgeReport } from "./stepEvidence";

/** One step done, by one person, with what they saw. A refused step changes nothing. */
export function doStep(life: IsolationLife, command: StepCommand, facts: IsolationFacts): Result<IsolationLife> {
  const step = life.steps.find(({ id }) => id === command.step);
  if (step === undefined) return refuse({ code: "unknown", what: "step", name: command.step });
  const label = stepLabel(step);
  if (step.done && isDone(step)) {
    return refuse({ code: "already done", what: label, by: facts.nameOf(step.done.by) });
  }
  const needs = phaseState(step.phase);
  if (life.state !== needs) return wrongState(life, needs);
  const first = life.steps.filter((other) => step.after.includes(other.id) && !isDone(other));
  if (first.length > 0) return refuse({ code: "out of order", step: label, first: first.slice(0, 3).map(stepLabel) });
  if (step.stuck) return refuse({ code: "stuck", step: label, why: step.stuck.why, by: facts.nameOf(step.stuck.by) });
  const who = personFault(life, step, command) ?? aloneFault(step, command, facts);
  if (who) return who;
  const lock = command.lock?.trim() ?? "";
  if (step.kind === "lock") {
    if (lock === "") return refuse({ code: "lock missing", step: label });
    // Alone it is their own lock that keeps the machine off: whose key nobody else has.
    const fault =
      step.alone === true
        ? personalLockFault(facts.gear("lock", lock), command.by, lock, facts.nameOf)
        : siteLockFault(facts.gear("lock", lock), lock, facts.nameOf);
    if (fault) return refuse(fault);
    const where = facts.lockHangs(lock);
    if (where !== undefined) return refuse({ code: "lock in use", lock, where });
  }
  const people = liftFault(step, command, facts);
  if (people) return people;
  const again = secondProofFault(step, command);
  if (again) return refuse(again);
  const held = heldFault(life, step, command.at_ms, facts);
  if (held) return refuse(held);
  const others = sharedFault(life, step, facts);
  if (others) return refuse(others);
  const judged = judgeReport(step, command, { person: command.by, at_ms: command.at_ms }, facts);
  if (!judged.ok) return orFailed(life, step, judged.refusal, command);
  const stays = step.kind === "unlock" ? facts.heldByOthers(step.subject) : [];
  const done: Done = {
    by: command.by,
    at_ms: command.at_ms,
    lock: step.kind === "lock" ? lock : null,
    skipped: false,
    ...judged.value,
    ...(stays.length > 0 ? { evidence: { ...judged.value.evidence, stays } } : {}),
  };
  const steps = life.steps.map((other) =>
    other.id === step.id ? { ...other, done, ...settled(other, command.at_ms) } : other,
  );
  return accept({ ...life, steps, state: stateAfter(life.state, steps) });
}

/** A proof done again on an isolation that stands: the new one counts, the earlier is in the ledger. */
export function proveAgain(life: IsolationLife, command: StepCommand, facts: IsolationFacts): Result<IsolationLife> {
  const step = life.steps.find(({ id }) => id === command.step);
  if (step?.kind !== "prove" || !step.done) return refuse({ code: "unknown", what: "proof", name: command.step });
  if (life.state !== "proven") return wrongState(life, "proven");
  const who = personFault(life, step, command) ?? aloneFault(step, command, facts);
  if (who) return who;
  const judged = judgeReport(step, command, { person: command.by, at_ms: command.at_ms }, facts);
  if (!judged.ok) return orFailed(life, step, judged.refusal, command);
  const done: Done = { by: command.by, at_ms: command.at_ms, lock: null, skipped: false, ...judged.value };
  return accept({ ...life, steps: life.steps.map((other) => (other.id === step.id ? { ...other, done } : other)) });
}

/** Steps that call a thing back into use: none is done while another isolation still holds a point that this one held. */
const IN_SERVICE: ReadonlySet<WalkStep["kind"]> = new Set<WalkStep["kind"]>([
  "start",
  "watch",
  "hand over",
  "test run",
]);

/** A point that another isolation holds stays as it is; what it feeds is started by the last who lets go. */
function sharedFault(life: IsolationLife, step: WalkStep, facts: IsolationFacts): Refusal | null {
  if (!IN_SERVICE.has(step.kind)) return null;
  const points = [
    ...new Set(life.steps.flatMap((one) => (one.kind === "unlock" && one.phase === step.phase ? [one.subject] : []))),
  ];
  const held = points.flatMap((point) => {
    const by = facts.heldByOthers(point);
    return by.length > 0 ? [{ point, by }] : [];
  });
  return held.length > 0 ? { code: "held by others", step: stepLabel(step), held } : null;
}

/** What the plant says against it is written down, and the isolation is not proven; a report at fault changes nothing. */
function orFailed(life: IsolationLife, step: WalkStep, refusal: Refusal, command: StepCommand): Result<IsolationLife> {
  // Not cool yet, or not empty yet, is no proof that failed.
  const failure = step.kind === "cool" || step.kind === "empty" ? null : failureOf(refusal, command);
  return failure === null ? refuse(refusal) : accept(failed(life, step, failure));
}

/** Competence, the plate in front of them, and a second person where one is asked for. */
function personFault(life: IsolationLife, step: WalkStep, command: StepCommand) {
  const label = stepLabel(step);
  const missing = competenceMissing(step, command.competences);
  if (missing !== null) return refuse({ code: "not competent", step: label, needs: missing });
  if (step.role !== undefined && !command.roles.includes(step.role)) {
    return refuse({ code: "not yours to do", act: `do “${label}”`, needs: [step.role] });
  }
  if (step.plate !== null && !samePlate(command.plate, step.plate)) {
    return refuse({ code: "wrong plate", seen: command.plate?.trim() ?? "" });
  }
  const hungIt = life.steps.some(
    (other) =>
      other.kind === (step.kind === "certify" ? "clean" : "lock") &&
      other.done?.by === command.by &&
      (step.kind === "prove" || other.subject === step.subject),
  );
  return step.secondPerson && hungIt ? refuse({ code: "second person needed", step: label }) : null;
}

/** What one person does alone nobody does for them, until somebody has taken their lock off without them. */
export function aloneFault(step: WalkStep, { by }: Pick<StepCommand, "by">, { alone, nameOf }: IsolationFacts) {
  return step.alone === true && alone !== null && alone !== by
    ? refuse({ code: "works alone", step: stepLabel(step), who: nameOf(alone) })
    : null;
}

/** Nothing is lifted, opened or run while anybody is on, nor before somebody at the box has counted the locks there. */
function liftFault(step: WalkStep, command: StepCommand, facts: IsolationFacts) {
  if (step.phase === "isolate") return null;
  if (facts.peopleOn.length > 0) return refuse({ code: "people on", people: facts.peopleOn });
  if (step.kind === "open box" && facts.standingOn.length > 0) {
    return refuse({ code: "box locked", people: facts.standingOn });
  }
  if (!asksOf(step).locksCounted) return null;
  const counted = command.locksCounted ?? null;
  if (counted === null) {
    return refuse({ code: "reading missing", step: stepLabel(step), what: "the number of locks you see on the box" });
  }
  const known = facts.peopleOn.length + facts.standingOn.length;
  return counted === known ? null : refuse({ code: "count differs", counted });
}

export function stateAfter(state: IsolationLife["state"], steps: readonly WalkStep[]): IsolationLife["state"] {
  const allDone = (phase: WalkStep["phase"]) => steps.every((step) => step.phase !== phase || isDone(step));
  if (state === "isolating" && allDone("isolate")) return "proven";
  if (state === "testing" && allDone("test")) return "proven";
  if (state === "restoring" && allDone("restore")) return "restored";
  return state;
}
