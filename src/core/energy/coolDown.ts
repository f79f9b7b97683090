/**
 * Time to cool to a target, in seconds: t = τ·ln((T₀ − Tₐ)/(T − Tₐ)). Temperatures in °C. 0 at or below the target, null
 * where the target is not above the ambient: never. One body of one temperature; thick linings cool slower.
 * Source: Newton's law of cooling.
 */
export function coolDownTime_s(p: {
  start_C: number;
  ambient_C: number;
  target_C: number;
  tau_s: number;
}): number | null {
  const { start_C, ambient_C, target_C, tau_s } = p;
  if (start_C <= target_C) return 0;
  if (target_C <= ambient_C) return null;
  return tau_s * Math.log((start_C - ambient_C) / (target_C - ambient_C));
}

/** Time, in seconds, until a body colder than what is around it warms past a temperature; null where it never does. */
export function warmUpTime_s(p: { start_C: number; ambient_C: number; past_C: number; tau_s: number }): number | null {
  const { start_C, ambient_C, past_C, tau_s } = p;
  if (start_C >= past_C) return 0;
  if (past_C >= ambient_C) return null;
  return tau_s * Math.log((ambient_C - start_C) / (ambient_C - past_C));
}

/** Two times of one body may differ by a tenth, as readings do; more is a contradiction. An assumption of ours. */
export const SAME_TAU = 1.1;

/** The body's own time, from two readings a while apart; null where they do not show cooling towards the ambient. */
export function coolingTau_s(p: {
  first_C: number;
  second_C: number;
  ambient_C: number;
  apart_s: number;
}): number | null {
  const ratio = (p.first_C - p.ambient_C) / (p.second_C - p.ambient_C);
  if (!Number.isFinite(ratio) || ratio <= 1 || p.second_C <= p.ambient_C) return null;
  return p.apart_s / Math.log(ratio);
}

/**
 * Hottest bare metal that may be touched, °C, by how long. EN ISO 13732-1, from memory: 51 for a minute, 48 for ten, 43
 * for eight hours. Between them the longer time's figure holds.
 */
export function contactLimit_C(touching_s: number): number {
  return touching_s <= 60 ? 51 : touching_s <= 600 ? 48 : 43;
}

/** What bare metal may have that people touch all shift, °C: EN ISO 13732-1, from memory. */
export const SHIFT_CONTACT_C = contactLimit_C(8 * 3600);
