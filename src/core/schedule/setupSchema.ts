import { z } from "zod";
import { LOCK_SCHOOLS } from "../gear/hasps";
import { BOUNDS, CREW_BOUND, CREWS, type Bound, type Setup } from "./setup";

/** The same as `figureFault`, as a schema that says what it takes. */
function within({ above, least, most, whole }: Bound): z.ZodNumber {
  const words = whole ? "must be a whole number" : "must be a number";
  const number = whole ? z.number(words).int(words) : z.number(words);
  const over = above === undefined ? number : number.gt(above, `must be above ${above}`);
  const atLeast = least === undefined ? over : over.min(least, `must be at least ${least}`);
  return atLeast.max(most, `must be at most ${most}`);
}

const figures = Object.fromEntries(
  Object.entries(BOUNDS).map(([key, bound]) => [key, within(bound).optional()]),
) as Record<keyof typeof BOUNDS, z.ZodOptional<z.ZodNumber>>;

/** A set-up from outside or off the disk. Apart from the set-up itself, so that a page that shows one fetches no schemas. */
export const setupSchema: z.ZodType<Setup> = z.strictObject({
  ...figures,
  crews: z.partialRecord(z.enum(CREWS), within(CREW_BOUND)).optional(),
  lockSchool: z.enum(LOCK_SCHOOLS).optional(),
});
