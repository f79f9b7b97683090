import type { AskContext } from "../requirements/ask";
import { dueUnder } from "./due";

/** Shift changes are looked for this far ahead: every shift is shorter. */
const AHEAD_MS = 24 * 3_600_000;
const MINUTE_MS = 60_000;

/**
 * When time alone will next change a permit that runs: its end, air or a call that falls due, a revalidation that is owed,
 * an instrument that has been silent too long. Infinity for one that nothing but an act will change. Never later than the
 * moment itself, as far as facts tell it.
 */
export function nextChange_ms(context: AskContext): number {
  const { permit, facts, now_ms } = context;
  if (permit.state !== "live" && permit.state !== "issued" && permit.state !== "suspended") return Infinity;
  const within_ms = facts.profile.revalidateWithin_min * MINUTE_MS;
  const [shift_ms] = facts.shiftChanges_ms(now_ms, now_ms + AHEAD_MS);
  const moments = [
    permit.validTo_ms,
    facts.acceptedUntil_ms ?? Infinity,
    ...dueUnder(context).map(({ at_ms }) => at_ms),
    ...(shift_ms === undefined ? [] : [shift_ms + within_ms]),
    ...facts.detectors.filter(({ silent }) => !silent).map(({ silentFrom_ms }) => silentFrom_ms),
  ];
  return Math.min(...moments.filter((at_ms) => at_ms > now_ms));
}
