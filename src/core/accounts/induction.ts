import { z } from "zod";
import { personIdSchema } from "../people/personIdSchema";
import type { PersonId } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";

/**
 * What somebody of another firm was shown of this site before they work on it: its alarms, ways out, hazards and rules. It
 * counts for a time. That the site asks it of contractors is common practice, no source.
 */
export const inductionSchema = z.object({ by: personIdSchema, at_ms: z.number(), until_ms: z.number() });
export type Induction = Readonly<z.output<typeof inductionSchema>>;

/** A site changes: nobody's induction counts longer. Common practice, no source. */
export const INDUCTED_AT_MOST_YEARS = 3;
const YEAR_MS = 365.25 * 86_400_000;

type Inducted = Readonly<{ firm: string; induction: Induction | null }>;

/**
 * Why somebody of another firm may not begin work: nobody has written down that they were inducted, or it is over. Null for the
 * site's own people, and on the last day still.
 */
export function inductionMissing({ firm, induction }: Inducted, now_ms: number): "never" | "over" | null {
  if (firm === "") return null;
  if (induction === null) return "never";
  return now_ms <= induction.until_ms ? null : "over";
}

/**
 * The induction from now on. One that stays as it was keeps who gave it and when; the site's own people have none. One that is
 * over before it begins, or too far to be meant, is refused.
 */
export function induct(
  before: Induction | null,
  wanted: Readonly<{ firm: string; until_ms: number | null; by: PersonId; now_ms: number }>,
): Result<Induction | null> {
  const { firm, until_ms, by, now_ms } = wanted;
  if (firm === "" || until_ms === null) return accept(null);
  if (before?.until_ms === until_ms) return accept(before);
  if (until_ms <= now_ms) return refuse({ code: "date over", what: "the site induction" });
  if (until_ms > now_ms + INDUCTED_AT_MOST_YEARS * YEAR_MS) {
    return refuse({ code: "date too far", years: INDUCTED_AT_MOST_YEARS, what: "The end of the site induction" });
  }
  return accept({ by, at_ms: now_ms, until_ms });
}
