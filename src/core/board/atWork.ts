/** Somebody was seen at work: under a permit from then to then, or at one moment by what they signed. */
export type Seen = Readonly<{ from_ms: number; to_ms: number }>;

/** Away for less than this nobody has rested: it counts as the same turn. Common practice, no source. */
export const REST_MS = 8 * 3_600_000;
/** Nobody is looked for longer ago. */
export const LOOK_BACK_MS = 48 * 3_600_000;

/**
 * Since when somebody has been at work without a rest, by what is known of them, in ms; null where nothing is. They may have been
 * there longer: what they did without signing is not known. Whoever goes from one permit to another has not
 * begun anew. Cost: that of sorting.
 */
export function atWorkSince(seen: readonly Seen[], now_ms: number): number | null {
  const known = seen.filter(({ from_ms }) => from_ms <= now_ms).sort((a, b) => b.to_ms - a.to_ms);
  let since_ms: number | null = null;
  for (const { from_ms, to_ms } of known) {
    const next_ms = since_ms ?? now_ms;
    if (next_ms - Math.min(to_ms, now_ms) >= REST_MS) break;
    since_ms = Math.min(next_ms, from_ms);
  }
  return since_ms;
}
