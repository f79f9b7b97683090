/** Holes of the hasp the store keeps. A hasp hung on a hasp takes one of its holes. */
export const HASP_HOLES = 6;

/**
 * Hasps that carry so many locks at one point: none for one lock, which goes through the device itself. Each further
 * hasp hangs in a hole of the one before: two of six holes carry 5 + 6. Common practice; arithmetic.
 */
export function haspsFor(locks: number, holes = HASP_HOLES): number {
  if (locks <= 1) return 0;
  return Math.max(1, Math.ceil((locks - 1) / (holes - 1) - 1e-9));
}

/** Locks that a chain of hasps carries: the first holes, then one fewer for each that hangs on it. */
export function carriedBy(hasps: number, holes = HASP_HOLES): number {
  return hasps === 0 ? 1 : hasps * (holes - 1) + 1;
}

export const LOCK_SCHOOLS = ["on the box", "on every point"] as const;
/** Where people hang their own locks: both schools, per job. */
export type LockSchool = (typeof LOCK_SCHOOLS)[number];

/** Personal locks that a crew needs: one each at the box, or one each at every point. Common practice. */
export function personalLocks(p: { people: number; points: number; school: LockSchool }): number {
  return p.school === "on the box" ? p.people : p.people * p.points;
}
