/**
 * What a minor isolation has to be, each as one condition. The first eight are those under which no written procedure is
 * asked, 29 CFR 1910.147(c)(4)(i), from memory; the rest bounds the short route further, common practice.
 */
export const MINOR_CONDITIONS = [
  "no stored energy",
  "one source",
  "cut off by it",
  "locked out",
  "one lock",
  "own control",
  "no hazard to others",
  "no accident",
  "kind of energy",
  "low voltage",
  "kind of work",
  "no permit of a kind",
  "no other step",
  "one shift",
  "not shared",
] as const;
export type MinorCondition = (typeof MINOR_CONDITIONS)[number];

/** A condition that is not met, and by what: tags, names, kinds. */
export type MinorFault = Readonly<{ condition: MinorCondition; evidence: readonly string[] }>;
