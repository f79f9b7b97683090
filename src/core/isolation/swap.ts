import { isHighVoltage } from "../procedure/highVoltage";
import { competenceMissing } from "../procedure/competent";
import type { StandingJob } from "../guard/liftHarms";
import { proveSwap } from "../guard/proveSwap";
import { siteLockFault, type Gear } from "../gear/gear";
import type { Competence, PersonId } from "../people/roles";
import { competenceFor, stepLabel, type PlannedStep } from "../procedure/steps";
import { accept, refuse, type Result } from "../refusal/result";
import type { StateGraph } from "../trace/stateGraph";
import { samePlate, type Done, type IsolationLife, type WalkStep } from "./isolation";

export type SwapCommand = Readonly<{
  by: PersonId;
  at_ms: number;
  competences: readonly Competence[];
  from: string;
  to: string;
  plate: string;
  lock: string;
  reason: string;
}>;

export type SwapFacts = Readonly<{
  graph: StateGraph;
  /** Every job that stands on locked points, this isolation's among them. */
  live: readonly StandingJob[];
  /** Names of the people whose locks hang on this isolation's box or points. */
  peopleOn: readonly string[];
  gear: (kind: "lock", number: string) => Gear | undefined;
  lockHangs: (lock: string) => string | undefined;
  nameOf: (person: PersonId) => string;
  /** Ids of the steps that it is written down as; the last for another look at the new point, where one is asked. */
  ids: readonly [hang: string, lift: string, look: string];
}>;

/**
 * One point of a standing isolation for another: the new lock is hung first, then the old one lifted, by one person on the
 * spot, and both are steps of the isolation from then on. On the way back the new point is lifted where the old one would
 * have been. Nobody loses a barrier they count on at any moment of it, and nobody of its own is on: the key of the lock to
 * be lifted is in the box that their locks hang on. Where somebody else had to look at the old point, somebody else looks at
 * the new one before anybody counts on the isolation again.
 *
 * Cost: proveSwap.
 */
export function decideSwap(life: IsolationLife, command: SwapCommand, facts: SwapFacts): Result<IsolationLife> {
  const { from, to } = command;
  if (life.state !== "isolating" && life.state !== "proven") {
    return refuse({ code: "wrong state", what: `Isolation ${life.number}`, state: life.state, needs: "standing" });
  }
  if (life.steps.some(({ alone }) => alone === true)) {
    return refuse({ code: "short route", what: life.number, isMinor: true });
  }
  const own = facts.live.filter(({ isolation }) => isolation === life.number);
  if (!own.some(({ holds }) => holds.includes(from))) {
    return refuse({ code: "unknown", what: "lock of this isolation on", name: from });
  }
  if (own.some(({ holds }) => holds.includes(to))) {
    return refuse({ code: "already done", what: `Locking ${to} for this isolation` });
  }
  // A point that the plan locks anyway is locked by its own step, in its place: hung twice it would be lifted twice.
  if (
    life.steps.some(
      ({ phase, kind, subject, done }) => phase === "isolate" && kind === "lock" && subject === to && !done,
    )
  ) {
    return refuse({ code: "own step first", point: to, isolation: life.number });
  }
  const fault = proveSwap(facts.graph, facts.live, { jobs: own.map(({ number }) => number), from, to });
  if (fault) return refuse({ code: "swap not proved", fault });
  const [hang, lift] = swapSteps(command, facts);
  const label = stepLabel(hang);
  const missing = competenceMissing(hang, command.competences);
  if (missing !== null) return refuse({ code: "not competent", step: label, needs: missing });
  if (!samePlate(command.plate, hang.plate!)) {
    return refuse({ code: "wrong plate", seen: command.plate });
  }
  if (facts.peopleOn.length > 0) return refuse({ code: "people on", people: facts.peopleOn });
  const notOurs = siteLockFault(facts.gear("lock", command.lock), command.lock, facts.nameOf);
  if (notOurs) return refuse(notOurs);
  const where = facts.lockHangs(command.lock);
  if (where !== undefined) return refuse({ code: "lock in use", lock: command.lock, where });
  const looked = life.steps.some((step) => isLookAt(step, from) && step.done);
  const steps = life.steps.map((step) => {
    if (step.phase === "restore" && step.kind === "unlock" && step.subject === from) {
      return { ...step, ...wayBack(hang, from), done: step.done };
    }
    // Nobody looks any more at what hangs no more.
    return isLookAt(step, from) && !step.done ? { ...step, ...lookAt(hang), id: step.id, after: step.after } : step;
  });
  const look: WalkStep[] = looked ? [{ ...hang, ...lookAt(hang), id: facts.ids[2], done: null, stuck: null }] : [];
  const swapped = [...steps, done(hang, command, command.lock), done(lift, command, null), ...look];
  return accept({ ...life, state: looked ? "isolating" : life.state, steps: swapped });
}

/** Another person's look at a point that is locked. */
const isLookAt = ({ phase, kind, subject }: PlannedStep, point: string) =>
  phase === "isolate" && kind === "verify" && subject === point;

function lookAt(
  hang: PlannedStep,
): Pick<PlannedStep, "kind" | "subject" | "plate" | "words" | "competence" | "highVoltage" | "after" | "secondPerson"> {
  const { subject, plate, competence, highVoltage } = hang;
  return {
    kind: "verify",
    subject,
    plate,
    competence,
    highVoltage,
    after: [hang.id],
    secondPerson: true,
    words: `Somebody else looks at ${subject}: right device, right position, lock and tag on it and it does not move.`,
  };
}

function done(step: PlannedStep, { by, at_ms }: SwapCommand, lock: string | null): WalkStep {
  const now: Done = { by, at_ms, lock, reading: null, skipped: false, evidence: null };
  return { ...step, done: now, stuck: null };
}

function swapSteps({ from, to, reason }: SwapCommand, { graph, ids }: SwapFacts): [PlannedStep, PlannedStep] {
  const itemOf = (tag: string) => graph.plant.items[graph.itemByTag.get(tag)!]!;
  const item = itemOf(to);
  const isHigh = (tag: string) => {
    const { voltage_V, device } = itemOf(tag);
    return competenceFor(device?.stops ?? []) === "electrical" && isHighVoltage(voltage_V, device?.stops ?? []);
  };
  const hang: PlannedStep = {
    id: ids[0],
    phase: "isolate",
    kind: "lock",
    subject: to,
    plate: item.plate ?? item.tag,
    words: `Lock ${to} in place of ${from}: ${reason}`,
    competence: competenceFor(item.device!.stops),
    after: [],
    carrier: null,
    limit: null,
    secondPerson: false,
    ...(isHigh(from) || isHigh(to) ? { highVoltage: true } : {}),
  };
  const lift: PlannedStep = {
    ...hang,
    id: ids[1],
    kind: "unlock",
    subject: from,
    plate: null,
    words: `Lock and tag off ${from}, which ${to} stands in for.`,
  };
  return [hang, lift];
}

/** The step that lifts the new point on the way back, in the place of the old one's. */
function wayBack(
  hang: PlannedStep,
  from: string,
): Pick<PlannedStep, "subject" | "plate" | "words" | "competence" | "highVoltage"> {
  const { subject, plate, competence, highVoltage } = hang;
  return {
    subject,
    plate,
    competence,
    highVoltage,
    words: `Take lock and tag off ${subject}, which stood in for ${from}, and put it back to its normal position.`,
  };
}
