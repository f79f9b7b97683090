import type { Competence, PersonId } from "../people/roles";
import { stepLabel, type PlannedStep } from "../isolation/steps";
import { accept, refuse, type Result } from "../result";

/**
 * The life of an isolation.
 *
 *   isolating ──last isolate step──▶ proven ──start return──▶ restoring ──last restore step──▶ restored
 *       └────────────start return (the job is given up)──────────▲
 *
 * Invariants, asserted by checkIsolation:
 *   1. A step is done only after every step in its `after`.
 *   2. It is proven, restoring or restored only by the steps: proven means every isolate step is done.
 *   3. No restore step is done unless it was restoring.
 *   4. A lock step that is done names its lock, and no two points share one.
 */
export type IsolationLife = Readonly<{
  number: string;
  state: "isolating" | "proven" | "restoring" | "restored";
  steps: readonly WalkStep[];
}>;

export type WalkStep = PlannedStep & Readonly<{ done: Done | null }>;

export type Done = Readonly<{
  by: PersonId;
  at_ms: number;
  lock: string | null;
  reading: number | null;
  /** Restore steps of points that never were locked are passed over, not done. */
  skipped: boolean;
}>;

export type IsolationCommand =
  | Readonly<{
      type: "do step";
      step: string;
      by: PersonId;
      competences: readonly Competence[];
      at_ms: number;
      plate: string | null;
      lock: string | null;
      reading: number | null;
      testerProved: boolean;
      /** Locks counted on the box by the person who wants to lift one. */
      locksCounted: number | null;
    }>
  | Readonly<{ type: "start return"; by: PersonId; at_ms: number }>;

/** What the server measured, and no browser may send. */
export type IsolationFacts = Readonly<{
  /** Where a lock hangs now, in words; missing when it hangs nowhere. */
  lockHangs: (lock: string) => string | undefined;
  /** Names of the people whose personal locks hang on this isolation's box. */
  peopleOn: readonly string[];
  /** Numbers of permits on this isolation that are not closed. */
  openPermits: readonly string[];
  nameOf: (person: PersonId) => string;
}>;

/** The only way an isolation changes. */
export function decideIsolation(
  life: IsolationLife,
  command: IsolationCommand,
  facts: IsolationFacts,
): Result<IsolationLife> {
  switch (command.type) {
    case "start return":
      return startReturn(life, command, facts);
    case "do step":
      return doStep(life, command, facts);
  }
}

function startReturn(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "start return" }>,
  facts: IsolationFacts,
): Result<IsolationLife> {
  if (life.state !== "proven" && life.state !== "isolating") {
    return refuse({ code: "wrong state", what: `Isolation ${life.number}`, state: life.state, needs: "in place" });
  }
  if (facts.peopleOn.length > 0) return refuse({ code: "people on", people: facts.peopleOn });
  if (facts.openPermits.length > 0) return refuse({ code: "permits open", permits: facts.openPermits });
  // What was never done need not be undone: those steps are passed over, so that the return can be walked to its end.
  const undone = new Set(
    life.steps.filter((step) => step.phase === "isolate" && !step.done).map((step) => step.subject),
  );
  const passed: Done = { by: command.by, at_ms: command.at_ms, lock: null, reading: null, skipped: true };
  return accept({
    ...life,
    state: "restoring",
    steps: life.steps.map((step) =>
      step.phase === "restore" && (step.kind === "unlock" || step.kind === "close bleed") && undone.has(step.subject)
        ? { ...step, done: passed }
        : step,
    ),
  });
}

function doStep(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "do step" }>,
  facts: IsolationFacts,
): Result<IsolationLife> {
  const step = life.steps.find(({ id }) => id === command.step);
  if (step === undefined) return refuse({ code: "unknown", what: "step", name: command.step });
  const label = stepLabel(step);
  if (step.done) return refuse({ code: "already done", what: label, by: facts.nameOf(step.done.by) });
  const needs = step.phase === "isolate" ? "isolating" : "restoring";
  if (life.state !== needs) {
    return refuse({ code: "wrong state", what: `Isolation ${life.number}`, state: life.state, needs });
  }
  const first = life.steps.filter(({ id, done }) => step.after.includes(id) && !done);
  if (first.length > 0) return refuse({ code: "out of order", step: label, first: first.slice(0, 3).map(stepLabel) });
  if (step.competence !== null && !command.competences.includes(step.competence)) {
    return refuse({ code: "not competent", step: label, needs: step.competence });
  }
  if (step.plate !== null && !samePlate(command.plate, step.plate)) {
    return refuse({ code: "wrong plate", seen: command.plate?.trim() ?? "", expected: step.plate });
  }
  const lock = command.lock?.trim() ?? "";
  if (step.kind === "lock") {
    if (lock === "") return refuse({ code: "lock missing", step: label });
    const where = facts.lockHangs(lock);
    if (where !== undefined) return refuse({ code: "lock in use", lock, where });
  }
  if (step.limit !== null) {
    if (command.reading === null)
      return refuse({ code: "reading missing", step: label, what: `the reading in ${step.limit.unit}` });
    if (Math.abs(command.reading) > step.limit.most) {
      return refuse({
        code: "reading not safe",
        step: label,
        reading: command.reading,
        limit: step.limit.most,
        unit: step.limit.unit,
      });
    }
    if (step.limit.unit === "V" && !command.testerProved) return refuse({ code: "tester not proved", step: label });
    const hungOne = life.steps.some((other) => other.kind === "lock" && other.done?.by === command.by);
    if (step.secondPerson && hungOne) return refuse({ code: "second person needed", step: label });
  }
  if (step.phase === "restore") {
    if (facts.peopleOn.length > 0) return refuse({ code: "people on", people: facts.peopleOn });
    if (step.kind === "unlock") {
      if (command.locksCounted === null) {
        return refuse({
          code: "reading missing",
          step: label,
          what: "the number of personal locks you see on the box",
        });
      }
      if (command.locksCounted !== facts.peopleOn.length) {
        return refuse({ code: "count differs", counted: command.locksCounted, known: facts.peopleOn.length });
      }
    }
  }
  const done: Done = {
    by: command.by,
    at_ms: command.at_ms,
    lock: step.kind === "lock" ? lock : null,
    reading: step.limit === null ? null : command.reading,
    skipped: false,
  };
  const steps = life.steps.map((other) => (other.id === step.id ? { ...other, done } : other));
  return accept({ ...life, steps, state: stateAfter(life.state, steps) });
}

function stateAfter(state: IsolationLife["state"], steps: readonly WalkStep[]): IsolationLife["state"] {
  const allDone = (phase: WalkStep["phase"]) => steps.every((step) => step.phase !== phase || step.done);
  if (state === "isolating" && allDone("isolate")) return "proven";
  if (state === "restoring" && allDone("restore")) return "restored";
  return state;
}

/** Points that are locked now: done to lock, and not yet done to unlock. */
export function lockedPoints(life: IsolationLife): WalkStep[] {
  const lifted = new Set(life.steps.filter((step) => step.kind === "unlock" && step.done).map((step) => step.subject));
  return life.steps.filter((step) => step.kind === "lock" && step.done && !lifted.has(step.subject));
}

/** Capitals, spaces and hyphens are read differently off a dirty plate; letters and digits are not. */
export function samePlate(seen: string | null, plate: string): boolean {
  const bare = (text: string) => text.toUpperCase().replace(/[\s.\-–_]/g, "");
  return seen !== null && bare(seen) === bare(plate);
}

/** Throws when an invariant is broken; run after every step in tests. */
export function checkIsolation(life: IsolationLife): void {
  const doneIds = new Set(life.steps.filter((step) => step.done).map((step) => step.id));
  const broken = (rule: number, step?: WalkStep) => {
    throw new Error(`invariant ${rule} of isolation ${life.number} is broken${step ? ` at ${stepLabel(step)}` : ""}`);
  };
  const locks = new Set<string>();
  for (const step of life.steps) {
    if (!step.done) continue;
    if (!step.done.skipped && step.after.some((id) => !doneIds.has(id))) broken(1, step);
    if (step.phase === "restore" && life.state !== "restoring" && life.state !== "restored") broken(3, step);
    if (step.kind === "lock") {
      if (!step.done.lock || locks.has(step.done.lock)) broken(4, step);
      locks.add(step.done.lock!);
    }
  }
  const isolated = life.steps.every((step) => step.phase !== "isolate" || step.done);
  if ((life.state === "proven") !== (isolated && life.state !== "restoring" && life.state !== "restored")) broken(2);
}
