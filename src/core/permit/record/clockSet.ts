import { signedBy, withEntries, type LogEntry } from "./permitLog";
import { duration } from "../../units/format";
import type { PersonId } from "../../people/roles";
import type { PermitLife } from "./permitTypes";

/**
 * A permit to whose log it is told that the clock was ahead and is right now, or (`back_s` below zero) that it jumped ahead; what
 * that moves is for `asAt`. `by` is null where the server noticed it by itself.
 */
export function withClockSet(
  permit: PermitLife,
  stamp: Readonly<{ at_ms: number; by: PersonId | null }>,
  said: Readonly<{ back_s: number; words: string }>,
): PermitLife {
  const told = withEntries(permit, stamp, { type: "clock set", ...said });
  return { ...told, log: inRightTime(told.log) };
}

/** What was found of the clock. */
export function clockWords({ back_s, words }: Readonly<{ back_s: number; words: string }>): string {
  return back_s < 0
    ? `the server's clock jumped ahead by ${duration(-back_s)} (${words})`
    : `the server's clock was at least ${duration(back_s)} ahead and is right now (${words})`;
}

/** Acts from which on work goes on. */
const GOES_ON: ReadonlySet<string> = new Set(["accept", "resume", "go on"]);

/** Why work that goes on stops, where the clock was set right and nobody has looked since; null where there is no such reason. */
export function stoppedByClock(log: readonly LogEntry[]): string | null {
  const goesOn = (entry: LogEntry) =>
    (entry.type === "signed" && GOES_ON.has(entry.act)) || entry.type === "break ended" || entry.type === "stopped";
  const set = log.slice(log.findLastIndex(goesOn) + 1).findLast((entry) => entry.type === "clock set");
  if (set === undefined) return null;
  return clockWords(set);
}

/**
 * Why a watch that ended does not count: by a clock that was wrong it may have been far too short, and something burned since.
 * Null where it counts, or where none ended.
 */
export function watchedAnew(log: readonly LogEntry[]): "clock" | "fire" | null {
  if (signedBy(log, "end watch") === undefined) return null;
  if (signedBy(sinceFire(log), "end watch") === undefined) return "fire";
  return signedBy(sinceClock(log), "end watch") === undefined ? "clock" : null;
}

/** What was written down since something last burned there. */
function sinceFire(log: readonly LogEntry[]): readonly LogEntry[] {
  return log.slice(log.findLastIndex(({ type }) => type === "fire reported") + 1);
}

/** Somebody has inspected the place, and since then neither was the clock set right nor did anything burn. */
export function isInspected(log: readonly LogEntry[]): boolean {
  return signedBy(sinceFire(sinceClock(log)), "inspect") !== undefined;
}

/**
 * The log of a permit as it is read since a clock that had been ahead was set right: whatever was written down before that and
 * dated after it happened before it, in the order in which it stands, and never later than that moment. What was dated earlier
 * keeps its time, for nobody knows since when the clock was ahead; that it counts no more is for whoever asks for its age.
 *
 * Cost: linear.
 */
export function inRightTime(log: readonly LogEntry[]): readonly LogEntry[] {
  if (!log.some(({ type }) => type === "clock set")) return log;
  let latest_ms = Infinity;
  return log
    .toReversed()
    .map((entry) => {
      const at_ms = Math.min(entry.at_ms, latest_ms);
      // A millisecond apart: two that follow each other are never taken for one moment.
      if (entry.type === "clock set") latest_ms = at_ms - 1;
      else if (at_ms === latest_ms) latest_ms -= 1;
      return at_ms === entry.at_ms ? entry : { ...entry, at_ms };
    })
    .toReversed();
}

/** What was written down since the clock was last set right. */
export function sinceClock(log: readonly LogEntry[]): readonly LogEntry[] {
  const isSet = (entry: LogEntry) =>
    entry.type === "clock set" || (entry.type === "stopped" && entry.cause === "clock");
  return log.slice(log.findLastIndex(isSet) + 1);
}
