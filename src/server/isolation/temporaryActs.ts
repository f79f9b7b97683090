import { randomUUID } from "node:crypto";
import { count, eq } from "drizzle-orm";
import { z } from "zod";
import { guardRelease } from "../../core/guard/guardRelease";
import { lockedPoints } from "../../core/isolation/lockedPoints";
import type { Refusal } from "../../core/refusal/refusal";
import { jobs, permits, temporaryRestores } from "../db/schema";
import { loadIsolation } from "./isolationStore";
import { liveJobs } from "./liveJobs";
import { currentPlant } from "../plant/plantStore";
import { saveTemporary, temporariesOf, temporaryByNumber, type Affected } from "./temporaryStore";
import type { Tx } from "../db/database";
import { namesOf } from "../people/signIn";
import { defineAct, type ActOutcome } from "../act/act";
import { by, changeIsolation, facesToProve } from "./isolationActs";

/** Points to be lifted for a test: the engine says first whose work that would light. */
export const askTest = defineAct({
  type: "test.ask",
  words: "ask for a temporary restore",
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
    if (stored.life.state !== "proven") {
      return refused({ code: "wrong state", what: `Isolation ${subject}`, state: stored.life.state, needs: "proven" });
    }
    const locked = new Set(lockedPoints(stored.life).map((step) => step.subject));
    const strange = input.lift.find((tag) => !locked.has(tag));
    if (strange !== undefined) return refused({ code: "unknown", what: `lock of ${subject} on`, name: strange });
    const open = temporariesOf(tx, stored.row.id).find((one) => one.state === "asked" || one.state === "running");
    if (open) return refused({ code: "already done", what: `Asking for ${open.number}` });
    const number = `T-${String((tx.select({ n: count() }).from(temporaryRestores).get()?.n ?? 0) + 1).padStart(4, "0")}`;
    const affected = affectedBy(tx, subject, input.lift).map((job): Affected => ({
      job,
      agreedBy: null,
      agreedAt_ms: null,
    }));
    tx.insert(temporaryRestores)
      .values({
        id: randomUUID(),
        number,
        isolationId: stored.row.id,
        state: "asked",
        purpose: input.purpose,
        lift: JSON.stringify(input.lift),
        affected: JSON.stringify(affected),
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
  words: "agree to a temporary restore",
  roles: ["holder"],
  pin: true,
  input: which.extend({ job: z.string() }),
  run: ({ tx, person, now_ms }, input) => {
    const one = temporaryByNumber(tx, input.test);
    const subject = one?.isolation ?? input.test;
    const refused = (refusal: Refusal) => ({ ok: false, subject, refusal }) as const;
    if (one === null) return refused({ code: "unknown", what: "temporary restore", name: input.test });
    if (one.state !== "asked") {
      return refused({ code: "wrong state", what: `Test ${one.number}`, state: one.state, needs: "asked" });
    }
    // Who came to work there since it was asked signs too.
    const affected =
      one.affected.find(({ job }) => job === input.job) ??
      (affectedBy(tx, one.isolation, one.lift).includes(input.job)
        ? { job: input.job, agreedBy: null, agreedAt_ms: null }
        : undefined);
    if (!affected) return refused({ code: "unknown", what: "job that it reaches", name: input.job });
    if (affected.agreedBy !== null) return refused({ code: "already done", what: `Agreeing for ${input.job}` });
    const leads = holdersOf(tx, input.job);
    if (!leads.some(({ id }) => id === person.id)) {
      return refused({ code: "not the holder", holder: leads.map(({ name }) => name).join(" or ") });
    }
    const on = liveJobs(tx)
      .filter(({ number }) => number === input.job)
      .flatMap(({ people }) => people);
    if (on.length > 0) return refused({ code: "people on", people: on });
    saveTemporary(tx, {
      ...one,
      affected: [
        ...one.affected.filter((other) => other.job !== input.job),
        { ...affected, agreedBy: person.id, agreedAt_ms: now_ms },
      ],
    });
    return { ok: true, subject, answer: { test: one.number, job: input.job } };
  },
});

/** Everybody agreed, nobody on: the box may be opened and the points lifted, step by step. */
export const startTest = defineAct({
  type: "test.start",
  words: "start a temporary restore",
  roles: ["coordinator"],
  pin: true,
  input: which,
  run: (context, input): ActOutcome => {
    const { tx, now_ms } = context;
    const one = temporaryByNumber(tx, input.test);
    const subject = one?.isolation ?? input.test;
    const refused = (refusal: Refusal) => ({ ok: false, subject, refusal }) as const;
    if (one === null) return refused({ code: "unknown", what: "temporary restore", name: input.test });
    if (one.state !== "asked") {
      return refused({ code: "wrong state", what: `Test ${one.number}`, state: one.state, needs: "asked" });
    }
    // Asked again of the plant and the jobs as they are now: since it was asked, others may have come to work there.
    const reached = affectedBy(tx, one.isolation, one.lift);
    const left = reached.filter((job) => !one.affected.some((other) => other.job === job && other.agreedBy !== null));
    if (left.length > 0) {
      return refused({ code: "not agreed", jobs: left });
    }
    const on = liveJobs(tx)
      .filter(({ number }) => reached.includes(number))
      .flatMap(({ people }) => people);
    if (on.length > 0) return refused({ code: "people on", people: on });
    const stored = loadIsolation(tx, one.isolation)!;
    const started = changeIsolation(context, one.isolation, {
      ...by(context),
      type: "start test",
      lift: one.lift,
      proveAgain: facesToProve(stored, one.lift),
    });
    if (!started.ok) return started;
    saveTemporary(tx, { ...one, state: "running", startedAt_ms: now_ms });
    return { ...started, answer: { ...started.answer, test: one.number } };
  },
});

export const callOffTest = defineAct({
  type: "test.call-off",
  words: "call off a temporary restore",
  roles: ["coordinator", "issuer", "holder"],
  pin: true,
  input: which,
  run: ({ tx }, input) => {
    const one = temporaryByNumber(tx, input.test);
    const subject = one?.isolation ?? input.test;
    if (one === null) {
      return { ok: false, subject, refusal: { code: "unknown", what: "temporary restore", name: input.test } };
    }
    if (one.state !== "asked") {
      const refusal = { code: "wrong state", what: `Test ${one.number}`, state: one.state, needs: "asked" } as const;
      return { ok: false, subject, refusal };
    }
    saveTemporary(tx, { ...one, state: "called off" });
    return { ok: true, subject, answer: { test: one.number } };
  },
});

/** Other jobs whose faces would lose a barrier they count on, and the isolation's own jobs: all of them sign. */
function affectedBy(tx: Tx, isolation: string, lift: readonly string[]): string[] {
  const plant = currentPlant(tx)!;
  const live = liveJobs(tx);
  const own = live.filter((one) => one.isolation === isolation);
  const release = own.flatMap(({ number }) => lift.map((device) => ({ job: number, device })));
  const harms = guardRelease(plant.graph, live, release);
  return [...new Set([...own.map(({ number }) => number), ...harms.map(({ job }) => job)])].sort();
}

/** The holder of a job, and of each of its permits that is not over. */
function holdersOf(tx: Tx, number: string): { id: string; name: string }[] {
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
  return [...new Set([job.holderId, ...leads])].map((id) => ({ id, name: nameOf(id) }));
}
