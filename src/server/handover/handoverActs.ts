import { eq } from "drizzle-orm";
import { z } from "zod";
import { ANSWER_FOR_A_SHIFT, answerAsked, handOverShift } from "../../core/handover/handover";
import type { PersonId } from "../../core/people/roles";
import { defineAct } from "../act/act";
import { people } from "../db/schema";
import { line } from "../job/jobActs";
import { namesOf, toPerson } from "../people/signIn";
import { changePermit } from "../permit/changePermit";
import { handoverItems } from "./handoverItems";
import { addHandover, handoverNumbered, lastHandover, saveAsked } from "./handoverStore";

const key = z.string().min(1).max(2000);

/**
 * One shift to the next: who goes signs as who is signed in, who comes with their PIN at the same device. Permits that who
 * comes looked at are revalidated by them in the same act; all of it is done, or nothing.
 */
export const handOverTheShift = defineAct({
  type: "shift.hand-over",
  words: "hand over a shift",
  roles: ANSWER_FOR_A_SHIFT,
  pin: true,
  input: z.object({
    coming: z.string("choose who comes").min(1, "choose who comes"),
    comingPin: z.string("their PIN is missing").max(20),
    read: z.array(key).max(5000, "at most 5000 items"),
    asked: z.array(z.object({ item: key, words: line("The question", 500) })).max(500, "at most 500 questions"),
    revalidate: z.array(z.string().max(20)).max(200, "at most 200 permits").default([]),
    remarks: z.string().trim().max(2000, "at most 2000 characters").default(""),
  }),
  forLedger: ({ comingPin: _, ...input }) => input,
  signers: ({ coming, comingPin }) => [{ person: coming, pin: comingPin, field: "comingPin" }],
  run: (context, { coming, read, asked, revalidate, remarks }) => {
    const { tx, person, now_ms } = context;
    const row = tx.select().from(people).where(eq(people.id, coming)).get();
    if (row === undefined)
      return { ok: false, subject: "", refusal: { code: "unknown", what: "person", name: coming } };
    const next = toPerson(row, now_ms);
    const decided = handOverShift(
      { by: person.id, roles: person.roles, at_ms: now_ms, coming: coming as PersonId, read, asked, remarks },
      {
        items: handoverItems(tx, now_ms, lastHandover(tx)?.at_ms ?? 0),
        rolesOf: (id) => (id === next.id ? next.roles : []),
        nameOf: namesOf(tx),
      },
    );
    if (!decided.ok) return { ok: false, subject: "", refusal: decided.refusal };
    for (const permit of revalidate) {
      const words = `At the handover from ${person.name}${remarks === "" ? "" : `: ${remarks}`}`.slice(0, 500);
      const done = changePermit({ ...context, person: next }, permit, { type: "revalidate", words });
      if (!done.ok) return done;
    }
    const number = addHandover(tx, decided.value);
    return { ok: true, subject: number, answer: { handover: number, items: decided.value.items.length } };
  },
});

/** What was asked at a handover is answered by anybody who answers for a shift. */
export const answerHandover = defineAct({
  type: "shift.answer",
  words: "answer what was asked at a handover",
  roles: ANSWER_FOR_A_SHIFT,
  pin: false,
  input: z.object({ handover: z.string(), item: key, words: line("The answer", 500) }),
  run: ({ tx, person, now_ms }, { handover, item, words }) => {
    const subject = handover;
    const stored = handoverNumbered(tx, handover);
    if (stored === null) {
      return { ok: false, subject, refusal: { code: "unknown", what: "handover", name: handover } };
    }
    const decided = answerAsked(stored, { by: person.id, at_ms: now_ms, item, words });
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    saveAsked(tx, handover, decided.value);
    return { ok: true, subject, answer: { handover } };
  },
});
