import { randomUUID } from "node:crypto";
import { and, eq, ne } from "drizzle-orm";
import { z } from "zod";
import { askedDetailsSchema, type PermitDetails } from "../../core/permit/kinds/details";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { PersonId } from "../../core/people/roles";
import { LIFE } from "../../core/permit/life/lifeTable";
import type { Refusal } from "../../core/refusal/refusal";
import { changePermit } from "./changePermit";
import { kindRule } from "../../core/permit/kinds/kinds";
import { ENGINE_VERSION } from "../../core/version";
import { isolations, jobIsolations, jobs, people, permitIsolations, permits } from "../db/schema";
import { loadPermit } from "./permitStore";
import { isMinorIsolation } from "../isolation/minorStore";
import { currentPlant } from "../plant/plantStore";
import type { Tx } from "../db/database";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import { line, nextNumber, time_ms } from "../job/jobActs";

const HOUR_MS = 3_600_000;

/** A permit is never longer than its kind allows; said at once, and again when it is issued. */
const times = {
  validFrom_ms: time_ms("The start"),
  validTo_ms: time_ms("The end"),
};
const ends = <T extends { validFrom_ms: number; validTo_ms: number }>(permit: T) =>
  permit.validTo_ms > permit.validFrom_ms;
const ENDS = { path: ["validTo_ms"], error: "it must end after it begins" };

/** What a draft says. */
const said = {
  words: line("What may be done", 2000),
  hazards: line("The hazards", 2000),
  precautions: line("The precautions", 2000),
  ...times,
  /** Who leads this crew; the job's holder when nobody else is named. */
  holder: z.string().optional(),
  details: askedDetailsSchema.default({ kind: "general" }),
};

export const draftPermit = defineAct({
  type: "permit.draft",
  words: "write a permit",
  roles: ["coordinator", "issuer", "holder"],
  pin: false,
  input: z.object({ job: z.string(), ...said }).refine(ends, ENDS),
  run: (context, input) => write(context, { ...input, previous: null }),
});

/** A draft written anew under its number: what was looked at for it before is looked at again. */
export const changeDraft = defineAct({
  type: "permit.change",
  words: LIFE.change.words,
  roles: [],
  pin: false,
  input: z.object({ permit: z.string(), ...said }).refine(ends, ENDS),
  run: (context, { permit, ...draft }) => {
    const { tx } = context;
    const stored = loadPermit(tx, permit);
    if (stored === null) {
      return { ok: false, subject: permit, refusal: { code: "unknown", what: "permit", name: permit } };
    }
    const { row, life } = stored;
    const holder = draft.holder || row.holderId;
    const alone = kindRule(life.details.kind).alone;
    const fault: Refusal | null =
      alone && holder !== row.holderId
        ? { code: "short route", what: permit, isMinor: true }
        : draftFault(tx, { ...draft, holder });
    if (fault) return { ok: false, subject: permit, refusal: fault };
    const { words, hazards, precautions, details, validFrom_ms, validTo_ms } = draft;
    const now = { words, hazards, precautions, holder, details, from: validFrom_ms, until: validTo_ms };
    const was = {
      words: row.words,
      hazards: row.hazards,
      precautions: row.precautions,
      holder: row.holderId,
      details: life.details,
      from: row.validFrom,
      until: row.validTo,
    };
    const what = (Object.keys(CHANGED) as (keyof typeof CHANGED)[]).filter(
      (part) => canonicalJson(now[part]) !== canonicalJson(was[part]),
    );
    if (what.length === 0) return { ok: false, subject: permit, refusal: { code: "nothing changed", permit } };
    const outcome = changePermit(context, permit, {
      type: "change",
      what: what.map((part) => CHANGED[part]),
      holder: holder as PersonId,
      validFrom_ms,
      validTo_ms,
      details,
    });
    if (outcome.ok) tx.update(permits).set({ words, hazards, precautions }).where(eq(permits.id, row.id)).run();
    return outcome;
  },
});

/** Parts of a draft, as the log names them. */
const CHANGED = {
  words: "what may be done",
  hazards: "hazards",
  precautions: "precautions",
  holder: "holder",
  details: "what its kind asks",
  from: "its start",
  until: "its end",
} as const;

/** Why nobody may write a permit so; null when they may. */
function draftFault(
  tx: Tx,
  {
    details,
    holder,
    validFrom_ms,
    validTo_ms,
  }: Pick<Draft, "details" | "validFrom_ms" | "validTo_ms"> & { holder: string },
): Refusal | null {
  const { longest_h } = kindRule(details.kind);
  if (validTo_ms - validFrom_ms > longest_h * HOUR_MS) {
    return {
      code: "validity",
      reason: `it is longer than ${longest_h} hours, so write one for each day or shift, linked to the last`,
    };
  }
  const lead = tx.select().from(people).where(eq(people.id, holder)).get();
  if (lead === undefined) return { code: "unknown", what: "person", name: holder };
  // Who works alone leads nobody; that they may is asked when the plan is approved.
  if (kindRule(details.kind).alone) return null;
  return lead.roles.includes("holder") ? null : { code: "not a lead", who: lead.name };
}

/** The next day's permit: the same work under a new number, linked to the last. */
export const nextDayPermit = defineAct({
  type: "permit.next-day",
  words: "write the next day's permit",
  roles: ["coordinator", "issuer", "holder"],
  pin: false,
  input: z.object({ permit: z.string(), ...times }).refine(ends, ENDS),
  run: (context, { permit, validFrom_ms, validTo_ms }) => {
    const before = loadPermit(context.tx, permit);
    if (before === null) {
      return { ok: false, subject: permit, refusal: { code: "unknown", what: "permit", name: permit } };
    }
    if (["draft", "checked", "cancelled"].includes(before.life.state)) {
      const refusal = {
        code: "wrong state",
        what: `Permit ${permit}`,
        state: before.life.state,
        needs: "authorised or later",
      } as const;
      return { ok: false, subject: permit, refusal };
    }
    const job = context.tx.select().from(jobs).where(eq(jobs.id, before.row.jobId)).get()!;
    const { words, hazards, precautions } = before.row;
    return write(context, {
      job: job.number,
      words,
      hazards,
      precautions,
      validFrom_ms,
      validTo_ms,
      holder: before.life.holder,
      details: before.life.details,
      previous: permit,
    });
  },
});

type Draft = Readonly<{
  job: string;
  words: string;
  hazards: string;
  precautions: string;
  validFrom_ms: number;
  validTo_ms: number;
  holder?: string;
  details: PermitDetails;
  previous: string | null;
}>;

function write({ tx, person, now_ms }: ActContext, input: Draft): ActOutcome {
  const job = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
  if (job === undefined) {
    return { ok: false, subject: input.job, refusal: { code: "unknown", what: "job", name: input.job } };
  }
  const subject = job.number;
  const rule = kindRule(input.details.kind);
  const holder = input.holder || job.holderId;
  const fault = draftFault(tx, { ...input, holder });
  if (fault) return { ok: false, subject, refusal: fault };
  const standing = standingOf(tx, job.id);
  const [first] = standing;
  const isMinor = standing.some(({ id }) => isMinorIsolation(tx, id));
  // One kind of permit goes with the short route and with nothing else, for its one person, once.
  if (isMinor !== rule.alone || (rule.alone && (holder !== job.holderId || input.previous !== null))) {
    return { ok: false, subject, refusal: { code: "short route", what: first?.number ?? subject, isMinor } };
  }
  if (rule.isolation && first === undefined) return { ok: false, subject, refusal: { code: "no isolation" } };
  const plant = currentPlant(tx);
  if (plant === null) return { ok: false, subject, refusal: { code: "no isolation" } };
  const id = randomUUID();
  const number = nextNumber(tx, permits, "P");
  tx.insert(permits)
    .values({
      id,
      number,
      kind: input.details.kind,
      details: input.details,
      previous: input.previous,
      jobId: job.id,
      state: "draft",
      words: input.words,
      hazards: input.hazards,
      precautions: input.precautions,
      holderId: holder,
      validFrom: input.validFrom_ms,
      validTo: input.validTo_ms,
      plantRevision: first?.plantRevision ?? plant.revision,
      ruleProfile: first?.ruleProfile ?? job.job.profile,
      engineVersion: ENGINE_VERSION,
      draftedBy: person.id,
      draftedAt: now_ms,
    })
    .run();
  // A bypass stands on no isolation, and holds none up.
  for (const isolation of rule.isolation ? standing : []) {
    tx.insert(permitIsolations).values({ permitId: id, isolationId: isolation.id }).run();
  }
  return { ok: true, subject: number, answer: { permit: number } };
}

function standingOf(tx: Tx, jobId: string) {
  return tx
    .select({
      id: isolations.id,
      number: isolations.number,
      plantRevision: isolations.plantRevision,
      ruleProfile: isolations.ruleProfile,
    })
    .from(jobIsolations)
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(and(eq(jobIsolations.jobId, jobId), ne(isolations.state, "restored")))
    .all();
}
