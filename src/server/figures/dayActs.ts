import { randomUUID } from "node:crypto";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { calculate } from "../../core/calc/calculator";
import { calculatorNamed } from "../../core/calc/calculators/calculators";
import { setupSchema } from "../../core/schedule/setupSchema";
import { ENGINE_VERSION } from "../../core/version";
import { figures, jobs, permits, stock } from "../db/schema";
import { defineAct } from "../act/act";

/** What a job is carried out with. Only times depend on it, so an approved plan stays as it is. */
export const setUpJob = defineAct({
  type: "job.set-up",
  words: "say what a job is carried out with",
  roles: ["coordinator", "holder", "issuer"],
  pin: false,
  input: z.object({ job: z.string(), setup: setupSchema }),
  run: ({ tx }, input) => {
    const row = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    if (row === undefined) {
      return { ok: false, subject: input.job, refusal: { code: "unknown", what: "job", name: input.job } };
    }
    if (row.state !== "open") {
      const refusal = { code: "wrong state", what: `Job ${row.number}`, state: row.state, needs: "open" } as const;
      return { ok: false, subject: row.number, refusal };
    }
    tx.update(jobs).set({ setup: input.setup }).where(eq(jobs.id, row.id)).run();
    return { ok: true, subject: row.number, answer: { job: row.number } };
  },
});

/** A figure of the bench, kept with a job or a permit. It is worked out here from its inputs, never taken as sent. */
export const attachFigure = defineAct({
  type: "figure.attach",
  words: "attach a figure",
  roles: [],
  pin: false,
  input: z.object({
    calculator: z.string(),
    inputs: z.record(z.string(), z.unknown()),
    to: z.string("write the number of a job or permit").trim().min(1, "write the number of a job or permit").max(20),
    note: z.string().trim().max(300, "at most 300 characters").default(""),
  }),
  run: ({ tx, person, now_ms }, input) => {
    const unknown = (what: string, name: string) =>
      ({ ok: false, subject: input.to, refusal: { code: "unknown", what, name } }) as const;
    const which = calculatorNamed(input.calculator);
    if (which === undefined) return unknown("calculator", input.calculator);
    const done = calculate(which, input.inputs);
    if (!done.ok) {
      const refusal = { code: "no figure", calculator: which.title, field: done.key, why: done.message } as const;
      return { ok: false, subject: input.to, refusal };
    }
    const to = input.to.toUpperCase();
    const job = tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.number, to)).get();
    const permit = tx.select({ id: permits.id }).from(permits).where(eq(permits.number, to)).get();
    if (!job && !permit) return unknown("job or permit", to);
    tx.insert(figures)
      .values({
        id: randomUUID(),
        jobId: job?.id ?? null,
        permitId: permit?.id ?? null,
        calculator: which.name,
        inputs: done.inputs,
        calculation: done.calculation,
        note: input.note,
        engineVersion: ENGINE_VERSION,
        attachedBy: person.id,
        attachedAt: now_ms,
      })
      .run();
    return { ok: true, subject: to, answer: { to, calculator: which.name } };
  },
});

/** What the store was found to have. A line of nothing keeps its row: nothing is a count too. */
export const countStore = defineAct({
  type: "store.count",
  words: "count the store",
  roles: ["coordinator", "operator"],
  pin: false,
  input: z.object({
    lines: z
      .array(
        z.object({
          thing: z.string("name the thing").trim().min(1, "name the thing").max(80),
          size: z.string().trim().max(80).default(""),
          count: z
            .number("must be a whole number")
            .int("must be a whole number")
            .min(0, "must be 0 or more")
            .max(100_000, "must be at most 100000"),
        }),
      )
      .min(1, "name at least one thing")
      .max(500),
  }),
  run: ({ tx, person, now_ms }, { lines }) => {
    for (const line of lines) {
      const counted = { ...line, countedBy: person.id, countedAt: now_ms };
      tx.insert(stock)
        .values(counted)
        .onConflictDoUpdate({ target: [stock.thing, stock.size], set: counted })
        .run();
    }
    return { ok: true, subject: "store", answer: { lines: lines.length } };
  },
});
