import { LEAVES, readersOf, type Reading } from "../../people/mayRead";
import type { Role } from "../../people/roles";

const WHAT: Readonly<Record<Reading, string>> = {
  record: "All of the record is",
  "whole record as a file": "All of the record as a file is",
  figures: "The figures are",
  accounts: "Accounts are",
  "people as a file": "The list of people is",
  files: "Registers and lists as files are",
};
const a = (role: Role) => `${/^[aeiou]/.test(role) ? "an" : "a"} ${role}`;

/** Who reads it, for whoever may not: what to ask, and whom. */
export function whoReads(what: Reading): string {
  const roles = readersOf(what).map(a);
  const last = roles.pop();
  const own = "of the site's own";
  if (last === undefined) return `${WHAT[what]} for people ${own}, not of another firm: ask one of them.`;
  const who = roles.length === 0 ? last : `${roles.join(", ")} or ${last}`;
  return `${WHAT[what]} read by ${who}${LEAVES.has(what) ? ` ${own}` : ""}: ask one of them.`;
}
