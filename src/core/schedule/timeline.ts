import { checksDue_s, HOT_WORK, type AfterWatch } from "../fire/hotWork";
import { crewSchedule, type Scheduled } from "./crewSchedule";
import { crewSize, CREWS, settled, type Crew, type Setup } from "./setup";
import { notSaidOf, piecesOf, timeOf, type Governs, type Piece, type WaitTime } from "./stepTime";
import { roundsOf, type Stretch } from "./airRounds";
import type { StepWork } from "./stepWork";
import type { Wait } from "./wait";
import { walkingOrder, type Spot } from "./walkingOrder";

/** A step as the timeline needs it. */
export type TimelineStep = Readonly<{
  id: string;
  label: string;
  after: readonly string[];
  spot: Spot;
  work: StepWork;
}>;

/** Everything a timeline is made of but the set-up and the start. Plain data: a worker can be sent it. */
export type TimelineModel = Readonly<{
  /** How far it has come: points are still isolated, all of them are, or they are given back. */
  stage: "isolating" | "isolated" | "restoring";
  /** Steps still to do, in the plan's order. */
  isolate: readonly TimelineStep[];
  restore: readonly TimelineStep[];
  done: number;
  /** People enter, or work hot: the air is tested again, and hot work is watched after it ends. */
  airRetest_s: number | null;
  /** A round of them, face by face. */
  airRounds: readonly Wait[];
  afterWatch: AfterWatch | null;
  governs: Governs;
  window: Readonly<{ from_ms: number; to_ms: number }>;
  /** Longest that one permit may last. */
  permit_s: number;
  /** Why work may not start however long people wait: ways held worse than asked that nobody answered for. */
  stoppedBy: readonly string[];
  /** Shift changes around the window: permits are revalidated and air is tested again at each. */
  shifts_ms: readonly number[];
}>;

export type Bar = Readonly<{
  id: string;
  step: string;
  label: string;
  /** What a wait is for; null for hands. */
  wait: string | null;
  crew: Crew | null;
  person: number | null;
  start_ms: number;
  end_ms: number;
  slack_s: number;
  critical: boolean;
}>;

export type ChainLink = Readonly<{ id: string; step: string; label: string; wait: string | null; duration_s: number }>;

export type Timeline = Readonly<{
  start_ms: number;
  bars: readonly Bar[];
  /** The chain that decides when work may start. */
  chain: readonly ChainLink[];
  isolate_s: number;
  restore_s: number;
  /** How much of that is waiting for people: with hands enough it would be shorter by so much. */
  crewAdds_s: number;
  /** How much of the deciding chain nobody's hands can hurry. */
  physics_s: number;
  decidedBy: "physics" | "crew" | "handling";
  /** When the last step of the isolation has ended. */
  workFrom_ms: number;
  /** Earliest safe start of work: that moment; null while something else stands against it. */
  mayStart_ms: number | null;
  stoppedBy: readonly string[];
  /** Waits of the isolation that no sum gives an end: a day is drawn, and a person decides. */
  endless: readonly string[];
  /** Rounds of air tests for which there are too few instruments. */
  tooFew: readonly string[];
  workTo_ms: number;
  /** The latest moment for work to end, and its watch and the restoring still to be done inside the window. */
  endWorkBy_ms: number;
  watchTo_ms: number;
  backAt_ms: number;
  /** The latest moment to begin the shutdown and still be back inside the window. */
  latestStart_ms: number;
  /** Above 0 there is time left; below, the window is too short by so much. */
  spare_ms: number;
  /** The air is tested again, and the work stands meanwhile. */
  retests: readonly Stretch[];
  checks_ms: readonly number[];
  /** A permit ends by then at the latest; the work needs so many. */
  permits_ms: readonly Stretch[];
  walks: readonly Readonly<{ crew: Crew; labels: readonly string[]; length_m: number }>[];
  times: Readonly<Record<string, readonly WaitTime[]>>;
  assumed: readonly string[];
}>;

const S_MS = 1000;

/**
 * The day of a job from shutdown to hand-over: steps with their durations and people, the work, the watch after it, the
 * return. While it is restored there is no work any more, and no watch: both are over before anything is lifted. Work may
 * start when the last step of the isolation has ended, and never while a way is held worse than asked
 * without anybody's answer or a wait has no end that a sum can give.
 *
 * Cost: see crewSchedule and walkingOrder.
 */
export function timelineOf(model: TimelineModel, setup: Setup, start_ms: number): Timeline {
  const sizeOf = (crew: Crew) => crewSize(setup, crew);
  const isolate = phaseOf(model.isolate, setup, model.governs, sizeOf);
  const restore = phaseOf(model.restore, setup, model.governs, sizeOf);
  const isOver = model.stage === "restoring";
  const work_s = isOver ? 0 : settled(setup, "work_s");
  const watch_s = model.afterWatch && !isOver ? model.afterWatch.continuous_s + model.afterWatch.checks_s : 0;
  const workFrom_ms = start_ms + isolate.schedule.length_s * S_MS;
  const rounds = isOver
    ? { workTo_ms: workFrom_ms, retests: [], tooFew: [], assumed: [] }
    : roundsOf(model, setup, { from_ms: workFrom_ms, work_s });
  const { workTo_ms } = rounds;
  const watchTo_ms = workTo_ms + watch_s * S_MS;
  const backAt_ms = watchTo_ms + restore.schedule.length_s * S_MS;
  const chain = isolate.chain.map((piece): ChainLink => {
    const step = model.isolate.find((one) => one.id === piece.step)!;
    const { id, duration_s } = piece;
    return { id, step: piece.step, label: step.label, wait: isolate.waitOf(piece), duration_s };
  });
  const physics_s = chain.reduce((sum, link) => sum + (link.wait === null ? 0 : link.duration_s), 0);
  const crewAdds_s = isolate.schedule.length_s - isolate.schedule.unlimited_s;
  const spare_ms = model.window.to_ms - backAt_ms;
  const endless = [...isolate.times.values()].flat().flatMap(({ words, never }) => (never === null ? [] : [words]));
  return {
    start_ms,
    bars: [...barsOf(isolate, model.isolate, start_ms), ...barsOf(restore, model.restore, watchTo_ms)],
    chain,
    isolate_s: isolate.schedule.length_s,
    restore_s: restore.schedule.length_s,
    crewAdds_s,
    physics_s,
    decidedBy: decidedBy(isolate.schedule.length_s, physics_s, crewAdds_s),
    workFrom_ms,
    mayStart_ms: model.stoppedBy.length + endless.length + rounds.tooFew.length > 0 ? null : workFrom_ms,
    stoppedBy: model.stoppedBy,
    endless,
    tooFew: rounds.tooFew,
    workTo_ms,
    endWorkBy_ms: workTo_ms + spare_ms,
    watchTo_ms,
    backAt_ms,
    latestStart_ms: start_ms + spare_ms,
    spare_ms,
    retests: rounds.retests,
    checks_ms:
      model.afterWatch && !isOver ? checksDue_s(model.afterWatch).map((due_s) => workTo_ms + due_s * S_MS) : [],
    permits_ms: isOver ? [] : split(workFrom_ms, workTo_ms, model.permit_s * S_MS),
    walks: walksOf(model.isolate),
    times: Object.fromEntries([...isolate.times, ...restore.times].filter(([, waits]) => waits.length > 0)),
    assumed: [
      ...new Set([
        ...[...isolate.times.values()].flatMap((waits) => waits.flatMap((wait) => wait.assumed)),
        ...model.isolate.flatMap(({ work: { handsFrom } }) =>
          handsFrom === null || setup[handsFrom] !== undefined ? [] : [notSaidOf(handsFrom)],
        ),
        ...rounds.assumed,
      ]),
    ],
  };
}

type Phase = ReturnType<typeof phaseOf>;

function phaseOf(steps: readonly TimelineStep[], setup: Setup, governs: Governs, sizeOf: (crew: Crew) => number) {
  const times = new Map(steps.map((step) => [step.id, step.work.waits.map((wait) => timeOf(wait, setup, governs))]));
  const pieces = steps.flatMap((step) => piecesOf(step.work, step.after, times.get(step.id)!, setup));
  const schedule = crewSchedule(pieces, sizeOf);
  const byId = new Map(pieces.map((piece) => [piece.id, piece]));
  const waitNames = new Map(
    steps.flatMap((step) => {
      const own = pieces.filter((piece) => piece.step === step.id);
      const waits = times.get(step.id)!;
      const first = step.work.waitsFirst ? 0 : 1;
      return waits.map((wait, i) => [own[first + i]!.id, wait.words] as const);
    }),
  );
  return {
    times,
    pieces,
    schedule,
    chain: schedule.chain.map((id) => byId.get(id)!),
    waitOf: (piece: Pick<Piece, "id">): string | null => waitNames.get(piece.id) ?? null,
  };
}

function barsOf(phase: Phase, steps: readonly TimelineStep[], from_ms: number): Bar[] {
  const labels = new Map(steps.map((step) => [step.id, step.label]));
  return phase.pieces.map((piece, i): Bar => {
    const at: Scheduled = phase.schedule.steps[i]!;
    return {
      id: piece.id,
      step: piece.step,
      label: labels.get(piece.step)!,
      wait: phase.waitOf(piece),
      crew: piece.crew,
      person: at.person,
      start_ms: from_ms + at.start_s * S_MS,
      end_ms: from_ms + at.end_s * S_MS,
      slack_s: at.slack_s,
      critical: at.critical,
    };
  });
}

/** Half or more of the chain is waiting: physics. A fifth or more would go with hands enough: crew. Else the work itself. */
function decidedBy(length_s: number, physics_s: number, crewAdds_s: number): Timeline["decidedBy"] {
  if (length_s > 0 && physics_s >= length_s / 2) return "physics";
  if (length_s > 0 && crewAdds_s >= length_s / 5) return "crew";
  return "handling";
}

function every(from_ms: number, to_ms: number, step_ms: number): number[] {
  const found: number[] = [];
  for (let at = from_ms + step_ms; at < to_ms; at += step_ms) found.push(at);
  return found;
}

/** The work cut into permits, each no longer than one may last. */
function split(from_ms: number, to_ms: number, most_ms: number): Stretch[] {
  return [from_ms, ...every(from_ms, to_ms, most_ms)].map((start) => ({
    from_ms: start,
    to_ms: Math.min(start + most_ms, to_ms),
  }));
}

/** A walk for each crew through its own steps. What it waits for from others is waited for on the spot. */
function walksOf(steps: readonly TimelineStep[]): Timeline["walks"] {
  const before = closure(steps);
  return CREWS.flatMap((crew) => {
    const own = steps.filter((step) => step.work.crew === crew);
    if (own.length === 0) return [];
    const ids = new Set(own.map(({ id }) => id));
    const walk = walkingOrder(
      own.map((step) => ({ ...step, after: [...before.get(step.id)!].filter((id) => ids.has(id)) })),
    );
    const label = new Map(own.map((step) => [step.id, step.label]));
    return [{ crew, labels: walk.order.map((id) => label.get(id)!), length_m: walk.length_m }];
  });
}

/** Everything that must be done before each step, near and far; steps come after what they wait for in a plan. */
function closure(steps: readonly TimelineStep[]): ReadonlyMap<string, ReadonlySet<string>> {
  const found = new Map<string, Set<string>>();
  for (const step of steps) {
    const mine = new Set<string>();
    for (const id of step.after) {
      mine.add(id);
      for (const far of found.get(id) ?? []) mine.add(far);
    }
    found.set(step.id, mine);
  }
  return found;
}

/** Longest that a permit lasts: a day for hot work, a working day for the rest. Common practice, no source. */
export const PERMIT_s = { hot: HOT_WORK.longest_s, other: 12 * 3600 } as const;
