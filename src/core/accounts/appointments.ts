import { z } from "zod";
import { accept, refuse, type Result } from "../refusal/result";
import { personIdSchema } from "../people/personIdSchema";
import { COMPETENCES, type Competence, type PersonId } from "../people/roles";

/** By whom somebody was found able to isolate and prove one kind of energy, when, and until when that counts; null: no end. */
export const appointmentSchema = z.object({
  by: personIdSchema,
  at_ms: z.number(),
  until_ms: z.number().nullable(),
});
export type Appointment = Readonly<z.output<typeof appointmentSchema>>;

/** By competence. One that is missing was given before anybody wrote down by whom: it has no end. */
export const appointedSchema = z.partialRecord(z.enum(COMPETENCES), appointmentSchema).readonly();
export type Appointed = Readonly<Partial<Record<Competence, Appointment>>>;

type Holder = Readonly<{ competences: readonly Competence[]; appointed: Appointed }>;

/** No assessment speaks for a person longer. Common practice, no source. */
export const APPOINTED_AT_MOST_YEARS = 5;
const YEAR_MS = 365.25 * 86_400_000;

/** Those that count at this moment, on the last day still. */
export const inForce = ({ competences, appointed }: Holder, now_ms: number): Competence[] =>
  competences.filter((one) => {
    const until_ms = appointed[one]?.until_ms ?? null;
    return until_ms === null || now_ms <= until_ms;
  });

export type Wanted = Readonly<{
  competences: readonly Competence[];
  /** The last moment of each that has an end. */
  until: Readonly<Partial<Record<Competence, number | null>>>;
  by: PersonId;
  now_ms: number;
}>;

/**
 * What somebody is appointed for from now on. An appointment that stays as it was keeps who gave it and when: saving a form
 * assesses nobody. One with an end that is over, or too far to be meant, is refused.
 */
export function appoint(before: Holder, { competences, until, by, now_ms }: Wanted): Result<Holder> {
  const appointed: Partial<Record<Competence, Appointment>> = {};
  const wanted = COMPETENCES.filter((one) => competences.includes(one));
  for (const one of wanted) {
    const until_ms = until[one] ?? null;
    const had = before.competences.includes(one);
    const known = before.appointed[one];
    if (had && (known?.until_ms ?? null) === until_ms) {
      if (known !== undefined) appointed[one] = known;
      continue;
    }
    if (until_ms !== null && until_ms <= now_ms) return refuse({ code: "date over", what: `${one} isolations` });
    if (until_ms !== null && until_ms > now_ms + APPOINTED_AT_MOST_YEARS * YEAR_MS) {
      return refuse({ code: "date too far", years: APPOINTED_AT_MOST_YEARS, what: `The end of ${one} isolations` });
    }
    appointed[one] = { by, at_ms: now_ms, until_ms };
  }
  return accept({ competences: wanted, appointed });
}
