/** A look at an isolation that stays: is every point still locked, is it still needed, who answers for it. */
export type Review = Readonly<{ at_ms: number; next_ms: number; reason: string }>;

/**
 * When an isolation is next looked at again, in ms: at the moment its last review set, else one interval of the rule
 * profile after it was approved. Null once it is restored, for then nothing stands any more. Common practice.
 */
export function reviewDue_ms(
  isolation: Readonly<{ approved_ms: number; isRestored: boolean }>,
  reviews: readonly Review[],
  every_s: number,
): number | null {
  if (isolation.isRestored) return null;
  const last = reviews.reduce<Review | null>(
    (latest, one) => (latest && latest.at_ms > one.at_ms ? latest : one),
    null,
  );
  return last?.next_ms ?? isolation.approved_ms + every_s * 1000;
}
