import { z } from "zod";
import { parsed } from "../db/jsonColumn";

/** What was answered to an act, as rows of the ledger keep it: rows of every version are read. */
const answerSchema = z.union([
  z.object({ ok: z.literal(true), answer: z.record(z.string(), z.union([z.string(), z.number(), z.null()])) }),
  z.looseObject({
    ok: z.literal(false),
    status: z.union([z.literal(400), z.literal(401), z.literal(403), z.literal(409), z.literal(503)]),
    code: z.string(),
    sentence: z.string(),
    field: z.string().optional(),
    faults: z.array(z.object({ field: z.string(), message: z.string() })).optional(),
    /** The refusal itself, code and evidence, so that its sentence can be written again. */
    refusal: z.looseObject({ code: z.string() }).optional(),
  }),
]);

const bodySchema = z.looseObject({
  input: z.unknown(),
  answer: answerSchema,
  via: z.string().optional(),
});
export type LedgerBody = z.output<typeof bodySchema>;

export function bodyOf(row: Readonly<{ seq: number; body: string }>): LedgerBody {
  return parsed(`row ${row.seq} of the ledger`, bodySchema, row.body);
}
