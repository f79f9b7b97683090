import { z } from "zod";
import { personIdSchema } from "../people/personIdSchema";

export const musterPeopleSchema = z
  .array(z.object({ person: personIdSchema, permits: z.array(z.string()).readonly(), inside: z.string().nullable() }))
  .readonly();
export const seenSchema = z
  .array(z.object({ person: personIdSchema, by: personIdSchema, at_ms: z.number(), isSeen: z.boolean() }))
  .readonly();
