/**
 * Cycles of pressure or vacuum that take a vessel from c0 to c, exact and rounded up.
 *
 *   n = ln((C − Cₛ)/(C₀ − Cₛ)) / ln(P_low/P_high)
 *
 * Each cycle mixes fully and ends where it began; temperature stays. Fractions of 1, absolute pressures in Pa. Null
 * where the purge gas itself holds as much as is asked.
 *
 * Source: D. A. Crowl and J. F. Louvar, Chemical Process Safety, chapter on purging, from memory.
 */
export function purgeCycles(p: {
  c0: number;
  c: number;
  cs?: number;
  low_Pa: number;
  high_Pa: number;
}): { exact: number; cycles: number } | null {
  const { c0, c, cs = 0, low_Pa, high_Pa } = p;
  const left = (c - cs) / (c0 - cs);
  if (!(left > 0) || left > 1 || low_Pa >= high_Pa) return null;
  const exact = Math.log(left) / Math.log(low_Pa / high_Pa);
  // A whole number that arithmetic leaves a hair above itself is not another cycle.
  return { exact, cycles: Math.max(0, Math.ceil(exact - 1e-9)) };
}
