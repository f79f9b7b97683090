import { airState } from "../air/airTests";
import type { AskContext } from "./ask";
import { inside } from "../people/entries";
import { kindRule } from "../kinds/kinds";

/** At a shift's revalidation a reading is no older than this, in minutes. Common practice, no source. */
export const FRESH_min = 30;

/** Was the air read at every point just now, where work hangs on it? Nobody inside a space: nothing hangs on it. */
export function airIsFresh({ permit, facts, now_ms }: AskContext): boolean {
  const rule = kindRule(permit.details.kind);
  if (!rule.air || (rule.entryLog && inside(permit.log).length === 0)) return true;
  return airState(facts, permit.log, { every_min: FRESH_min, now_ms, entry: rule.entryLog }).fit;
}
