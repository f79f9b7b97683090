import { addressOf } from "../calc/address";
import { calculate } from "../calc/calculator";
import { calculatorNamed } from "../calc/calculators/calculators";
import type { Calculation } from "../calc/calculation";
import type { RuleProfile } from "../requirement/profile";
import { ASSUMED, settled, SETUP_WORDS, type Setup, type SetupKey } from "./setup";
import type { StepWork } from "./stepWork";
import type { Wait } from "./wait";

/** How long a wait lasts, and how that came about. */
export type WaitTime = Readonly<{
  words: string;
  duration_s: number;
  attended: boolean;
  calculator: string;
  /** What was computed with, SI. */
  inputs: Readonly<Record<string, number | string>>;
  /** The same as the bench's address has it. */
  address: string;
  calculation: Calculation | null;
  /** Why this figure and not another, where there were several. */
  because: string | null;
  /** Register and set-up figures that were not there, with what was taken instead. */
  assumed: readonly string[];
  /** Why there is no figure: then a day is taken, and a person decides. */
  never: string | null;
}>;

/** What a plan is drawn with where physics never gets there: a day, and it is said. */
const NEVER_s = 86_400;

/** A wait under a set-up. Which of rule and sum governs comes from the rule profile: `longer` unless it says otherwise. */
export function timeOf(wait: Wait, setup: Setup, governs: Governs = ALWAYS_LONGER): WaitTime {
  const which = calculatorNamed(wait.calculator);
  if (which === undefined) throw new Error(`there is no calculator ${wait.calculator}`);
  const own = Object.entries(wait.fromSetup).flatMap(([key, from]) => {
    const value = setup[from] ?? ASSUMED[from];
    return value === null ? [] : [[key, value] as const];
  });
  const inputs: Record<string, number | string> = { ...wait.inputs, ...Object.fromEntries(own) };
  const notSaid = Object.values(wait.fromSetup).filter((key) => setup[key] === undefined);
  const assumed = [...wait.assumed, ...notSaid.map(notSaidOf)];
  const done = calculate(which, inputs);
  const address = addressOf(which.fields, inputs);
  const common = { words: wait.words, attended: wait.attended, calculator: wait.calculator, inputs, address, assumed };
  if (!done.ok) {
    return { ...common, duration_s: NEVER_s, calculation: null, because: null, never: `${done.key} ${done.message}` };
  }
  const value = (key: string) => done.calculation.results.find((result) => result.key === key)?.value ?? null;
  const rule = governs[wait.calculator as keyof Governs];
  const key = rule === undefined || rule === "longer" ? wait.result : SINGLE[rule][wait.calculator as keyof Governs];
  const duration_s = value(key);
  return {
    ...common,
    duration_s: duration_s ?? NEVER_s,
    calculation: done.calculation,
    because:
      rule === undefined || rule === "longer"
        ? (done.calculation.because ?? null)
        : `The job's rule profile waits for the ${rule === "rule" ? "rule of thumb" : "sum"} here.`,
    never: duration_s === null ? "no figure" : null,
  };
}

/** What is taken where the set-up does not say. */
export function notSaidOf(key: SetupKey): string {
  return `${SETUP_WORDS[key]}: taken as ${ASSUMED[key] === null ? "a round of twenty minutes asks" : "the slow side"}`;
}

/** Where a rule of thumb and a sum disagree: which of them is waited for. */
export type Governs = Readonly<{ "manhole-purge": "longer" | "rule" | "sum"; capacitor: "longer" | "rule" | "sum" }>;

/** What a profile says of it. */
export function governsOf({ waits }: Pick<RuleProfile, "waits">): Governs {
  return { "manhole-purge": waits.purge.governs, capacitor: waits.capacitor.governs };
}

const ALWAYS_LONGER: Governs = { "manhole-purge": "longer", capacitor: "longer" };
const SINGLE = {
  rule: { "manhole-purge": "rule_s", capacitor: "rule_s" },
  sum: { "manhole-purge": "computed_s", capacitor: "time_s" },
} as const;

/** A piece of a step on the timeline: hands, or a wait that may need somebody to watch. */
export type Piece = Readonly<{
  id: string;
  step: string;
  duration_s: number;
  /** Who is busy with it; null for a wait that nobody attends. */
  crew: StepWork["crew"] | null;
  after: readonly string[];
}>;

/**
 * The pieces of a step in their order: waits one after the other, before or after the hands. The last piece has the
 * step's own id, so that what comes after the step waits for all of it.
 */
export function piecesOf(work: StepWork, after: readonly string[], times: readonly WaitTime[], setup: Setup): Piece[] {
  const hands_s = work.handsFrom === null ? work.hands_s : settled(setup, work.handsFrom);
  const hands: Omit<Piece, "id" | "after"> = { step: work.step, duration_s: hands_s, crew: work.crew };
  const waits = times.map((time) => ({
    step: work.step,
    duration_s: time.duration_s,
    crew: time.attended ? work.crew : null,
  }));
  const ordered = work.waitsFirst ? [...waits, hands] : [hands, ...waits];
  return ordered.map((piece, i) => {
    const isLast = i === ordered.length - 1;
    const before = i === 0 ? after : [pieceId(work.step, i - 1)];
    const startsElsewhere = i === 0 && work.waitsFirst && waits.length > 0 && work.waitsFrom !== null;
    return {
      ...piece,
      id: isLast ? work.step : pieceId(work.step, i),
      // The hands still wait for the steps before, when the wait began earlier than they ended.
      after: startsElsewhere ? work.waitsFrom! : isLast && work.waitsFrom !== null ? [...before, ...after] : before,
    };
  });
}

function pieceId(step: string, index: number): string {
  return `${step}/${index + 1}`;
}
