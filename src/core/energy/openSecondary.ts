/**
 * The highest voltage that a current transformer may show at an open secondary, peak, in V: nothing but its own iron takes the primary
 * current, and the flux crosses zero as steeply as the unsaturated iron lets it. L·di/dt at the crossing, with L from the knee of the
 * magnetising curve (V_k and I_k, effective values): √2 · V_k · I/I_k, I the current that the closed secondary would carry. Capacitance
 * and eddy currents make it less; it is a bound. Arithmetic of the magnetising curve.
 */
export function openSecondary_V(
  p: Readonly<{ primary_A: number; ratedPrimary_A: number; ratedSecondary_A: number; knee_V: number; knee_A: number }>,
): number {
  const closed_A = (p.primary_A * p.ratedSecondary_A) / p.ratedPrimary_A;
  return (Math.SQRT2 * p.knee_V * closed_A) / p.knee_A;
}
