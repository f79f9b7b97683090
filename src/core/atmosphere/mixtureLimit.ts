/**
 * Lower flammable limit of a mixture of vapours in air (Le Chatelier).
 *
 *   LFL = 1 / Σ(yᵢ/LFLᵢ),   yᵢ = share of each in the burning part
 *
 * Fractions of 1 by volume. The mixture can burn where the burning part is at or above it; above its upper limit it is
 * too rich only until air is let in, so rich counts as flammable here.
 *
 * Source: D. A. Crowl and J. F. Louvar, Chemical Process Safety, chapter on fires, from memory.
 */
export function mixtureLimit(parts: readonly Readonly<{ vol: number; lfl: number }>[]): {
  lfl: number;
  total: number;
  flammable: boolean;
} {
  const total = parts.reduce((sum, part) => sum + part.vol, 0);
  const weighed = parts.reduce((sum, part) => sum + part.vol / total / part.lfl, 0);
  const lfl = 1 / weighed;
  return { lfl, total, flammable: total >= lfl };
}
