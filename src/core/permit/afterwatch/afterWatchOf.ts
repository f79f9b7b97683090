import { afterWatchState, type AfterWatchState } from "./afterWatch";
import { afterWatchRule } from "../requirements/hotWork";
import { signedBy } from "../record/permitLog";
import type { PermitFacts, PermitLife } from "../record/permitTypes";

/** How the watch after this permit's hot work stands; null before the work was handed back, or where none is kept. */
export function afterWatchOf(
  permit: PermitLife,
  facts: Pick<PermitFacts, "timeOf">,
  now_ms: number,
): AfterWatchState | null {
  const ended = signedBy(permit.log, "hand back");
  if (permit.details.kind !== "hot work" || ended === undefined) return null;
  return afterWatchState(afterWatchRule(permit.details.afterWatch), permit.log, ended.at_ms, now_ms, facts.timeOf);
}
