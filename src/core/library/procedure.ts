import { z } from "zod";
import { jobHazardsSchema } from "../hazard/jobHazards";
import { personIdSchema } from "../people/personIdSchema";
import { COMPETENCES } from "../people/roles";
import { detailsSchema } from "../permit/kinds/details";
import { jobSchema } from "../request/jobFile";

/**
 * What a version of an isolation procedure says: how this equipment was isolated for this kind of work, and what was decided
 * and written for it. The plan itself stays with the isolation that it was taken from. It proves nothing: at each use the
 * points are judged anew.
 */
export const contentSchema = z.object({
  /** Work locations, how people meet them, by which rules. */
  job: jobSchema,
  work: z.string(),
  /** The isolation that it was taken from: its plan, steps and pictures. */
  isolation: z.string(),
  points: z.array(z.string()),
  /** Trades of its steps: who approves it for the trade has all of them. */
  trades: z.array(z.enum(COMPETENCES)),
  hazards: jobHazardsSchema.shape.decisions,
  tools: z.array(z.string()),
  permits: z.array(
    z.object({ words: z.string(), hazards: z.string(), precautions: z.string(), details: detailsSchema }),
  ),
});
export type ProcedureContent = Readonly<z.output<typeof contentSchema>>;

/** Who answers for a version: one for the trade, one for the equipment. Common practice, no source. */
export const PARTS = ["trade", "equipment"] as const;
export type Part = (typeof PARTS)[number];

export const signaturesSchema = z.array(z.object({ part: z.enum(PARTS), by: personIdSchema, at_ms: z.number() }));
export const inspectionsSchema = z.array(
  z.object({
    by: personIdSchema,
    at_ms: z.number(),
    /** Who was watched at it. */
    watched: z.array(personIdSchema),
    found: z.string(),
    sound: z.boolean(),
  }),
);

export const VERSION_STATES = ["draft", "approved", "superseded", "withdrawn"] as const;

export type ProcedureLife = Readonly<{
  number: string;
  version: number;
  state: (typeof VERSION_STATES)[number];
  writtenBy: string;
  writtenAt_ms: number;
  trades: ProcedureContent["trades"];
  signatures: Readonly<z.output<typeof signaturesSchema>>;
  inspections: Readonly<z.output<typeof inspectionsSchema>>;
}>;
