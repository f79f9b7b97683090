import { z } from "zod";
import type { PersonId } from "./roles";

/** An id as it comes from outside or off the disk. */
export const personIdSchema = z.string().transform((id) => id as PersonId);
