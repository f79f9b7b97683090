import type { Refusal } from "../refusal/refusal";

const HOUR_MS = 3_600_000;

/**
 * Why nobody may say that a job fits into one shift: its window is longer than the longest there is. Whether a shorter one that
 * lies over a shift change is handed on, only people know; they are asked, and nothing stands for their answer beforehand.
 */
export function shiftFault(
  asked: Readonly<{ longerThanShift: boolean; windowFrom_ms: number; windowTo_ms: number }>,
  shift_h: number,
): Refusal | null {
  const window_h = (asked.windowTo_ms - asked.windowFrom_ms) / HOUR_MS;
  if (asked.longerThanShift || window_h <= shift_h) return null;
  return { code: "outlasts a shift", window_h: Number(window_h.toFixed(1)), shift_h };
}
