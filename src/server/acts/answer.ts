import type { z } from "zod";
import { refusalSentence } from "../../core/words/en/refusals";
import type { ActOutcome } from "../act/act";

export type ActAnswer =
  | Readonly<{
      ok: true;
      answer: Readonly<Record<string, string | number | null>>;
      /** What is shown once: the same act sent again is answered without it. */
      once?: Readonly<Record<string, string>>;
    }>
  | Readonly<{
      ok: false;
      status: 400 | 401 | 403 | 409 | 503;
      sentence: string;
      field?: string;
      code: string;
      /** Code and evidence of a refusal: the sentence is written from it. */
      refusal?: Readonly<{ code: string }>;
      /** Every field that is wrong, and how. */
      faults?: readonly Readonly<{ field: string; message: string }>[];
      /** Of a round: which of its acts was refused, from 0; nothing of the round was done. */
      entry?: number;
    }>;

export function answerOf(outcome: ActOutcome): ActAnswer {
  if (outcome.ok) return { ok: true, answer: outcome.answer };
  const status = outcome.refusal.code === "not yours to do" ? 403 : 409;
  const { refusal } = outcome;
  return { ok: false, status, code: refusal.code, sentence: refusalSentence(refusal), refusal };
}

export function badField(field: string, sentence: string): ActAnswer {
  const named = field === "" ? {} : { field };
  return {
    ok: false,
    status: 400,
    code: "bad input",
    sentence: `${sentence}.`,
    ...named,
    faults: [{ field, message: sentence }],
  };
}

export function badInput(error: z.ZodError): ActAnswer {
  const faults = error.issues.map(({ path, message }) => ({ field: path.map(String).join("."), message }));
  const { field = "", message = "not understood" } = faults[0] ?? {};
  return {
    ok: false,
    status: 400,
    code: "bad input",
    sentence: `${field ? `${field}: ` : ""}${message}`,
    ...(field ? { field } : {}),
    faults,
  };
}
