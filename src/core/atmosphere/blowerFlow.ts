/** What one 90° bend in the hose leaves of the flow: 1000 cfm becomes 700. Common practice, no source. */
const LEFT_BY_A_BEND = 0.7;

/** Most 90° bends in a set-up: one to purge, two to ventilate. Common practice, no source. */
export const MOST_BENDS = { purge: 1, ventilate: 2 } as const;

/** Flow of a blower at the end of a hose with so many 90° bends: every bend leaves 70 %. Common practice, no source. */
export function blowerFlow_m3_s(p: { rated_m3_s: number; bends: number }): number {
  return p.rated_m3_s * LEFT_BY_A_BEND ** p.bends;
}
