import type { Carrier } from "../plant/carriers";

/** Carriers that are isolated alike and share a ladder of grades. */
export const FAMILIES = ["flow", "wire", "motion", "heat", "radiation"] as const;
export type Family = (typeof FAMILIES)[number];

const FAMILY_OF: Readonly<Record<Carrier, Family>> = {
  power: "wire",
  control: "wire",
  fluid: "flow",
  hydraulic: "flow",
  pneumatic: "flow",
  bulk: "flow",
  shaft: "motion",
  gravity: "motion",
  heat: "heat",
  radiation: "radiation",
};

export function familyOf(carrier: Carrier): Family {
  return FAMILY_OF[carrier];
}

/** The grades of each family, best first. Common practice; the words are explained in docs/grades.md. */
export const LADDERS = {
  flow: ["positive", "proved double", "proved single", "unproved double", "unproved single", "none"],
  wire: ["separated", "locked isolating device", "locked switch", "tagged only", "none"],
  motion: ["restrained", "drive isolated only", "none"],
  heat: ["isolated and cooled", "isolated", "none"],
  radiation: ["removed", "shutter locked and surveyed", "none"],
} as const satisfies Readonly<Record<Family, readonly string[]>>;

export type Grade = (typeof LADDERS)[Family][number];
export const GRADES: readonly Grade[] = [...new Set(Object.values(LADDERS).flat())];

/**
 * Barriers that a grade needs at least. Positive ones are counted over positive devices only: a blind, a spade, a
 * removed spool, a disconnection; a visible break or withdrawn truck; a coupling out, a pin, a block.
 */
export const BARRIERS_FOR: Readonly<Record<Grade, Readonly<{ barriers: number; positive: boolean }>>> = {
  positive: { barriers: 1, positive: true },
  "proved double": { barriers: 2, positive: false },
  "proved single": { barriers: 1, positive: false },
  "unproved double": { barriers: 2, positive: false },
  "unproved single": { barriers: 1, positive: false },
  separated: { barriers: 1, positive: true },
  "locked isolating device": { barriers: 1, positive: false },
  "locked switch": { barriers: 1, positive: false },
  "tagged only": { barriers: 1, positive: false },
  restrained: { barriers: 1, positive: true },
  "drive isolated only": { barriers: 1, positive: false },
  "isolated and cooled": { barriers: 1, positive: false },
  isolated: { barriers: 1, positive: false },
  removed: { barriers: 1, positive: true },
  "shutter locked and surveyed": { barriers: 1, positive: false },
  none: { barriers: 0, positive: false },
};

/** How far down its ladder a grade stands: 0 is the best. */
function rank(family: Family, grade: Grade): number {
  const found = (LADDERS[family] as readonly Grade[]).indexOf(grade);
  if (found < 0) throw new RangeError(`${grade} is no grade of ${family}`);
  return found;
}

export function meets(family: Family, has: Grade, needs: Grade): boolean {
  return rank(family, has) <= rank(family, needs);
}

export function isGradeOf(family: Family, grade: Grade): boolean {
  return (LADDERS[family] as readonly Grade[]).includes(grade);
}

/** The stricter of two grades of one family. */
export function stricter(family: Family, a: Grade, b: Grade): Grade {
  return rank(family, a) <= rank(family, b) ? a : b;
}

/** The weaker of two grades of one family. */
export function weaker(family: Family, a: Grade, b: Grade): Grade {
  return rank(family, a) <= rank(family, b) ? b : a;
}

/** One grade better, or the same where it is the best already. */
export function oneBetter(family: Family, grade: Grade): Grade {
  return LADDERS[family][Math.max(0, rank(family, grade) - 1)] ?? grade;
}
