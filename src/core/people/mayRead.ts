import type { Role } from "./roles";

/**
 * What is read beside the work itself. The board, jobs, permits, isolations, boxes, drawings, procedures, alarms, the handover,
 * calculators and who is where are everybody's who is signed in: whoever is hurt by what they hide must be able to see them.
 */
export const READINGS = [
  "record",
  "whole record as a file",
  "figures",
  "accounts",
  "people as a file",
  "files",
] as const;
export type Reading = (typeof READINGS)[number];

export type Reader = Readonly<{ roles: readonly Role[]; firm: string }>;

/** Who answers for others' work, or looks at it afterwards, reads what they did and what was refused them. */
const ANSWER_FOR_OTHERS: readonly Role[] = ["coordinator", "issuer", "approver"];
const MAY: Readonly<Record<Reading, readonly Role[]>> = {
  record: ANSWER_FOR_OTHERS,
  "whole record as a file": ["coordinator", "approver"],
  figures: ANSWER_FOR_OTHERS,
  accounts: ["coordinator"],
  "people as a file": ["coordinator"],
  // Any role at all.
  files: [],
};

/** What leaves the house with somebody: not with another firm's people. */
export const LEAVES: ReadonlySet<Reading> = new Set(["whole record as a file", "figures", "people as a file", "files"]);

/** What is not refused is everybody's own: one's own rows of the record, one's own account. Common practice, no source. */
export function mayRead(what: Reading, { roles, firm }: Reader): boolean {
  if (firm !== "" && LEAVES.has(what)) return false;
  const may = MAY[what];
  return may.length === 0 || may.some((role) => roles.includes(role));
}

/** Any one of these; empty for everybody's. */
export const readersOf = (what: Reading): readonly Role[] => MAY[what];
