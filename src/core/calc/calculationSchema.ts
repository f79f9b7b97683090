import { z } from "zod";
import { QUANTITY_NAMES } from "../units/units";
import type { Calculation, Picture } from "./calculation";

const quantity = z.enum(QUANTITY_NAMES);
const words = z.string();
const axis = z.object({ words, quantity });
const point = z.tuple([z.number(), z.number()]);

const pictureSchema: z.ZodType<Picture> = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("curve"),
    x: axis,
    y: axis,
    series: z.array(z.object({ words, points: z.array(point), dashed: z.boolean().optional() })),
    lines: z.array(z.object({ y: z.number(), words })),
    marks: z.array(z.object({ x: z.number(), y: z.number(), words })),
    bands: z.array(z.object({ from: z.number(), to: z.number(), words })),
  }),
  z.object({
    kind: z.literal("bars"),
    quantity,
    log: z.boolean(),
    rows: z.array(z.object({ words, value: z.number(), governs: z.boolean().optional() })),
    line: z.object({ value: z.number(), words }).optional(),
  }),
  z.object({ kind: z.literal("reach"), rings: z.array(z.object({ radius_m: z.number(), words })) }),
  z.object({
    kind: z.literal("depths"),
    depth_m: z.number(),
    travel_m: z.number(),
    at_m: z.array(z.number()),
  }),
]);

/** A figure as it is kept with a job or a permit. */
export const calculationSchema: z.ZodType<Calculation> = z.object({
  results: z.array(
    z.object({ key: z.string(), words, quantity, value: z.number().nullable(), instead: z.string().optional() }),
  ),
  governs: z.string(),
  because: z.string().optional(),
  formula: z.string(),
  source: z.string(),
  validity: z.string(),
  warnings: z.array(z.string()),
  picture: pictureSchema.optional(),
  also: z.record(z.string(), z.unknown()).optional(),
});
