/**
 * Does an instrument really read what it should, a gauge zero or a surface the ambient? Within its own error, and not
 * merely near it: a needle that looks like zero on a scale of 100 bar hides half a bar. Without a known error nothing is
 * read. Units as the instrument's. Common practice, no source.
 */
export function readsAs(p: { expected: number; reading: number | null; error: number | null }): boolean {
  if (p.reading === null || p.error === null || !Number.isFinite(p.reading) || !(p.error >= 0)) return false;
  return Math.abs(p.reading - p.expected) <= p.error;
}

/**
 * When air is tested again during hot work or entry, in ms: at each return from a break, at each shift change, and no
 * later than `every_s` after the last test. The test before the start is not among them. Common practice, no source.
 */
export function airRetests_ms(p: {
  from_ms: number;
  to_ms: number;
  every_s: number;
  returns_ms?: readonly number[];
  shifts_ms?: readonly number[];
}): number[] {
  const asked = [...(p.returns_ms ?? []), ...(p.shifts_ms ?? [])]
    .filter((at) => at > p.from_ms && at < p.to_ms)
    .sort((a, b) => a - b);
  const found: number[] = [];
  let last = p.from_ms;
  for (const at of [...new Set(asked), p.to_ms]) {
    while (last + p.every_s * 1000 < at) {
      last += p.every_s * 1000;
      found.push(last);
    }
    if (at < p.to_ms) {
      found.push(at);
      last = at;
    }
  }
  return found;
}
