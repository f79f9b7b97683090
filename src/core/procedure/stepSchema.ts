import { z } from "zod";
import { ROLES, TRADES } from "../people/roles";
import { CARRIERS } from "../plant/carriers";
import { STEP_KINDS, type PlannedStep } from "./steps";

/** A planned step as it is kept. */
export const plannedStepSchema: z.ZodType<PlannedStep> = z.object({
  id: z.string(),
  phase: z.enum(["isolate", "restore", "test"]),
  kind: z.enum(STEP_KINDS),
  subject: z.string(),
  plate: z.string().nullable(),
  words: z.string(),
  competence: z.enum(TRADES).nullable(),
  highVoltage: z.literal(true).optional(),
  after: z.array(z.string()),
  carrier: z.enum(CARRIERS).nullable(),
  limit: z.object({ most: z.number(), unit: z.string() }).nullable(),
  secondPerson: z.boolean(),
  role: z.enum(ROLES).optional(),
  pairs: z.array(z.string()).optional(),
  system_V: z.number().optional(),
  ways: z.array(z.string()).optional(),
  entrances: z.array(z.string()).optional(),
  opening_m: z.number().optional(),
  alone: z.literal(true).optional(),
});
