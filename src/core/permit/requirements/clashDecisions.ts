import type { PermitClash } from "../around/crossChecks";
import { entriesOf, type LogEntry } from "../record/permitLog";

export type Clashing = readonly PermitClash[];

/**
 * What was decided last of a clash, under either permit; nothing, when what clashes has changed since: its id names the
 * pair and everything that meets.
 */
export function decisionOn(clash: PermitClash, log: readonly LogEntry[]) {
  return entriesOf(log, "clash decided")
    .filter((entry) => entry.clash === clash.id)
    .sort((a, b) => a.at_ms - b.at_ms)
    .at(-1);
}

/** Clashes that nobody decided, or that were decided so that this permit waits. */
export function undecided(clashes: Clashing, log: readonly LogEntry[]): Clashing {
  return clashes.filter((clash) => decisionOn(clash, log)?.decision !== "go on");
}
