/**
 * Times that a clock which was ahead wrote, as they are read once it is set right at `now_ms`: those that lie later than that
 * moment happened just before it, a millisecond apart, in their order. The others stay, for nobody knows since when it was ahead.
 *
 * Cost: that of sorting them.
 */
export function rightTimes(times_ms: Iterable<number>, now_ms: number): (at_ms: number) => number {
  const later = [...new Set(times_ms)].filter((at_ms) => at_ms > now_ms).sort((a, b) => a - b);
  const place = new Map(later.map((at_ms, i) => [at_ms, now_ms - (later.length - i)]));
  return (at_ms) => place.get(at_ms) ?? Math.min(at_ms, now_ms);
}
