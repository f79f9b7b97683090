import type { Role } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";

/**
 * Tokens for programs: what reads or acts here without anybody signing in. A token opens a door and signs nothing: an act that
 * asks for a PIN asks for it still, and whoever made the token answers for what comes by it.
 */
export const READ_RIGHTS = ["own calendar", "site calendar", "lists", "jobs"] as const;
export type ReadRight = (typeof READ_RIGHTS)[number];

export type Access = Readonly<{
  number: string;
  owner: string;
  /** What it is for, in the owner's words. */
  name: string;
  rights: readonly ReadRight[];
  /** Types of the acts that may come by it. */
  acts: readonly string[];
  until_ms: number;
  revoked_ms: number | null;
}>;

const DAY_MS = 86_400_000;
/** Longest life of a token. Common practice, no source. */
export const ACCESS_MOST_DAYS = 400;
/** Alive at once, of one person. */
export const ACCESS_MOST = 20;

/** Accounts, tokens, the clock and what stands at a box are people's own: no program is given them. */
const NOT_GIVEN: readonly string[] = ["person.", "access.", "clock.", "crew.", "instrument."];
export const isGiven = (act: string): boolean => !NOT_GIVEN.some((begin) => act.startsWith(begin));

/** What is read as data leaves the site with whoever reads it. */
export const TAKES_OUT: ReadonlySet<ReadRight> = new Set(["lists", "jobs"]);

export type AccessFacts = Readonly<{
  /** The owner's tokens that still count. */
  alive: number;
  /** Whether the owner may take lists out of the site. */
  mayTakeOut: boolean;
  /** Who may do an act; empty for everybody, null where there is none of that type. */
  rolesOf: (act: string) => readonly Role[] | null;
  /** What an act is called. */
  wordsOf: (act: string) => string;
  ownRoles: readonly Role[];
}>;

/** What a token may open is never more than its owner may do themselves. */
export function decideAccess(
  asked: Pick<Access, "name" | "rights" | "acts" | "until_ms">,
  facts: AccessFacts,
  now_ms: number,
): Result<Pick<Access, "rights" | "acts" | "until_ms">> {
  const { rights, acts, until_ms } = asked;
  if (rights.length + acts.length === 0) return refuse({ code: "opens nothing" });
  if (until_ms <= now_ms || until_ms > now_ms + ACCESS_MOST_DAYS * DAY_MS) {
    return refuse({ code: "token too long", days: ACCESS_MOST_DAYS });
  }
  if (facts.alive >= ACCESS_MOST) return refuse({ code: "too many tokens", most: ACCESS_MOST });
  if (!facts.mayTakeOut && rights.some((right) => TAKES_OUT.has(right))) {
    return refuse({ code: "not for a program", what: "lists or jobs, which you may not take out of the site" });
  }
  for (const act of acts) {
    const roles = facts.rolesOf(act);
    if (roles === null) return refuse({ code: "unknown", what: "act", name: act });
    if (!isGiven(act)) return refuse({ code: "not for a program", what: `to ${facts.wordsOf(act)}` });
    if (roles.length > 0 && !roles.some((role) => facts.ownRoles.includes(role))) {
      return refuse({ code: "not yours to do", act: facts.wordsOf(act), needs: roles });
    }
  }
  return accept({ rights: [...new Set(rights)], acts: [...new Set(acts)].sort(), until_ms });
}

/** Whether a token counts at a moment. */
export const counts = ({ until_ms, revoked_ms }: Pick<Access, "until_ms" | "revoked_ms">, now_ms: number): boolean =>
  revoked_ms === null && now_ms < until_ms;
