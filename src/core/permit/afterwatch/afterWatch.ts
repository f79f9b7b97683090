import { checksDue_s, type AfterWatch } from "../../fire/hotWork";
import { onPost, gapIn, watchesOf } from "../people/posts";
import { entriesOf, lastOf, type LogEntry } from "../record/permitLog";

/** A look is made at its time: up to so long before or after. Common practice, no source. */
export const CHECK_GRACE_MS = 10 * 60_000;

export type WatchCheck = Readonly<{
  due_ms: number;
  done: Readonly<{ at_ms: number; by: LogEntry["by"]; words: string }> | null;
  missed: boolean;
}>;

export type AfterWatchState = Readonly<{
  from_ms: number;
  /** Somebody stays until then without a break. */
  continuousUntil_ms: number;
  until_ms: number;
  /** The first moment of the continuous part at which nobody watched. */
  gap_ms: number | null;
  checks: readonly WatchCheck[];
  finalCheck: boolean;
  told: Readonly<{ who: string; at_ms: number }> | null;
  /** What keeps the watch from being over, in words; empty when it is. */
  left: readonly string[];
}>;

/**
 * How far the watch after hot work has come. The continuous part starts anew when it had a gap: nobody can say what
 * smouldered while nobody looked. A look that was missed is made up by one more hour of watching, so `until_ms` moves.
 */
export function afterWatchState(
  rule: AfterWatch,
  log: readonly LogEntry[],
  workEnded_ms: number,
  now_ms: number,
  clock: (at_ms: number) => string,
): AfterWatchState {
  const watches = watchesOf(log).filter(({ post }) => post === "fire watch");
  let from_ms = workEnded_ms;
  for (;;) {
    const until = from_ms + rule.continuous_s * 1000;
    const gap = gapIn(watches, from_ms, Math.min(until, now_ms));
    if (gap === null) break;
    const back = watches.map((watch) => watch.from_ms).filter((at) => at > gap);
    if (back.length === 0) {
      return stateFrom(rule, log, { from_ms: now_ms, gap_ms: gap, now_ms, clock });
    }
    from_ms = Math.min(...back);
  }
  return stateFrom(rule, log, { from_ms, gap_ms: null, now_ms, clock });
}

function stateFrom(
  rule: AfterWatch,
  log: readonly LogEntry[],
  p: Readonly<{ from_ms: number; gap_ms: number | null; now_ms: number; clock: (at_ms: number) => string }>,
): AfterWatchState {
  const continuousUntil_ms = p.from_ms + rule.continuous_s * 1000;
  const made = entriesOf(log, "watch check");
  const checks: WatchCheck[] = checksDue_s(rule).map((due_s) => {
    const due_ms = p.from_ms + due_s * 1000;
    const done = made.find((check) => Math.abs(check.at_ms - due_ms) <= CHECK_GRACE_MS);
    return {
      due_ms,
      done: done ? { at_ms: done.at_ms, by: done.by, words: done.words } : null,
      missed: done === undefined && p.now_ms > due_ms + CHECK_GRACE_MS,
    };
  });
  // Each missed look asks for one more, half an hour after the last; it is missed or made like any other.
  let last = checks.at(-1)?.due_ms ?? continuousUntil_ms;
  for (let missed = checks.filter((check) => check.missed).length; missed > 0; missed--) {
    const due_ms = last + rule.every_s * 1000;
    const done = made.find((check) => Math.abs(check.at_ms - due_ms) <= CHECK_GRACE_MS);
    const isMissed = done === undefined && p.now_ms > due_ms + CHECK_GRACE_MS;
    checks.push({
      due_ms,
      done: done ? { at_ms: done.at_ms, by: done.by, words: done.words } : null,
      missed: isMissed,
    });
    if (isMissed) missed++;
    last = due_ms;
  }
  const until_ms = Math.max(continuousUntil_ms, last);
  const final = entriesOf(log, "final check").find((check) => check.at_ms >= until_ms - CHECK_GRACE_MS);
  const toldEntry = lastOf(log, "control room told");
  const told = toldEntry && toldEntry.at_ms >= p.from_ms ? { who: toldEntry.who, at_ms: toldEntry.at_ms } : null;
  const left: string[] = [];
  if (p.gap_ms !== null) left.push(`nobody has watched since ${p.clock(p.gap_ms)}: the watch starts anew`);
  if (p.now_ms < continuousUntil_ms) left.push(`the watch runs until ${p.clock(continuousUntil_ms)}`);
  for (const check of checks) {
    if (check.done === null && !check.missed) left.push(`the look due at ${p.clock(check.due_ms)}`);
  }
  if (rule.finalCheck && !final) left.push("the final check by safety");
  if (told === null) left.push("the control room told, with who");
  return {
    from_ms: p.from_ms,
    continuousUntil_ms,
    until_ms,
    gap_ms: p.gap_ms,
    checks,
    finalCheck: final !== undefined,
    told,
    left,
  };
}

/** May the fire watch leave now? Not while the continuous part runs. */
export function watchMayLeave(
  rule: AfterWatch,
  log: readonly LogEntry[],
  workEnded_ms: number,
  now_ms: number,
): boolean {
  const others = onPost(log).filter(({ post }) => post === "fire watch").length > 1;
  return others || now_ms >= afterWatchState(rule, log, workEnded_ms, now_ms, String).continuousUntil_ms;
}
