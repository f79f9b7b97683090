import { randomUUID } from "node:crypto";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { exchanges, jobs, people } from "../db/schema";
import { defineAct } from "../act/act";

const words = (missing: string) => z.string(missing).trim().min(3, missing).max(2000, "at most 2000 characters");

/** Host and contractor tell each other their lockout procedures before the contractor's first lock goes on. Both sign. */
export const exchangeProcedures = defineAct({
  type: "contractor.exchange",
  words: "exchange procedures with a contractor",
  roles: ["coordinator"],
  pin: true,
  input: z.object({
    job: z.string(),
    lead: z.string("choose the contractor's lead").min(1, "choose the contractor's lead"),
    leadPin: z.string("their PIN is missing").max(20),
    ours: words("write what they were told of ours"),
    theirs: words("write what we were told of theirs"),
  }),
  forLedger: ({ leadPin: _, ...input }) => input,
  signers: ({ lead, leadPin }) => [{ person: lead, pin: leadPin, field: "leadPin" }],
  run: ({ tx, person, now_ms }, input) => {
    const subject = input.job;
    const job = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    if (job === undefined) return { ok: false, subject, refusal: { code: "unknown", what: "job", name: input.job } };
    const lead = tx.select().from(people).where(eq(people.id, input.lead)).get();
    if (!lead?.firm) {
      return { ok: false, subject, refusal: { code: "unknown", what: "contractor", name: lead?.name ?? input.lead } };
    }
    tx.insert(exchanges)
      .values({
        id: randomUUID(),
        jobId: job.id,
        firm: lead.firm,
        ours: input.ours,
        theirs: input.theirs,
        leadId: lead.id,
        by: person.id,
        at: now_ms,
      })
      .run();
    return { ok: true, subject, answer: { job: subject, firm: lead.firm } };
  },
});
