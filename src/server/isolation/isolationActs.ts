import { mayBeSignedLater } from "../../core/isolation/keepable";
import { z } from "zod";
import { gearNumber, numberText } from "../../core/gear/gearNumber";
import { stepLabel } from "../../core/procedure/steps";
import { facesBehind } from "../../core/procedure/testSteps";
import { decideBox, type BoxCommand } from "../../core/box/boxLife";
import { decideIsolation } from "../../core/isolation/isolationLife";
import {
  EMPTIED_HOW,
  STRIKES_OUT,
  type Failure,
  type IsolationCommand,
  type IsolationLife,
  type WalkStep,
} from "../../core/isolation/isolation";
import { personIdSchema } from "../../core/people/personIdSchema";
import type { PersonId } from "../../core/people/roles";
import { liftHarms } from "../../core/guard/liftHarms";
import type { Refusal } from "../../core/refusal/refusal";
import type { Tx } from "../db/database";
import { boxFacts, loadBox, saveBox } from "../box/boxStore";
import { isolationFacts, loadIsolation, newlyDone, saveIsolation, type StoredIsolation } from "./isolationStore";
import { strike } from "../job/jobStore";
import { liveJobs } from "./liveJobs";
import { isActive } from "./watching";
import { boxesOf } from "../box/locks";
import { currentPlant } from "../plant/plantStore";
import { saveTemporary, temporariesOf } from "./temporaryStore";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";

const optionalText = z.string().max(60, "at most 60 characters").nullish();
const optionalNumberText = numberText().nullish();
const optionalNumber = z.number("must be a number, written with a point").nullish();
const countOf = (what: string) => z.number(`the number of ${what} must be a whole number`).int().min(0).nullish();

/** What a person reports of a step, as it arrives. */
export const reportSchema = z.object({
  plate: optionalText,
  lock: optionalNumberText,
  readings: z.record(z.string().max(60), z.number("every reading must be a number, written with a point")).optional(),
  tester: optionalNumberText,
  provingUnit: optionalNumberText,
  knownSource: optionalText,
  knownSource_V: optionalNumber,
  provedBefore: z.boolean().optional(),
  provedAfter: z.boolean().optional(),
  gloves: optionalNumberText,
  reading: z.number("the reading must be a number, written with a point").nullish(),
  instrument: optionalNumberText,
  started: z.boolean().optional(),
  tried: z.array(z.string().max(80)).max(20).optional(),
  earths: z
    .record(z.string().max(60), z.string().trim().max(80))
    .transform((earths) => Object.fromEntries(Object.entries(earths).map(([number, at]) => [gearNumber(number), at])))
    .optional(),
  locksCounted: countOf("locks"),
  peopleCounted: countOf("people"),
  pressure_bar: optionalNumber,
  held_min: optionalNumber,
  lost_bar: optionalNumber,
  words: z.string().max(500, "at most 500 characters").nullish(),
  photo: z.string().max(60).nullish(),
});

const stepInput = reportSchema.extend({ isolation: z.string(), step: z.string() });
export const WALKERS = ["isolator", "operator", "coordinator"] as const;

export const doStep = defineAct({
  type: "step.do",
  words: "carry out a step of an isolation",
  roles: WALKERS,
  pin: true,
  offline: true,
  input: stepInput,
  run: (context, { isolation, ...input }) =>
    changeIsolation(context, isolation, { ...by(context), ...input, type: "do step" }),
});

/** What a step runs for a time with is turned on; its time runs from then, by the server's clock and no device's. */
export const beginStep = defineAct({
  type: "step.begin",
  words: "begin a step that runs for a time",
  roles: WALKERS,
  pin: true,
  input: z.object({
    isolation: z.string(),
    step: z.string(),
    watcher: personIdSchema.optional(),
    how: z.enum(EMPTIED_HOW, { error: `must be ${EMPTIED_HOW.join(" or ")}` }).optional(),
  }),
  run: (context, { isolation, ...input }) => {
    const who = input.watcher;
    if (who !== undefined && !isActive(context.tx, who)) {
      return { ok: false, subject: isolation, refusal: { code: "unknown", what: "person who watches", name: who } };
    }
    return changeIsolation(context, isolation, { ...by(context), ...input, type: "begin step" });
  },
});

/** What runs is turned off before its time: whoever watched was called away. */
export const stopStep = defineAct({
  type: "step.stop",
  protects: true,
  words: "say that what ran was turned off",
  roles: [],
  pin: true,
  input: z.object({
    isolation: z.string(),
    step: z.string(),
    words: z.string("why is missing").trim().min(3, "write why").max(500, "at most 500 characters"),
  }),
  run: (context, { isolation, ...input }) =>
    changeIsolation(context, isolation, { ...by(context), ...input, type: "stop step" }),
});

export const proveAgain = defineAct({
  type: "step.prove-again",
  words: "prove again what an isolation holds",
  roles: WALKERS,
  pin: true,
  input: stepInput,
  run: (context, { isolation, ...input }) =>
    changeIsolation(context, isolation, { ...by(context), ...input, type: "prove again" }),
});

export const canDoStep = defineAct({
  type: "step.can",
  words: "say that a step can be done after all",
  roles: WALKERS,
  pin: true,
  input: z.object({
    isolation: z.string(),
    step: z.string(),
    words: z.string("what changed is missing").trim().min(3, "write what changed").max(500, "at most 500 characters"),
  }),
  run: (context, input) => {
    const stored = loadIsolation(context.tx, input.isolation);
    const outcome = changeIsolation(context, input.isolation, {
      ...by(context),
      type: "can",
      step: input.step,
      words: input.words,
    });
    const step = stored?.life.steps.find(({ id }) => id === input.step);
    if (outcome.ok && stored && step && STRIKES_OUT.has(step.kind)) {
      strike(context.tx, stored, step.subject, false);
    }
    return outcome;
  },
});

const answerInput = (what: string) =>
  z.object({
    isolation: z.string(),
    step: z.string(),
    words: z.string(`${what} is missing`).trim().min(3, `write ${what}`).max(500, "at most 500 characters"),
  });

/** What a failed proof came from: written down before anybody proves it again. */
export const findCause = defineAct({
  type: "step.cause",
  words: "write down what a failed proof came from",
  roles: WALKERS,
  pin: true,
  input: answerInput("what it came from"),
  run: (context, { isolation, ...input }) =>
    changeIsolation(context, isolation, { ...by(context), ...input, type: "find cause" }),
});

/** It was never so: another person looked at the instrument. The entry stays, marked. */
export const enteredInError = defineAct({
  type: "step.entered-in-error",
  words: "take back what was entered in error",
  roles: WALKERS,
  pin: true,
  input: answerInput("what the instrument showed"),
  run: (context, { isolation, ...input }) =>
    changeIsolation(context, isolation, { ...by(context), ...input, type: "entered in error" }),
});

export const startReturn = defineAct({
  type: "return.start",
  words: "start restoring",
  // Who works alone under a minor isolation begins it themselves; the decision says whose it is.
  roles: ["coordinator", "isolator"],
  pin: true,
  input: z.object({
    isolation: z.string(),
    leftSafe: z.string().trim().max(500, "at most 500 characters").default(""),
  }),
  run: (context, { isolation, leftSafe }) =>
    changeIsolation(context, isolation, { ...by(context), type: "start return", leftSafe }),
});

/** Who did it, with what they have been found able to do, and when. */
export function by({ person, done_ms, kept }: ActContext) {
  return { by: person.id, competences: person.competences, roles: person.roles, at_ms: done_ms, kept };
}

/** Load, decide, save: the isolation and its box together, or neither. */
export function changeIsolation(context: ActContext, number: string, command: IsolationCommand): ActOutcome {
  const { tx, now_ms, kept } = context;
  const refused = (refusal: Refusal) => ({ ok: false, subject: number, refusal }) as const;
  const stored = loadIsolation(tx, number);
  if (stored === null) return refused({ code: "unknown", what: "isolation", name: number });
  const step = "step" in command ? stored.life.steps.find(({ id }) => id === command.step) : undefined;
  if (kept && step && !mayBeSignedLater(step)) return refused({ code: "online only", act: `do ${stepLabel(step)}` });
  const harm = liftFault(tx, stored, command);
  if (harm) return refused(harm);
  const decided = decideIsolation(stored.life, command, isolationFacts(tx, stored.row));
  if (!decided.ok) return refused(decided.refusal);
  const done = newlyDone(stored.life, decided.value);
  const boxes = boxesOf(tx, [stored.row.id]);
  const opens = decided.value.state === "restoring" || done.some((one) => one.kind === "open box");
  const at = { by: command.by, at_ms: command.at_ms };
  for (const { id, state } of boxes) {
    // Opening it may refuse, so that comes before anything is written.
    const fault = opens && state === "closed" ? moveBox(tx, id, { ...at, type: "open" }) : null;
    if (fault) return refused(fault);
  }
  saveIsolation(tx, stored, decided.value, now_ms);
  const returned = decided.value.state === "restored" && stored.life.state !== "restored";
  for (const { id } of boxes) followWithBox(tx, id, done, at, returned);
  if (stored.life.state === "testing" && decided.value.state === "proven") endTests(tx, stored.row.id, now_ms);
  // The step's words go into the ledger, so that a tag can be found there.
  const failure = step && newFailure(step, decided.value);
  if (step && failure) {
    const did = `${stepLabel(step)}: ${FAILED[failure.what]}`;
    return {
      ok: true,
      subject: number,
      answer: { isolation: number, state: decided.value.state, did, failed: failure.what },
    };
  }
  const did = step ? `${command.type === "do step" ? "" : `${command.type} `}${stepLabel(step)}` : command.type;
  return { ok: true, subject: number, answer: { isolation: number, state: decided.value.state, did } };
}

const FAILED: Readonly<Record<Failure["what"], string>> = {
  "not safe": "not proved, the reading is not safe",
  leaks: "it leaks",
  started: "it started",
};

/** What failed at this step just now. */
function newFailure(before: WalkStep, after: IsolationLife): Failure | undefined {
  const step = after.steps.find(({ id }) => id === before.id);
  return (step?.failures?.length ?? 0) > (before.failures?.length ?? 0) ? step!.failures!.at(-1) : undefined;
}

/** Keys of what was just hung or lifted, and the box closed or given back. It cannot refuse what the isolation allowed. */
function followWithBox(
  tx: Tx,
  id: string,
  done: readonly WalkStep[],
  at: Readonly<{ by: PersonId; at_ms: number }>,
  returned: boolean,
): void {
  const move = (command: BoxCommand) => {
    const fault = moveBox(tx, id, command);
    if (fault) throw new Error(`box ${id} does not follow its isolation at ${command.type}: ${fault.code}`);
  };
  for (const step of done) {
    if (step.kind === "lock") move({ ...at, type: "take key", lock: step.done!.lock!, point: step.subject });
    // Planned anew under a standing lock it was never opened: the new keys went in by the slot.
    if (step.kind === "close box" && loadBox(tx, { id })!.life.state === "open") move({ ...at, type: "close" });
    if (step.kind !== "unlock") continue;
    const keys = loadBox(tx, { id })!.life.keys.filter((key) => key.point === step.subject);
    for (const { lock } of keys) move({ ...at, type: "give key back", lock });
  }
  if (returned) move({ ...at, type: "return" });
}

/** One change of a box: load, decide, save. Answers why not. */
export function moveBox(tx: Tx, id: string, command: BoxCommand): Refusal | null {
  const box = loadBox(tx, { id });
  if (box === null) throw new Error(`box ${id} is gone`);
  const decided = decideBox(box.life, command, boxFacts(tx, id));
  if (!decided.ok) return decided.refusal;
  saveBox(tx, box, decided.value);
  return null;
}

function endTests(tx: Tx, isolationId: string, now_ms: number): void {
  for (const one of temporariesOf(tx, isolationId)) {
    if (one.state === "running") saveTemporary(tx, { ...one, state: "ended", endedAt_ms: now_ms });
  }
}

/** Before a lock is lifted: would anybody else's work lose a barrier it counts on? Asked of the plant as it is today. */
function liftFault(tx: Tx, stored: StoredIsolation, command: IsolationCommand): Refusal | null {
  const { life } = stored;
  const step = command.type === "do step" ? life.steps.find(({ id }) => id === command.step) : undefined;
  const plant = currentPlant(tx);
  if (step?.kind !== "unlock" || step.done || plant === null) return null;
  const agreed = temporariesOf(tx, stored.row.id)
    .filter((one) => one.state === "running")
    .flatMap((one) => one.affected.filter(({ agreedBy }) => agreedBy !== null).map(({ job }) => job));
  const left = liftHarms(plant.graph, liveJobs(tx), {
    isolation: life.number,
    device: step.subject,
    agreed: new Set(agreed),
  });
  if (left.length === 0) return null;
  return {
    code: "would light",
    device: step.subject,
    harms: left
      .slice(0, 3)
      .map(({ job, face, source, depth, grade, people }) => ({ job, face, source, depth, grade, people })),
  };
}

/** Faces of this isolation's own plan that must be proved again once these points are locked again. */
export function facesToProve(stored: StoredIsolation, lift: readonly string[]): string[] {
  const plan = stored.row.plan;
  const behind = facesBehind(plan.routes, plan.points, lift);
  // A point that came by a swap stands in no route of the plan: then every face is proved again.
  const known = lift.every((tag) => plan.points.some((point) => point.device === tag));
  return known && behind.length > 0 ? behind : [...new Set(plan.routes.map(({ face }) => face))];
}
