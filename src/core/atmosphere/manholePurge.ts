import { blowerFlow_m3_s } from "./blowerFlow";
import { purgeTime } from "./purgeDilution";

const MINUTE_s = 60;
const FIRST_CHIMNEY_min = 20;
const FURTHER_CHIMNEY_min = 10;

/**
 * What the computed time assumes where nobody measured: the space full of it, swept to a hundredth, by air that mixes
 * three times worse than perfectly. An assumption of ours on the safe side, not a source.
 */
export const MANHOLE_SWEEP = { c0: 1, c: 0.01, mixing: 3 } as const;

/**
 * Default purge of a manhole: 20 minutes for one chimney and 10 for each further one, or the site's chart when it is
 * loaded. Common practice, no source.
 */
export function manholeRule_s(p: { chimneys: number; chart_s?: number }): number {
  return p.chart_s ?? (FIRST_CHIMNEY_min + FURTHER_CHIMNEY_min * (p.chimneys - 1)) * MINUTE_s;
}

/**
 * Purge of a manhole: the rule, the dilution sum with this blower and these bends, and the longer of the two. Null for
 * the sum where it never gets there.
 */
export function manholePurge(p: {
  chimneys: number;
  volume_m3: number;
  rated_m3_s: number;
  bends: number;
  c0?: number;
  c?: number;
  cs?: number;
  mixing?: number;
  chart_s?: number;
}): { rule_s: number; computed_s: number | null; time_s: number | null; flow_m3_s: number } {
  const flow_m3_s = blowerFlow_m3_s(p);
  const rule_s = manholeRule_s(p);
  const swept = purgeTime({ ...MANHOLE_SWEEP, ...given(p), volume_m3: p.volume_m3, flow_m3_s });
  const computed_s = swept.reached ? swept.time_s : null;
  return { rule_s, computed_s, time_s: computed_s === null ? null : Math.max(rule_s, computed_s), flow_m3_s };
}

function given({ c0, c, cs, mixing }: { c0?: number; c?: number; cs?: number; mixing?: number }) {
  return {
    ...(c0 === undefined ? {} : { c0 }),
    ...(c === undefined ? {} : { c }),
    ...(cs === undefined ? {} : { cs }),
    ...(mixing === undefined ? {} : { mixing }),
  };
}
