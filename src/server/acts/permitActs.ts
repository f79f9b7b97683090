import { randomUUID } from "node:crypto";
import { and, eq, ne } from "drizzle-orm";
import { z } from "zod";
import { decidePermit, type PermitCommand } from "../../core/permit/permitLife";
import type { Role } from "../../core/people/roles";
import { ENGINE_VERSION } from "../../core/version";
import { isolations, jobIsolations, jobs, permitIsolations, permits } from "../db/schema";
import { siteTime } from "../siteTime";
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
        holderId: job.holderId,
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
  command: Exclude<PermitCommand["type"], "sign on" | "lock cut">,
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

export const signOn = defineAct({
  type: "permit.sign-on",
  words: "sign on to a permit",
  roles: [],
  pin: true,
  input: z.object({
    permit: z.string(),
    lock: z.string("the lock number is missing").max(60, "at most 60 characters"),
  }),
  run: (context, input) => {
    const { tx, person } = context;
    const job = tx
      .select({ crew: jobs.crew, holderId: jobs.holderId, number: jobs.number })
      .from(permits)
      .innerJoin(jobs, eq(jobs.id, permits.jobId))
      .where(eq(permits.number, input.permit))
      .get();
    const crew = job ? (JSON.parse(job.crew) as string[]) : [];
    if (job && !crew.includes(person.id) && job.holderId !== person.id) {
      return { ok: false, subject: input.permit, refusal: { code: "not in the crew", job: job.number } };
    }
    return change(context, input.permit, { ...who(context), type: "sign on", lock: input.lock });
  },
});

function who({ person, now_ms }: ActContext) {
  return { by: person.id, roles: person.roles, at_ms: now_ms };
}

/** Load, decide, save. */
function change({ tx }: ActContext, number: string, command: PermitCommand): ActOutcome {
  const stored = loadPermit(tx, number);
  if (stored === null)
    return { ok: false, subject: number, refusal: { code: "unknown", what: "permit", name: number } };
  const decided = decidePermit(stored.life, command, permitFacts(tx, stored.isolationIds, siteTime));
  if (!decided.ok) return { ok: false, subject: number, refusal: decided.refusal };
  savePermit(tx, stored, decided.value);
  return { ok: true, subject: number, answer: { permit: number, state: decided.value.state } };
}
