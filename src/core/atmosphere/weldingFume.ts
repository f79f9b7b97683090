export const ARCS = ["stick", "flux-cored wire", "solid wire"] as const;
export type Arc = (typeof ARCS)[number];

/**
 * Fume made of a kilogram of rod or wire, kg/kg: the highest of its kind in the emission factors of EPA AP-42, section 12.19, from
 * memory. Most rods make less; coatings and paint on the work make more.
 */
export const FUME_OF: Readonly<Record<Arc, number>> = {
  stick: 0.0384,
  "flux-cored wire": 0.0208,
  "solid wire": 0.0205,
};

/** Fume that stays in the air of a space, in kg/s, what is drawn off at the arc taken away. */
export function fume_kg_s(p: Readonly<{ arc: Arc; burnt_kg_s: number; captured: number }>): number {
  return FUME_OF[p.arc] * p.burnt_kg_s * (1 - p.captured);
}
