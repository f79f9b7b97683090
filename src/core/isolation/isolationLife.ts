import { stepLabel, type PlannedStep } from "../procedure/steps";
import { testSteps } from "../procedure/testSteps";
import { accept, refuse, type Result } from "../refusal/result";
import { doStep, proveAgain, stateAfter } from "./doStep";
import { answerFailure, isDone } from "./failures";
import { afterItsCause } from "./causes";
import { beginStep, stopStep } from "./held";
import {
  ASKS_ANOTHER_PLAN,
  open,
  phaseState,
  wrongState,
  type Done,
  type IsolationCommand,
  type IsolationFacts,
  type IsolationLife,
  type Stuck,
  type WalkStep,
} from "./isolation";
import { lockedPoints } from "./lockedPoints";
import { mergeSteps } from "./mergeSteps";

/**
 * The life of an isolation.
 *
 *   isolating ──last isolate step──▶ proven ──start return──▶ restoring ──last restore step──▶ restored
 *     │ ▲  └───────────────start return (the job is given up)─────▲
 *     │ └─re-plan              ▲ │
 *     └───▶ (a step is stuck)  │ └─start test─▶ testing ─┐
 *                              └────last test step───────┘
 *
 * Invariants, asserted by checkIsolation:
 *   1. A step is done only after every step in its `after`.
 *   2. It is proven, testing, restoring or restored only by the steps: proven means every isolate and test step is done.
 *   3. No restore step is done unless it was restoring.
 *   4. A lock step that is done names its lock, and no two points that are locked now share one.
 *   5. A step that is stuck is not done, and nothing is proven while one is.
 *   6. Every point that is locked has one step that unlocks it and is still open.
 *   7. Nothing that failed is lost: a step has its failures as long as it lives, and nothing is proven over an open one.
 *   8. Nothing is done before what it follows: the approval, and every step in its `after`.
 *
 * This is the only way an isolation changes.
 */
export function decideIsolation(
  life: IsolationLife,
  asked: IsolationCommand,
  facts: IsolationFacts,
): Result<IsolationLife> {
  const short = shortRouteFault(life, asked, facts);
  if (short) return short;
  const timed = afterItsCause(life, asked, facts);
  if (!timed.ok) return timed;
  const command = timed.value;
  switch (command.type) {
    case "do step":
      return doStep(life, command, facts);
    case "prove again":
      return proveAgain(life, command, facts);
    case "cannot":
    case "can":
      return stick(life, command, facts);
    case "stop step":
      return stopStep(life, command);
    case "begin step":
      return beginStep(life, command, facts);
    case "find cause":
      return answerFailure(life, command, facts);
    case "entered in error": {
      const answered = answerFailure(life, command, facts);
      if (!answered.ok) return answered;
      const { state, steps } = answered.value;
      return accept({ ...answered.value, state: stateAfter(state, steps) });
    }
    case "re-plan": {
      return rePlan(life, command, facts);
    }
    case "start test":
      return startTest(life, command, facts);
    case "start return":
      return startReturn(life, command, facts);
  }
}

/**
 * A minor isolation is not planned anew, lifted for a test or taken back by others: what is more than one lock is given up and
 * planned in full. Restoring is begun by the one who works alone under it; of any other isolation by a coordinator.
 */
function shortRouteFault(life: IsolationLife, command: IsolationCommand, facts: IsolationFacts) {
  const isMinor = life.steps.some(({ alone }) => alone === true);
  switch (command.type) {
    case "re-plan":
    case "start test":
      return isMinor ? refuse({ code: "short route", what: life.number, isMinor }) : null;
    case "begin step":
    case "cannot":
      return isMinor && facts.alone !== null && facts.alone !== command.by
        ? refuse({ code: "works alone", step: command.step, who: facts.nameOf(facts.alone) })
        : null;
    case "start return":
      if (command.roles.includes("coordinator") || (isMinor && facts.alone === command.by)) return null;
      return refuse({
        code: "not yours to do",
        act: "start restoring",
        needs: ["coordinator", ...(isMinor ? ["who works alone under it"] : [])],
      });
    case "do step":
    // What one could not do, another says can be done: that is what it takes here too.
    case "can":
    case "prove again":
    case "stop step":
    case "find cause":
    case "entered in error":
      return null;
  }
}

/**
 * While it is being hung, or after its plan fell under it and everybody is off: then it is proven again only when all that
 * the new plan wants is done.
 */
function rePlan(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "re-plan" }>,
  facts: IsolationFacts,
): Result<IsolationLife> {
  const fell = life.state === "proven" && facts.planFell;
  if (life.state !== "isolating" && !fell) return wrongState(life, "isolating");
  if (fell && facts.peopleOn.length > 0) return refuse({ code: "people on", people: facts.peopleOn });
  const steps = mergeSteps(life.steps, command.steps);
  const all = steps.every((step) => step.phase !== "isolate" || isDone(step));
  return accept({ ...life, state: all ? "proven" : "isolating", steps });
}

function stick(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "cannot" | "can" }>,
  facts: IsolationFacts,
): Result<IsolationLife> {
  const step = life.steps.find(({ id }) => id === command.step);
  if (step === undefined) return refuse({ code: "unknown", what: "step", name: command.step });
  if (step.done) return refuse({ code: "already done", what: stepLabel(step), by: facts.nameOf(step.done.by) });
  if (life.state !== phaseState(step.phase)) return wrongState(life, phaseState(step.phase));
  if (command.type === "can") {
    if (step.stuck === null) return refuse({ code: "already done", what: `Freeing ${stepLabel(step)}` });
    const { why, by } = step.stuck;
    if (ASKS_ANOTHER_PLAN.has(why)) return refuse({ code: "needs another plan", step: stepLabel(step), why });
    if (by === command.by) return refuse({ code: "another frees it", step: stepLabel(step), by: facts.nameOf(by) });
  }
  const stuck: Stuck | null =
    command.type === "can"
      ? null
      : { why: command.why, words: command.words.trim(), by: command.by, at_ms: command.at_ms };
  return accept({ ...life, steps: life.steps.map((one) => (one.id === step.id ? { ...one, stuck } : one)) });
}

function startTest(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "start test" }>,
  facts: IsolationFacts,
): Result<IsolationLife> {
  if (life.state !== "proven") return wrongState(life, "proven");
  if (facts.peopleOn.length > 0) return refuse({ code: "people on", people: facts.peopleOn });
  const locked = new Set(lockedPoints(life).map((step) => step.subject));
  const strange = command.lift.find((tag) => !locked.has(tag));
  if (strange !== undefined) {
    return refuse({ code: "unknown", what: `lock of isolation ${life.number} on`, name: strange });
  }
  if (command.lift.length === 0) return refuse({ code: "unknown", what: "point to lift", name: "" });
  // Under another's lock nothing turns: whoever thinks it will would try it another way.
  const held = command.lift.flatMap((point) => {
    const by = facts.heldByOthers(point);
    return by.length > 0 ? [{ point, by }] : [];
  });
  if (held.length > 0) return refuse({ code: "held by others", step: "the test", held });
  const added = testSteps(life.steps, command.lift, command.proveAgain);
  return accept({ ...life, state: "testing", steps: [...life.steps, ...added.map(open)] });
}

function startReturn(
  life: IsolationLife,
  command: Extract<IsolationCommand, { type: "start return" }>,
  facts: IsolationFacts,
): Result<IsolationLife> {
  if (life.state !== "proven" && life.state !== "isolating") return wrongState(life, "in place");
  if (facts.peopleOn.length > 0) return refuse({ code: "people on", people: facts.peopleOn });
  if (facts.openPermits.length > 0) return refuse({ code: "permits open", permits: facts.openPermits });
  if (facts.standingOn.length > 0) return refuse({ code: "box locked", people: facts.standingOn });
  // What is half taken apart is not given back because its paper is closed.
  if (facts.workLeft.length > 0 && !command.leftSafe) return refuse({ code: "work left", left: facts.workLeft });
  // What was never done need not be undone: those steps are passed over, so that the return can be walked to its end.
  const stands = new Set(
    life.steps.filter((step) => step.phase === "isolate" && step.done).map((step) => `${step.kind} ${step.subject}`),
  );
  const passed: Done = {
    by: command.by,
    at_ms: command.at_ms,
    lock: null,
    reading: null,
    skipped: true,
    evidence: null,
  };
  return accept({
    ...life,
    state: "restoring",
    steps: life.steps.map((step) => {
      const undoes = UNDOES[step.kind];
      if (step.phase !== "restore" || undoes === undefined) return step;
      return undoes.some((kind) => stands.has(`${kind} ${step.subject}`)) ? step : { ...step, done: passed };
    }),
  });
}

/** What each of these steps takes away again. */
const UNDOES: Readonly<Partial<Record<PlannedStep["kind"], readonly PlannedStep["kind"][]>>> = {
  unlock: ["lock"],
  "close bleed": ["bleed"],
  "remove earth": ["earth"],
  "take short off": ["discharge"],
  "end stand-in": ["stand in"],
  "take pin out": ["restrain", "run down"],
  "take barriers away": ["bar off"],
};

/** Throws when an invariant is broken; run after every step in tests. */
export function checkIsolation(life: IsolationLife): void {
  const doneIds = new Set(life.steps.filter((step) => step.done).map((step) => step.id));
  const broken = (rule: number, step?: WalkStep) => {
    throw new Error(`invariant ${rule} of isolation ${life.number} is broken${step ? ` at ${stepLabel(step)}` : ""}`);
  };
  for (const step of life.steps) {
    if (step.stuck && (step.done || life.state === "proven")) broken(5, step);
    if (!step.done) continue;
    if (!step.done.skipped && step.after.some((id) => !doneIds.has(id))) broken(1, step);
    // What is proved, or done again after it failed, stands at its last moment.
    const before = life.steps.filter(
      ({ id, kind, done, failures }) => done && step.after.includes(id) && kind !== "prove" && failures === undefined,
    );
    if (!step.done.skipped && before.some(({ done }) => done!.at_ms > step.done!.at_ms)) broken(8, step);
    if (step.phase === "restore" && life.state !== "restoring" && life.state !== "restored") broken(3, step);
    if (step.kind === "lock" && !step.done.lock) broken(4, step);
  }
  const locked = lockedPoints(life);
  if (new Set(locked.map((step) => step.done!.lock)).size < locked.length) broken(4);
  for (const point of locked) {
    const back = life.steps.filter(
      (step) => step.phase === "restore" && step.kind === "unlock" && step.subject === point.subject && !step.done,
    );
    if (back.length !== 1) broken(6, point);
  }
  const over = life.state === "restoring" || life.state === "restored";
  const isolated = life.steps.every((step) => step.phase !== "isolate" || isDone(step));
  const tested = life.steps.every((step) => step.phase !== "test" || isDone(step));
  if ((life.state === "proven") !== (isolated && tested && !over)) broken(2);
  if (life.state === "testing" && (!isolated || tested)) broken(2);
}
