import { eq, sql } from "drizzle-orm";
import { z } from "zod";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { Refusal } from "../../core/refusal/refusal";
import type { Act } from "../act/act";
import { ledger } from "../db/schema";
import { question } from "../db/question";
import type { Tx } from "../db/database";
import { bodyOf } from "../ledger/body";
import type { Person } from "../people/signIn";
import { ACTS } from "./acts";
import { badField, badInput, type ActAnswer } from "./answer";
import { inputFault } from "./plainInput";

/** One act as a client sends it, with the id that it made once for what the person means to do. */
export const actSchema = z.object({
  actId: z.uuid("must be a UUID"),
  type: z.string(),
  input: z.unknown(),
});
export type Sent = z.output<typeof actSchema>;

/** An act that was understood: what it is, what it is asked, and what the ledger keeps of that. */
export type ReadAct = Readonly<{
  actId: string;
  act: Act;
  /** By its schema; not read where the act is not this person's to do. */
  input: unknown;
  asked: unknown;
  /** Why it will be refused whatever is there; the refusal is evidence and is recorded. */
  refusal: Refusal | null;
}>;

/** Reads an act: its name, what no input may be, whose it is, its schema. Before the database is asked anything. */
export function readAct({ actId, type, input: raw }: Sent, person: Person): ReadAct | ActAnswer {
  const act: Act | undefined = ACTS.get(type);
  if (act === undefined) return { ok: false, status: 400, code: "unknown act", sentence: `There is no act ${type}.` };
  // Before the schema: what is read costs time, and whoever may not do it makes nobody wait.
  const plain = act.isLarge ? null : inputFault(raw);
  if (plain) return badField(plain.field, `${plain.field === "" ? "The input" : plain.field} ${plain.message}`);
  if (act.roles.length > 0 && !act.roles.some((role) => person.roles.includes(role))) {
    // What was not read is not kept either: it may hold a PIN.
    const refusal: Refusal = { code: "not yours to do", act: act.words, needs: act.roles };
    return { actId, act, input: null, asked: null, refusal };
  }
  if (person.crewRound !== undefined && !act.isOfCrewRound && !act.protects) {
    const refusal: Refusal = { code: "crew screen", act: act.words, crew: person.crewRound };
    return { actId, act, input: null, asked: null, refusal };
  }
  const input = act.input.safeParse(raw);
  if (!input.success) return badInput(input.error);
  const asked = asStored(act.forLedger ? act.forLedger(input.data) : input.data);
  return { actId, act, input: input.data, asked, refusal: null };
}

const rowOfAct = question((tx) =>
  tx
    .select()
    .from(ledger)
    .where(eq(ledger.actId, sql.placeholder("actId")))
    .prepare(),
);

/** The answer given when this act first came; a refusal when the id was used for something else. */
export function earlierAnswer(tx: Tx, { actId, act, asked }: ReadAct, person: Person): ActAnswer | null {
  const row = rowOfAct(tx).get({ actId });
  if (row === undefined) return null;
  const body = bodyOf(row);
  const same =
    row.type === act.type && row.byPerson === person.id && canonicalJson(body.input) === canonicalJson(asked);
  if (same) return body.answer;
  return {
    ok: false,
    status: 409,
    code: "act id used",
    sentence: "This act id was used for another act. Load the page again.",
  };
}

/** As JSON keeps it: without what is undefined. */
export function asStored(value: unknown): unknown {
  return JSON.parse(JSON.stringify(value ?? null));
}
