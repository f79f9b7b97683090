import { randomUUID } from "node:crypto";
import { and, eq, ne } from "drizzle-orm";
import { z } from "zod";
import { decidePermit, type PermitCommand } from "../../core/permit/permitLife";
import type { PersonId, Role } from "../../core/people/roles";
import { ENGINE_VERSION } from "../../core/version";
import { isolations, jobIsolations, jobs, people, permitIsolations, permits } from "../db/schema";
import { toPerson } from "../signIn";
import { loadPermit, permitFacts, savePermit } from "../store/permitStore";
import { defineAct, type ActContext, type ActOutcome } from "./act";
import { nextNumber, time_ms } from "./jobActs";

const text = (words: string) =>
  z
    .string(`${words} is missing`)
    .trim()
    .min(1, `${words} is missing`)
    .max(2000, `${words} is longer than 2000 characters`);

export const draftPermit = defineAct({
  type: "permit.draft",
  words: "write a permit",
  roles: ["coordinator", "issuer", "holder"],
  pin: false,
  input: z
    .object({
      job: z.string(),
      words: text("What may be done"),
      hazards: text("The hazards"),
      precautions: text("The precautions"),
      validFrom_ms: time_ms("The start"),
      validTo_ms: time_ms("The end"),
      /** Who leads this crew; the job's holder when nobody else is named. */
      holder: z.string().optional(),
    })
    .refine((permit) => permit.validTo_ms > permit.validFrom_ms, {
      path: ["validTo_ms"],
      error: "it must end after it begins",
    }),
  run: ({ tx, person, now_ms }, input) => {
    const job = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    if (job === undefined)
      return { ok: false, subject: input.job, refusal: { code: "unknown", what: "job", name: input.job } };
    const standing = tx
      .select({ id: isolations.id, plantRevision: isolations.plantRevision, ruleProfile: isolations.ruleProfile })
      .from(jobIsolations)
      .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
      .where(and(eq(jobIsolations.jobId, job.id), ne(isolations.state, "restored")))
      .all();
    const [first] = standing;
    if (first === undefined) return { ok: false, subject: job.number, refusal: { code: "no isolation" } };
    const holder = input.holder || job.holderId;
    const lead = tx.select().from(people).where(eq(people.id, holder)).get();
    if (lead === undefined) {
      return { ok: false, subject: job.number, refusal: { code: "unknown", what: "person", name: holder } };
    }
    if (!toPerson(lead).roles.includes("holder")) {
      return { ok: false, subject: job.number, refusal: { code: "not a lead", who: lead.name } };
    }
    const id = randomUUID();
    const number = nextNumber(tx, permits, "P");
    tx.insert(permits)
      .values({
        id,
        number,
        kind: "general",
        jobId: job.id,
        state: "draft",
        words: input.words,
        hazards: input.hazards,
        precautions: input.precautions,
        holderId: holder,
        validFrom: input.validFrom_ms,
        validTo: input.validTo_ms,
        plantRevision: first.plantRevision,
        ruleProfile: first.ruleProfile,
        engineVersion: ENGINE_VERSION,
        draftedBy: person.id,
        draftedAt: now_ms,
      })
      .run();
    for (const isolation of standing) {
      tx.insert(permitIsolations).values({ permitId: id, isolationId: isolation.id }).run();
    }
    return { ok: true, subject: number, answer: { permit: number } };
  },
});

/** The acts on a permit that only change its life. */
function lifeAct(
  type: string,
  command: Exclude<PermitCommand["type"], "sign on" | "lock cut" | "hand over">,
  words: string,
  roles: readonly Role[],
) {
  return defineAct({
    type,
    words,
    roles,
    pin: true,
    input: z.object({ permit: z.string() }),
    run: (context, input) => change(context, input.permit, { ...who(context), type: command }),
  });
}

export const issuePermit = lifeAct("permit.issue", "issue", "issue a permit", ["issuer"]);
export const acceptPermit = lifeAct("permit.accept", "accept", "accept a permit", ["holder"]);
export const signOff = lifeAct("permit.sign-off", "sign off", "sign off", []);
export const handBackPermit = lifeAct("permit.hand-back", "hand back", "hand back a permit", ["holder"]);
export const closePermit = lifeAct("permit.close", "close", "close a permit", ["issuer"]);
export const cancelPermit = lifeAct("permit.cancel", "cancel", "cancel a permit", ["issuer"]);

const pointLocks = z.record(z.string().max(80), z.string().max(60, "at most 60 characters")).optional();

export const signOn = defineAct({
  type: "permit.sign-on",
  words: "sign on to a permit",
  roles: [],
  pin: true,
  input: z.object({
    permit: z.string(),
    lock: z.string("the lock number is missing").max(60, "at most 60 characters").default(""),
    points: pointLocks,
  }),
  run: (context, { permit, ...hung }) => change(context, permit, { ...who(context), type: "sign on", ...hung }),
});

/** Everybody who comes and everybody who goes signs, at one device at the box; all of it is done, or nothing. */
export const handOver = defineAct({
  type: "permit.hand-over",
  words: "hand over at shift change",
  roles: ["coordinator", "issuer", "holder"],
  pin: false,
  input: z.object({
    permit: z.string(),
    pairs: z
      .array(
        z.object({
          from: z.string("choose who goes").min(1, "choose who goes"),
          to: z.string("choose who comes").min(1, "choose who comes"),
          lock: z.string("the lock number is missing").max(60, "at most 60 characters").default(""),
          points: pointLocks,
          fromPin: z.string("their PIN is missing").max(20),
          toPin: z.string("their PIN is missing").max(20),
        }),
      )
      .min(1, "name who comes on for whom")
      .max(60, "at most 60 at once"),
  }),
  forLedger: (input) => ({
    ...input,
    pairs: input.pairs.map(({ fromPin: _, toPin: __, ...pair }) => pair),
  }),
  signers: (input) =>
    input.pairs.flatMap(({ from, to, fromPin, toPin }, i) => [
      { person: to, pin: toPin, field: `pairs.${i}.toPin` },
      { person: from, pin: fromPin, field: `pairs.${i}.fromPin` },
    ]),
  run: (context, input) =>
    change(context, input.permit, {
      ...who(context),
      type: "hand over",
      pairs: input.pairs.map(({ from, to, lock, points }) => ({
        from: from as PersonId,
        to: to as PersonId,
        lock,
        points,
      })),
    }),
});

function who({ person, now_ms }: ActContext) {
  return { by: person.id, roles: person.roles, at_ms: now_ms };
}

/** Load, decide, save. */
function change({ tx, now_ms }: ActContext, number: string, command: PermitCommand): ActOutcome {
  const stored = loadPermit(tx, number);
  if (stored === null)
    return { ok: false, subject: number, refusal: { code: "unknown", what: "permit", name: number } };
  const decided = decidePermit(stored.life, command, permitFacts(tx, stored, now_ms));
  if (!decided.ok) return { ok: false, subject: number, refusal: decided.refusal };
  savePermit(tx, stored, decided.value);
  return { ok: true, subject: number, answer: { permit: number, state: decided.value.state } };
}
