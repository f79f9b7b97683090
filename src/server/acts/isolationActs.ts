import { randomUUID } from "node:crypto";
import { z } from "zod";
import { stepLabel } from "../../core/isolation/steps";
import { decideIsolation } from "../../core/locks/isolationLife";
import { isolationFacts, loadIsolation, saveIsolation } from "../store/isolationStore";
import { profileOf } from "../../core/rules/profiles";
import { isolationReviews } from "../db/schema";
import { defineAct, type ActContext, type ActOutcome } from "./act";
import { guardRelease } from "../../core/isolation/guardRelease";
import type { Refusal } from "../../core/refusal";
import type { Tx } from "../db/database";
import { liveJobs } from "../store/liveJobs";
import { currentPlant } from "../store/plantStore";
import type { IsolationCommand, IsolationLife } from "../../core/locks/isolationLife";

const optionalText = z.string().max(60, "at most 60 characters").nullish();

export const doStep = defineAct({
  type: "step.do",
  words: "carry out a step of an isolation",
  roles: ["isolator", "operator", "coordinator"],
  pin: true,
  input: z.object({
    isolation: z.string(),
    step: z.string(),
    plate: optionalText,
    lock: optionalText,
    reading: z.number("the reading must be a number, written with a point").nullish(),
    testerProved: z.boolean().default(false),
    locksCounted: z.number("the number of locks must be a whole number").int().min(0).nullish(),
  }),
  run: (context, input) =>
    change(context, input.isolation, {
      type: "do step",
      step: input.step,
      by: context.person.id,
      competences: context.person.competences,
      at_ms: context.now_ms,
      plate: input.plate ?? null,
      lock: input.lock ?? null,
      reading: input.reading ?? null,
      testerProved: input.testerProved,
      locksCounted: input.locksCounted ?? null,
    }),
});

export const startReturn = defineAct({
  type: "return.start",
  words: "start the return to service",
  roles: ["coordinator"],
  pin: true,
  input: z.object({ isolation: z.string() }),
  run: (context, input) =>
    change(context, input.isolation, { type: "start return", by: context.person.id, at_ms: context.now_ms }),
});

const HOUR_MS = 3_600_000;

/** Somebody has looked at an isolation that stays, says why it stays, and when it is looked at again. */
export const reviewIsolation = defineAct({
  type: "isolation.review",
  words: "review an isolation",
  roles: ["coordinator"],
  pin: true,
  input: z.object({
    isolation: z.string(),
    reason: z.string("the reason is missing").trim().min(3, "write why it stays").max(500, "at most 500 characters"),
    next_h: z
      .number("must be a whole number of hours")
      .int("must be a whole number of hours")
      .min(1, "must be at least 1 hour"),
  }),
  run: ({ tx, person, now_ms }, input) => {
    const stored = loadIsolation(tx, input.isolation);
    const subject = input.isolation;
    if (stored === null) return { ok: false, subject, refusal: { code: "unknown", what: "isolation", name: subject } };
    if (stored.life.state === "restored") {
      const refusal = {
        code: "wrong state",
        what: `Isolation ${subject}`,
        state: "restored",
        needs: "in place",
      } as const;
      return { ok: false, subject, refusal };
    }
    const most_h = profileOf(stored.row.ruleProfile).reviewEvery_h;
    if (input.next_h > most_h)
      return { ok: false, subject, refusal: { code: "review too late", hours: input.next_h, most: most_h } };
    tx.insert(isolationReviews)
      .values({
        id: randomUUID(),
        isolationId: stored.row.id,
        reason: input.reason,
        reviewedBy: person.id,
        reviewedAt: now_ms,
        nextAt: now_ms + input.next_h * HOUR_MS,
      })
      .run();
    return { ok: true, subject, answer: { isolation: subject, next_ms: now_ms + input.next_h * HOUR_MS } };
  },
});

/** Load, decide, save. */
function change({ tx, now_ms }: ActContext, number: string, command: IsolationCommand): ActOutcome {
  const stored = loadIsolation(tx, number);
  if (stored === null)
    return { ok: false, subject: number, refusal: { code: "unknown", what: "isolation", name: number } };
  const harm = liftHarms(tx, stored.life, command);
  if (harm) return { ok: false, subject: number, refusal: harm };
  const decided = decideIsolation(stored.life, command, isolationFacts(tx, stored.row.id));
  if (!decided.ok) return { ok: false, subject: number, refusal: decided.refusal };
  saveIsolation(tx, stored, decided.value, now_ms);
  const step = command.type === "do step" ? stored.life.steps.find(({ id }) => id === command.step) : undefined;
  // The step's words go into the ledger, so that a tag can be found there.
  const did = step ? stepLabel(step) : command.type;
  return { ok: true, subject: number, answer: { isolation: number, state: decided.value.state, did } };
}

/** Before a lock is lifted: would anybody else's work lose a barrier it counts on? Asked of the plant as it is today. */
function liftHarms(tx: Tx, life: IsolationLife, command: IsolationCommand): Refusal | null {
  const step = command.type === "do step" ? life.steps.find(({ id }) => id === command.step) : undefined;
  const plant = currentPlant(tx);
  if (step?.kind !== "unlock" || step.done || plant === null) return null;
  const live = liveJobs(tx);
  const own = live.filter(({ isolation }) => isolation === life.number);
  const release = own.map(({ number }) => ({ job: number, device: step.subject }));
  // The work of this isolation is over; its own faces may be lit again.
  const others = live.filter(({ isolation }) => isolation !== life.number);
  const harms = guardRelease(
    plant.graph,
    [...others, ...own.map((one) => ({ ...one, job: { ...one.job, faces: [] } }))],
    release,
  );
  if (harms.length === 0) return null;
  return {
    code: "would light",
    device: step.subject,
    harms: harms.slice(0, 3).map(({ job, face, source, people }) => ({ job, face, source, people })),
  };
}
