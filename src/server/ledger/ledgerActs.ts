import { eq } from "drizzle-orm";
import { z } from "zod";
import { ledger } from "../db/schema";
import { defineAct } from "../act/act";

/** A mistake in the ledger is never edited: another row says that it was entered in error, who says so, and why. */
export const markEnteredInError = defineAct({
  type: "ledger.entered-in-error",
  words: "mark a ledger row as entered in error",
  roles: ["coordinator"],
  pin: true,
  input: z.object({ seq: z.number().int().min(1), reason: z.string().trim().min(3, "write the reason").max(500) }),
  run: ({ tx }, input) => {
    const row = tx
      .select({ seq: ledger.seq, subject: ledger.subject })
      .from(ledger)
      .where(eq(ledger.seq, input.seq))
      .get();
    if (row === undefined) {
      return { ok: false, subject: "", refusal: { code: "unknown", what: "ledger row", name: String(input.seq) } };
    }
    return { ok: true, subject: row.subject, corrects: row.seq, answer: { corrects: row.seq } };
  },
});
