/** A proof as it stands: what it proves, when it was last done, and whether the clock was right then. */
export type Proof = Readonly<{ label: string; at_ms: number; wrongClock: boolean }>;

const HOUR_MS = 3_600_000;
const MINUTE_MS = 60_000;

/**
 * Proofs that no longer count, each with why: the plant was lit since, the proof is older than its rules allow, or nobody
 * was there for too long. Attendance lasts from the proof itself and as long as anybody is signed on. Common practice.
 */
export function staleProofs(
  proofs: readonly Proof[],
  p: Readonly<{
    now_ms: number;
    /** When somebody last was there; now, while anybody is on; null when nobody has been. */
    lastThere_ms: number | null;
    /** When points that hold this work were last lifted and locked again; null when never. */
    litUntil_ms: number | null;
    /** When a lock that was missing was found again; null where none ever was. */
    foundAgain_ms: number | null;
    goodFor_h: number;
    absence_min: number;
  }>,
): string[] {
  return proofs.flatMap(({ label, at_ms, wrongClock }) => {
    if (wrongClock) return [`${label}, timed by a clock that was wrong`];
    if (p.litUntil_ms !== null && at_ms < p.litUntil_ms) return [`${label}, for points were lifted since`];
    if (p.foundAgain_ms !== null && at_ms < p.foundAgain_ms) return [`${label}, for a lock was not found since`];
    if (p.now_ms - at_ms > p.goodFor_h * HOUR_MS) return [`${label}, older than ${p.goodFor_h} h`];
    const there_ms = Math.max(at_ms, p.lastThere_ms ?? at_ms);
    const left_ms = p.now_ms - there_ms;
    return left_ms > p.absence_min * MINUTE_MS ? [`${label}, nobody was there for ${p.absence_min} min`] : [];
  });
}

/** The last time each thing was proved: proofs done again stand in place of the earlier, and of any that a wrong clock timed. */
export function latestProofs(proofs: readonly Proof[]): Proof[] {
  const latest = new Map<string, Proof>();
  for (const proof of proofs) {
    const known = latest.get(proof.label);
    const isLater = !known || (known.wrongClock === proof.wrongClock ? proof.at_ms >= known.at_ms : known.wrongClock);
    if (isLater) latest.set(proof.label, proof);
  }
  return [...latest.values()];
}
