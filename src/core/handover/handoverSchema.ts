import { z } from "zod";
import { personIdSchema } from "../people/personIdSchema";
import type { AskedItem, HandoverItem } from "./handover";

/** What was gone through, as it is kept. */
export const itemsSchema: z.ZodType<readonly HandoverItem[]> = z
  .array(z.object({ area: z.string(), subject: z.string(), words: z.string(), bold: z.boolean() }))
  .readonly();

/** What was asked, as it is kept. */
export const askedSchema: z.ZodType<readonly AskedItem[]> = z
  .array(
    z.object({
      item: z.string(),
      words: z.string(),
      answer: z.object({ by: personIdSchema, at_ms: z.number(), words: z.string() }).nullable(),
    }),
  )
  .readonly();
