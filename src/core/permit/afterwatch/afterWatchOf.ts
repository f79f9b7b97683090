import { afterWatchState, type AfterWatchState } from "./afterWatch";
import { afterWatchRule } from "../requirements/hotWork";
import { lastOf, signedBy, type LogEntry } from "../record/permitLog";
import type { PermitFacts, PermitLife } from "../record/permitTypes";

/**
 * From when the watch after the work is counted; null before it was handed back. By a clock that was wrong nobody knows how
 * long it has been watched: it is watched anew since that was set right. So it is since a fire that was seen meanwhile.
 */
export function watchedFrom_ms(log: readonly LogEntry[]): number | null {
  const ended = signedBy(log, "hand back");
  return ended ? Math.max(ended.at_ms, lastOf(log, "clock set", "fire reported")?.at_ms ?? -Infinity) : null;
}

/** How the watch after this permit's hot work stands; null before the work was handed back, or where none is kept. */
export function afterWatchOf(
  permit: PermitLife,
  facts: Pick<PermitFacts, "timeOf">,
  now_ms: number,
): AfterWatchState | null {
  const from_ms = watchedFrom_ms(permit.log);
  if (permit.details.kind !== "hot work" || from_ms === null) return null;
  return afterWatchState(afterWatchRule(permit.details.afterWatch), permit.log, from_ms, now_ms, facts.timeOf);
}
