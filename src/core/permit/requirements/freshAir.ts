import { airState } from "../air/airTests";
import type { AskContext } from "./ask";
import { inside } from "../people/entries";
import { kindRule } from "../kinds/kinds";

/** At a shift's revalidation a reading is no older than this, in minutes. Common practice, no source. */
export const FRESH_min = 30;

/** Was the air read at every point just now, where work hangs on it? Nobody inside a space: nothing hangs on it. */
export function airIsFresh({ permit, facts, now_ms }: AskContext): boolean {
  const rule = kindRule(permit.details.kind);
  const within = inside(permit.log).length;
  if (!rule.air || (rule.entryLog && within === 0)) return true;
  const isInside = (point: string) => facts.insidePoints.includes(point);
  return airState(facts, permit.log, {
    every_min: FRESH_min,
    now_ms,
    entry: rule.entryLog,
    only: (point) => within > 1 || !isInside(point),
  }).fit;
}
