const HOUR_MS = 3_600_000;
/** A day's work, where the job's window says nothing better. Common practice, no source. */
const FIRST_LENGTH_h = 8;

/**
 * The times that a new permit is offered: from now or the start of the job's window, whichever is later, to the window's
 * end, and no longer than its kind allows. A window that is over says nothing any more: then eight hours from now.
 */
export function firstTimes(
  p: Readonly<{ now_ms: number; windowFrom_ms: number; windowTo_ms: number; longest_h: number }>,
): Readonly<{ from_ms: number; to_ms: number }> {
  const from_ms = p.windowTo_ms > p.now_ms ? Math.max(p.now_ms, p.windowFrom_ms) : p.now_ms;
  const end_ms = p.windowTo_ms > from_ms ? p.windowTo_ms : from_ms + FIRST_LENGTH_h * HOUR_MS;
  return { from_ms, to_ms: Math.min(end_ms, from_ms + p.longest_h * HOUR_MS) };
}
