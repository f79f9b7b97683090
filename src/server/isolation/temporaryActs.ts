import { randomUUID } from "node:crypto";
import { count, eq } from "drizzle-orm";
import { z } from "zod";
import { reachedBy } from "../../core/guard/liftHarms";
import { askFault, decideTemporary, type Affected } from "../../core/isolation/temporary";
import type { PersonId } from "../../core/people/roles";
import { lockedPoints } from "../../core/isolation/lockedPoints";
import type { Refusal } from "../../core/refusal/refusal";
import { jobs, permits, temporaryRestores } from "../db/schema";
import { loadIsolation } from "./isolationStore";
import { liveJobs } from "./liveJobs";
import { currentPlant } from "../plant/plantStore";
import { saveTemporary, temporariesOf, temporaryByNumber } from "./temporaryStore";
import type { Tx } from "../db/database";
import { namesOf } from "../people/signIn";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import { by, changeIsolation, facesToProve } from "./isolationActs";

/** Points to be lifted for a test: the engine says first whose work that would light. */
export const askTest = defineAct({
  type: "test.ask",
  words: "ask for a temporary de-isolation",
  roles: ["coordinator", "issuer", "holder"],
  pin: true,
  input: z.object({
    isolation: z.string(),
    lift: z.array(z.string().max(80)).min(1, "choose the points to lift").max(200),
    purpose: z
      .string("the purpose is missing")
      .trim()
      .min(3, "write what is tested")
      .max(500, "at most 500 characters"),
  }),
  run: ({ tx, person, now_ms }, input) => {
    const subject = input.isolation;
    const refused = (refusal: Refusal) => ({ ok: false, subject, refusal }) as const;
    const stored = loadIsolation(tx, input.isolation);
    const plant = currentPlant(tx);
    if (stored === null || plant === null) return refused({ code: "unknown", what: "isolation", name: subject });
    const others = temporariesOf(tx, stored.row.id);
    const no = askFault(
      { isolation: subject, state: stored.life.state, lift: input.lift },
      {
        locked: new Set(lockedPoints(stored.life).map((step) => step.subject)),
        open: others.find(({ state }) => state === "asked" || state === "running")?.number ?? null,
      },
    );
    if (no) return refused(no.refusal);
    const number = `T-${String((tx.select({ n: count() }).from(temporaryRestores).get()?.n ?? 0) + 1).padStart(4, "0")}`;
    const affected = reachedBy(plant.graph, liveJobs(tx), { isolation: subject, devices: input.lift }).map(
      (job): Affected => ({ job, agreedBy: null, agreedAt_ms: null }),
    );
    tx.insert(temporaryRestores)
      .values({
        id: randomUUID(),
        number,
        isolationId: stored.row.id,
        state: "asked",
        purpose: input.purpose,
        lift: input.lift,
        affected,
        askedBy: person.id,
        askedAt: now_ms,
      })
      .run();
    return { ok: true, subject, answer: { test: number, affected: affected.map(({ job }) => job).join(", ") } };
  },
});

const which = z.object({ test: z.string() });

/** The holder of a job that the test reaches: tools out, everybody off and clear. */
export const agreeToTest = defineAct({
  type: "test.agree",
  words: "agree to a temporary de-isolation",
  roles: ["holder"],
  pin: true,
  input: which.extend({ job: z.string() }),
  run: (context, input) => changeTest(context, input.test, { type: "agree", job: input.job }, { job: input.job }),
});

/** Everybody agreed, nobody on: the box may be opened and the points lifted, step by step. */
export const startTest = defineAct({
  type: "test.start",
  words: "start a temporary de-isolation",
  roles: ["coordinator"],
  pin: true,
  input: which,
  run: (context, input): ActOutcome => {
    const changed = changeTest(context, input.test, { type: "start" });
    if (!changed.ok) return changed;
    const { isolation, lift } = temporaryByNumber(context.tx, input.test)!;
    const stored = loadIsolation(context.tx, isolation)!;
    const started = changeIsolation(context, isolation, {
      ...by(context),
      type: "start test",
      lift,
      proveAgain: facesToProve(stored, lift),
    });
    return started.ok ? { ...started, answer: { ...started.answer, test: input.test } } : started;
  },
});

export const callOffTest = defineAct({
  type: "test.call-off",
  words: "call off a temporary de-isolation",
  roles: ["coordinator", "issuer", "holder"],
  pin: true,
  input: which,
  run: (context, input) => changeTest(context, input.test, { type: "call off" }),
});

/** Load, decide, save. */
function changeTest(
  { tx, person, now_ms }: ActContext,
  number: string,
  what: Readonly<{ type: "agree"; job: string }> | Readonly<{ type: "start" | "call off" }>,
  more: Readonly<Record<string, string>> = {},
): ActOutcome {
  const one = temporaryByNumber(tx, number);
  if (one === null) {
    return { ok: false, subject: number, refusal: { code: "unknown", what: "temporary de-isolation", name: number } };
  }
  const live = liveJobs(tx);
  const decided = decideTemporary(
    one,
    { ...what, by: person.id, at_ms: now_ms },
    {
      reaches: reachedBy(currentPlant(tx)!.graph, live, { isolation: one.isolation, devices: one.lift }),
      peopleOn: (job) => live.filter((other) => other.number === job).flatMap(({ people }) => people),
      holders: (job) => holdersOf(tx, job),
    },
  );
  if (!decided.ok) return { ok: false, subject: one.isolation, refusal: decided.refusal };
  saveTemporary(tx, { ...one, ...decided.value });
  return { ok: true, subject: one.isolation, answer: { test: one.number, ...more } };
}

/** The holder of a job, and of each of its permits that is not over. */
function holdersOf(tx: Tx, number: string): { id: PersonId; name: string }[] {
  const job = tx.select().from(jobs).where(eq(jobs.number, number)).get();
  if (job === undefined) return [];
  const leads = tx
    .select({ holder: permits.holderId, state: permits.state })
    .from(permits)
    .where(eq(permits.jobId, job.id))
    .all()
    .filter(({ state }) => state !== "closed" && state !== "cancelled")
    .map(({ holder }) => holder);
  const nameOf = namesOf(tx);
  return [...new Set([job.holderId, ...leads])].map((id) => ({ id: id as PersonId, name: nameOf(id) }));
}
