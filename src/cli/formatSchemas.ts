import { z } from "zod";
import { plantSchema } from "../core/plant/plantSchema";
import { jobSchema } from "../core/request/jobFile";

/**
 * The project's own file formats as JSON Schema (draft 7), made from what reads them. A schema says what a file may hold; what hangs
 * together in it, as a link whose ends exist, only the program says.
 */
export function formatSchemas(): Readonly<Record<string, unknown>> {
  const made = (schema: z.ZodType, title: string) => ({
    ...z.toJSONSchema(schema, { io: "input", unrepresentable: "any", target: "draft-7" }),
    title,
  });
  return {
    "plant.schema.json": made(plantSchema, "heavy-lantern/plant, version 1"),
    "job.schema.json": made(jobSchema, "heavy-lantern/job, version 1"),
  };
}
