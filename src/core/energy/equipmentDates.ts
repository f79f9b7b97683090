export const EQUIPMENT = ["portable or temporary", "fixed", "vessel showing rust"] as const;
export type Equipment = (typeof EQUIPMENT)[number];

/**
 * Months between two looks at pressure equipment: portable and temporary six, fixed twelve, a water test every three
 * years for vessels showing rust; and a water test after a repair or after lay-up. The site's code wins. Common
 * practice, no source.
 */
export function monthsBetweenLooks(kind: Equipment): number {
  return kind === "portable or temporary" ? 6 : kind === "fixed" ? 12 : 36;
}
