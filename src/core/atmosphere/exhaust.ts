import { AIR_kg_mol } from "./substances";

/**
 * Decay of what a round jet carries, along its axis, in diameters: the greater of those published (5 to 5.4), from memory of
 * Chen and Rodi, Vertical turbulent buoyant jets, 1980.
 */
const JET_DECAY = 5.4;

/** How far a free turbulent jet in still air goes before what it carries is thinned to the limit, in m. Nothing in its way. */
export function stillReach_m(
  p: Readonly<{ diameter_m: number; share: number; limit: number; molar_kg: number }>,
): number {
  // A heavy gas keeps its push for longer; a light one is taken as no lighter than air.
  const heavy = Math.max(1, Math.sqrt((p.share * p.molar_kg + (1 - p.share) * AIR_kg_mol) / AIR_kg_mol));
  return p.share <= p.limit ? 0 : JET_DECAY * p.diameter_m * heavy * (p.share / p.limit);
}

/** Spread of a plume near the ground on a clear night, in m (Briggs, open country, class F, from memory). */
const sigmaY_m = (x: number) => (0.04 * x) / Math.sqrt(1 + 0.0001 * x);
const sigmaZ_m = (x: number) => (0.016 * x) / (1 + 0.0003 * x);

/** Farther than this the formula is not meant for. */
const FARTHEST_m = 10_000;

/** How far downwind a plume along the ground is thinned to the limit, in m; null where not within ten kilometres. */
export function windReach_m(
  p: Readonly<{ flow_m3_s: number; share: number; limit: number; wind_m_s: number }>,
): number | null {
  if (p.share <= p.limit) return 0;
  const at = (x: number) => (p.flow_m3_s * p.share) / (Math.PI * p.wind_m_s * sigmaY_m(x) * sigmaZ_m(x));
  if (at(FARTHEST_m) > p.limit) return null;
  let [near, far] = [1e-6, FARTHEST_m];
  for (let i = 0; i < 200 && far - near > 1e-9 * far; i++) {
    const middle = Math.sqrt(near * far);
    if (at(middle) > p.limit) near = middle;
    else far = middle;
  }
  return far;
}
