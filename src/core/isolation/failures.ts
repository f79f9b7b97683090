import type { NotHeld } from "../refusal/notHeld";
import type { Refusal } from "../refusal/refusal";
import { accept, refuse, type Result } from "../refusal/result";
import { stepLabel } from "../procedure/steps";
import type { Failure, IsolationCommand, IsolationFacts, IsolationLife, StepCommand, WalkStep } from "./isolation";

/**
 * A proof that failed stays in the record and holds everything up: the isolation is not proven, whatever was proved before.
 * It is proved again only with a written cause, by another person or with another instrument; or it was entered in error, and
 * another person who looked at the instrument says so. Common practice, no source.
 */

/** Failures of a step that nothing has answered yet. */
export function openFailures({ failures = [] }: Pick<WalkStep, "failures">): readonly Failure[] {
  return failures.filter(({ settled_ms, inError }) => settled_ms === null && inError === null);
}

/** Done, and not found wanting since. */
export function isDone(step: WalkStep): boolean {
  return step.done !== null && openFailures(step).length === 0;
}

/** What the plant said against a step, as far as the refusal of the report says it; null where the report was at fault. */
export function failureOf(refusal: Refusal, command: StepCommand): Failure | null {
  const failure = (what: Failure["what"], reading: number | null, unit: string | null): Failure => ({
    what,
    reading,
    unit,
    instrument: (command.tester ?? command.instrument)?.trim() || null,
    by: command.by,
    at_ms: command.at_ms,
    cause: null,
    inError: null,
    settled_ms: null,
  });
  switch (refusal.code) {
    case "reading not safe":
    case "not zero":
      return failure("not safe", refusal.reading, refusal.unit);
    case "leaks":
      return failure("leaks", refusal.lost, "bar");
    case "it started":
      return failure("started", null, null);
    default:
      return null;
  }
}

/** Why this person may not try it again with this; null when they may, and where nothing failed. */
export function secondProofFault(step: WalkStep, command: StepCommand): Refusal | null {
  const open = openFailures(step);
  const last = open.at(-1);
  if (last === undefined) return null;
  if (open.some(({ cause }) => cause === null)) return { code: "cause first", step: stepLabel(step) };
  const instrument = (command.tester ?? command.instrument)?.trim() || null;
  const isOther = instrument !== null && last.instrument !== null && !sameText(instrument, last.instrument);
  return command.by === last.by && !isOther ? { code: "same hands", step: stepLabel(step) } : null;
}

const sameText = (a: string, b: string) => a.toUpperCase() === b.toUpperCase();

/** The step with one more failure; its proof of before, if it had one, counts no more. */
export function failed(life: IsolationLife, step: WalkStep, failure: Failure): IsolationLife {
  const steps = life.steps.map((one) =>
    one.id === step.id ? { ...one, failures: [...(one.failures ?? []), failure] } : one,
  );
  return { ...life, steps, state: life.state === "proven" ? "isolating" : life.state };
}

/** The step done again, well: what failed before is answered by it. */
export function settled(step: WalkStep, at_ms: number): Pick<WalkStep, "failures"> {
  if (step.failures === undefined) return {};
  const open = openFailures(step);
  return { failures: step.failures.map((one) => (open.includes(one) ? { ...one, settled_ms: at_ms } : one)) };
}

/** The cause written down, or the entry taken back by another who looked. */
export function answerFailure(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "find cause" | "entered in error" }>,
  facts: Pick<IsolationFacts, "nameOf">,
): Result<IsolationLife> {
  const step = life.steps.find(({ id }) => id === command.step);
  if (step === undefined) return refuse({ code: "unknown", what: "step", name: command.step });
  const open = openFailures(step);
  const last = open.at(-1);
  if (last === undefined) return refuse({ code: "nothing failed", step: stepLabel(step) });
  const said = { by: command.by, at_ms: command.at_ms, words: command.words.trim() };
  if (command.type === "entered in error" && last.by === command.by) {
    return refuse({ code: "another takes it back", step: stepLabel(step), by: facts.nameOf(last.by) });
  }
  const answered = (one: Failure): Failure => {
    if (!open.includes(one)) return one;
    if (command.type === "find cause") return one.cause === null ? { ...one, cause: said } : one;
    return one === last ? { ...one, inError: said } : one;
  };
  return accept({
    ...life,
    steps: life.steps.map((one) => (one === step ? { ...one, failures: step.failures!.map(answered) } : one)),
  });
}

/**
 * Work locations by what was shown of them: every proof there done, standing and not too old, or one that failed and is not
 * answered. `stale` are the proofs that count no more, by their labels and why.
 */
export function shownOf(
  steps: readonly WalkStep[],
  stale: readonly string[],
): Readonly<{ proven: string[]; notProved: string[] }> {
  const isOld = (step: WalkStep) => stale.some((one) => one.startsWith(`${stepLabel(step)},`));
  const proofs = steps.filter(({ kind }) => kind === "prove");
  const faces = [...new Set(proofs.map(({ subject }) => subject))];
  const at = (face: string) => proofs.filter(({ subject }) => subject === face);
  return {
    proven: faces.filter((face) => at(face).every((step) => isDone(step) && !isOld(step))),
    notProved: faces.filter((face) => at(face).some((step) => openFailures(step).length > 0)),
  };
}

/** Work locations that may be said to be proved now, and those of which nobody may say so. */
type Shown = Readonly<{ proven: readonly string[]; notProved: readonly string[] }>;

/**
 * What was shown of each work location, and counts now: where a proof failed or must be done again, where the plan fell and left it
 * open, and wherever nobody knows what the points still hold back, it does not.
 */
export function shownNow(steps: readonly WalkStep[], fault: NotHeld | null, stale: readonly string[]): Shown {
  const { proven, notProved } = shownOf(steps, stale);
  const all = [...new Set([...notProved, ...openBy(fault, proven)])];
  return { proven: proven.filter((face) => !all.includes(face)), notProved: all };
}

/** Work locations that a fault of the whole isolation takes with it, of those that were proven. */
function openBy(fault: NotHeld | null, proven: readonly string[]): readonly string[] {
  switch (fault?.code) {
    case undefined:
    // Its steps say themselves what is open.
    case "not proven":
      return [];
    // Without its lock, and on a register that nobody judged it by, nobody knows what a point holds back.
    case "locks not found":
    case "not judged":
      return proven;
    case "plan fell":
      return fault.lostPoints.length > 0 ? proven : [...fault.missingFaces, ...fault.short.map(({ face }) => face)];
  }
}
