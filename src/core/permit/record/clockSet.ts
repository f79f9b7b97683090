import { signedBy, withEntries, type LogEntry } from "./permitLog";
import type { PersonId } from "../../people/roles";
import type { PermitLife } from "./permitTypes";

/**
 * A permit as it goes on once the clock that was ahead is right. What was waited for by the wrong clock may have been far too
 * short: a watch after hot work that ended by it goes on, anew from now.
 */
export function withClockSet(
  permit: PermitLife,
  stamp: Readonly<{ at_ms: number; by: PersonId }>,
  said: Readonly<{ back_s: number; words: string }>,
): PermitLife {
  const told = withEntries(permit, stamp, { type: "clock set", ...said });
  const watchesOn = permit.state === "work done" && signedBy(permit.log, "end watch") !== undefined;
  return { ...told, state: watchesOn ? "watching" : permit.state, log: inRightTime(told.log) };
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
