import { z } from "zod";
import { personIdSchema } from "../people/personIdSchema";
import type { ForcedRemoval } from "./forcedRemoval";

const noted = z.object({ by: personIdSchema, at_ms: z.number(), words: z.string() });
/** A removal as it is kept. */
export const removalSchema: z.ZodType<ForcedRemoval> = z.object({
  permit: z.string(),
  lock: z.string(),
  owner: personIdSchema,
  reason: z.string(),
  opened: noted,
  lookedFor: noted.nullable(),
  attempts: z.array(noted),
  authorised: noted.nullable(),
  cut: noted.nullable(),
  read: noted.nullable(),
  calledOff: noted.nullable(),
});
