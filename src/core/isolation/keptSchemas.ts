import { z } from "zod";
import { personIdSchema } from "../people/personIdSchema";
import type { Verdict } from "./heldNow";
import { EMPTIED_HOW, STUCK_WHYS, type Failure, type Stuck, type WalkStep } from "./isolation";
import type { Evidence } from "./stepEvidence";
import type { Affected } from "./temporary";

const text = z.string().nullable().optional();
const figure = z.number().nullable().optional();

/** What was seen at a step, as it is kept. */
export const evidenceSchema: z.ZodType<Evidence> = z.object({
  readings: z.record(z.string(), z.number()).optional(),
  tester: text,
  provingUnit: text,
  knownSource: text,
  knownSource_V: figure,
  provedBefore: z.boolean().optional(),
  provedAfter: z.boolean().optional(),
  gloves: text,
  instrument: text,
  error: figure,
  stays: z.array(z.string()).readonly().optional(),
  wrongClock: z.boolean().optional(),
  countedFrom_ms: z.number().optional(),
  tried: z.array(z.string()).optional(),
  earths: z.record(z.string(), z.string()).optional(),
  peopleCounted: figure,
  pressure_bar: figure,
  held_min: figure,
  lost_bar: figure,
  words: text,
  photo: text,
});

/** How a plan fared on a later register, as it is kept. */
export const verdictSchema: z.ZodType<Verdict> = z.object({
  revision: z.number().int(),
  judged: z.boolean(),
  missingFaces: z.array(z.string()).readonly(),
  lostPoints: z.array(z.string()).readonly(),
  short: z.array(z.object({ source: z.string(), face: z.string(), depth: z.number() })).readonly(),
});

/** Why a step cannot be done, as it is kept. */
export const stuckSchema: z.ZodType<Stuck> = z.object({
  why: z.enum(STUCK_WHYS),
  words: z.string(),
  by: personIdSchema,
  at_ms: z.number(),
});

/** Who turned on what a step runs for a time with, as it is kept. */
export const begunSchema: z.ZodType<NonNullable<WalkStep["begun"]>> = z.object({
  by: personIdSchema,
  at_ms: z.number(),
  watcher: personIdSchema.optional(),
  how: z.enum(EMPTIED_HOW).optional(),
});

const saidSchema = z.object({ by: personIdSchema, at_ms: z.number(), words: z.string() }).nullable();

/** What failed at a step, as it is kept. */
export const failuresSchema: z.ZodType<readonly Failure[]> = z
  .array(
    z.object({
      what: z.enum(["not safe", "leaks", "started"]),
      reading: z.number().nullable(),
      unit: z.string().nullable(),
      instrument: z.string().nullable(),
      by: personIdSchema,
      at_ms: z.number(),
      cause: saidSchema,
      inError: saidSchema,
      settled_ms: z.number().nullable(),
    }),
  )
  .readonly();

/** The jobs that a temporary de-isolation reaches, as they are kept. */
export const affectedSchema: z.ZodType<readonly Affected[]> = z.array(
  z.object({ job: z.string(), agreedBy: personIdSchema.nullable(), agreedAt_ms: z.number().nullable() }),
);
