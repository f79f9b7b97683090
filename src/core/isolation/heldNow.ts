import { holds, type OnNewPlant } from "../plan/onNewPlant";
import type { NotHeld } from "../refusal/notHeld";
import type { IsolationLife } from "./isolation";
import type { LockCheck } from "./lockCheck";

/** What a plan that stands has come to on a later register: its evidence, as far as people need it. */
export type Verdict = Readonly<{
  /** The revision of the register that it was judged on. */
  revision: number;
  /** Nobody got to judge it, or what it stands on changed meanwhile: until it is judged it counts as fallen. */
  judged: boolean;
  missingFaces: readonly string[];
  lostPoints: readonly string[];
  /** Paths by which energy reaches a work location with less in the way than was asked and accepted; the worst first. */
  short: readonly Readonly<{ source: string; face: string; depth: number }>[];
}>;

/** What is known of an isolation at this moment. */
export type IsolationNow = Readonly<{
  number: string;
  state: IsolationLife["state"];
  /** Steps of isolating and proving that nobody has done. */
  openSteps: number;
  /** The revision of the register that its plan was made on, and the one of today. */
  planned: number;
  today: number;
  /** How it fared on a later register than it was planned on; null where none came since, or nobody judged it yet. */
  verdict: Verdict | null;
  /** What was found when its locks were last read; null where nobody went round since it was proved. */
  lockCheck: LockCheck | null;
}>;

/** So many paths are named; the rest is counted nowhere, for one is enough. */
const MOST_NAMED = 6;

/** What is kept of a judgement. */
export function verdictOf(revision: number, found: OnNewPlant): Verdict {
  const short = found.short.map(({ source, face, depth }) => ({ source, face, depth }));
  return {
    revision,
    judged: true,
    missingFaces: found.missingFaces,
    lostPoints: found.lostPoints,
    short: short.slice(0, MOST_NAMED),
  };
}

/** It was to be judged and was not. */
export function unjudged(revision: number): Verdict {
  return { revision, judged: false, missingFaces: [], lostPoints: [], short: [] };
}

/**
 * Why an isolation that stands may not be counted on: a lock was not found on its point, or its plan does not do on today's
 * register what was approved. Null where it may.
 */
export function standingFault(isolation: Omit<IsolationNow, "state" | "openSteps">): NotHeld | null {
  const plan = planFault(isolation);
  if (plan?.code === "plan fell") return plan;
  const points = isolation.lockCheck?.faults.map(({ point }) => point) ?? [];
  return points.length > 0 ? { code: "locks not found", isolation: isolation.number, points } : plan;
}

/** Whether its plan does on today's register what was approved. A register on which nobody judged it has broken it. */
export function planFault({
  number,
  planned,
  today,
  verdict,
}: Pick<IsolationNow, "number" | "planned" | "today" | "verdict">): NotHeld | null {
  if (planned === today) return null;
  if (verdict === null || !verdict.judged || verdict.revision !== today) {
    return { code: "not judged", isolation: number, revision: today };
  }
  if (holds(verdict)) return null;
  const { revision, missingFaces, lostPoints, short } = verdict;
  return { code: "plan fell", isolation: number, revision, missingFaces, lostPoints, short };
}

/**
 * Why nobody may count on this isolation now; null while it is held: every step of isolating it is done, every lock was found
 * where it was hung, and its plan does on today's register what was approved. Permits, sign-on, boxes, phones and the board ask this and nothing else.
 */
export function notHeld(isolation: IsolationNow): NotHeld | null {
  const { number, state, openSteps } = isolation;
  if (state !== "proven") return { code: "not proven", isolation: number, state, openSteps };
  return standingFault(isolation);
}
