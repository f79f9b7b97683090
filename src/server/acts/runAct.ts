import { z } from "zod";
import type { PersonId } from "../../core/people/roles";
import type { Refusal } from "../../core/refusal/refusal";
import { PrepareAgain, type Act, type ActOutcome } from "../act/act";
import { READ_REMOVAL, unreadRemoval } from "../box/removalStore";
import { database, type Db, type Tx } from "../db/database";
import { DiskFull, RecordBroken } from "../ledger/append";
import { headFilePath } from "../ledger/headFile";
import { namesOf, pinFault, signerFault, type Person } from "../people/signIn";
import { announce } from "../runtime/events";
import { log } from "../runtime/log";
import { Busy } from "../runtime/workers";
import { badInput, type ActAnswer } from "./answer";
import { actSchema, earlierAnswer, readAct, type ReadAct } from "./readAct";
import { recordActs, type NextAct } from "./recordActs";
import { roundOf, roundSchema, type ReadRound } from "./readRound";

/** How an act arrives, from a screen or over HTTP. */
const envelopeSchema = actSchema.extend({
  version: z.literal(1),
  pin: z.string().max(20).optional(),
  /** When the person did it, by their device's clock; only for acts that were kept while there was no network. */
  doneAt_ms: z.number("must be a time in ms").int("must be a time in ms").optional(),
});

/** A device's clock may be a little fast; what is older than two shifts is a late entry by somebody who answers for it. */
const CLOCK_AHEAD_MS = 2 * 60_000;
const KEPT_AT_MOST_MS = 24 * 3_600_000;

/** While it was worked out somebody changed what it stands on; more often than this nobody does. */
const MOST_TRIES = 3;
const CHANGED = { code: "changed meanwhile" } as const;

const SIGNED_OUT: ActAnswer = {
  ok: false,
  status: 401,
  code: "signed out",
  sentence: "You are not signed in. Sign in, then do it again: nothing was changed.",
};

/** Who acts, when, on what. */
type Where = Readonly<{
  person: Person;
  clock_ms: number;
  db: Db;
  headFile: string;
  page: string | null;
  spent: Spent;
  via?: string | undefined;
}>;
/** What of an act's time went into its signature, the wait for a turn at it included. */
export type Spent = { signing_ms: number };

/**
 * Does one act, or a round of acts under one signature: checks who, checks the input, checks the PIN, then in one
 * transaction asks the core and writes state and ledger together. The same act id gets the same answer again and is not
 * done twice. A refusal is evidence: it goes to the ledger too, and changes nothing else.
 */
export async function runAct(
  raw: unknown,
  person: Person | null,
  clock_ms: number,
  db: Db = database(),
  headFile: string = headFilePath(),
  page: string | null = null,
  spent: Spent = { signing_ms: 0 },
  /** The token by which a program sent it. */
  via?: string,
): Promise<ActAnswer> {
  if (person === null) return SIGNED_OUT;
  const where: Where = { person, clock_ms, db, headFile, page, spent, via };
  try {
    const isRound = typeof raw === "object" && raw !== null && "round" in raw;
    return await (isRound ? runRound(raw, where) : runOne(raw, where));
  } catch (error) {
    // RecordBroken was thrown before anything; a stop is done even then, so this one was never one.
    const stopped = error instanceof RecordBroken ? null : stopOf(raw);
    if (stopped !== null) {
      log().error({ err: error, permit: stopped }, "a stop was told and could not be written");
      announce({ kind: "alarm", subject: stopped, about: [stopped] });
      return {
        ok: false,
        status: 503,
        code: "told, not written",
        sentence: `Every open screen was told that ${stopped} stops, but the server could not write it down. Say it aloud and by radio as well, fetch whoever runs the server, and stop it here again.`,
      };
    }
    if (error instanceof DiskFull) {
      return {
        ok: false,
        status: 503,
        code: "disk full",
        sentence:
          "Nothing was done: the server's disk is full, and what room is left is for stopping work. Fetch whoever runs the server.",
      };
    }
    if (!(error instanceof RecordBroken)) throw error;
    return {
      ok: false,
      status: 503,
      code: "record broken",
      sentence: `Nothing was done. The record does not go on where it ended: ${error.why}. Only work can be stopped. Fetch whoever runs the server: ./lantern verify says what differs.`,
    };
  }
}

/** Of a stop of work: what stops; null for everything else. People are told of it whatever becomes of the record. */
function stopOf(raw: unknown): string | null {
  const read = STOPS.safeParse(raw);
  if (!read.success) return null;
  const { data } = read;
  if (data.type === "permit.stop") return data.input.permit;
  return data.input.area === "" ? ALL_WORK : `${ALL_WORK} at ${data.input.area}`;
}
const ALL_WORK = "all work";
const STOPS = z.discriminatedUnion("type", [
  z.object({ type: z.literal("permit.stop"), input: z.object({ permit: z.string().regex(/^[\w-]{1,20}$/) }) }),
  z.object({ type: z.literal("site.stop"), input: z.object({ area: z.string().max(120).default("") }) }),
]);

async function runOne(raw: unknown, where: Where): Promise<ActAnswer> {
  const { person, clock_ms, db } = where;
  const envelope = envelopeSchema.safeParse(raw);
  if (!envelope.success) return badInput(envelope.error);
  const { pin, doneAt_ms } = envelope.data;
  const read = readAct(envelope.data, person);
  if ("ok" in read) return read;
  const { act } = read;
  const refuse = (refusal: Refusal) => recordActs(where, [() => ({ read, run: () => refused(refusal) })]);
  const before = earlierAnswer(db, read, person);
  if (before) return before;
  if (read.refusal) return refuse(read.refusal);
  const notNow = act.atCrewRound?.(db, person, read.input, clock_ms) ?? null;
  if (notNow) return refuse(notNow);
  const signers = act.signers?.(read.input) ?? [];
  const fault =
    (act.pin ? await signature(where, pin) : null) ??
    (await othersSignatures(where, signers, act.atCrewRound !== undefined));
  if (fault) return fault;
  if (doneAt_ms !== undefined) {
    const refusal: Refusal | null = !act.offline
      ? { code: "online only", act: act.words }
      : doneAt_ms > clock_ms + CLOCK_AHEAD_MS
        ? { code: "device clock", why: "it is ahead of the server's" }
        : doneAt_ms < clock_ms - KEPT_AT_MOST_MS
          ? { code: "device clock", why: "it says that this was done more than a day ago" }
          : null;
    if (refusal) return refuse(refusal);
  }
  return prepared(where, [read], (made) =>
    recordActs({ ...where, doneAt_ms }, [() => ({ read, run: doer(where, read, made[0], doneAt_ms) })]),
  );
}

/** Acts of one person at one place under one signature; see core/rounds. Each is done as if it had come alone, or none is. */
async function runRound(raw: unknown, where: Where): Promise<ActAnswer> {
  const envelope = roundSchema.safeParse(raw);
  if (!envelope.success) return badInput(envelope.error);
  const round = roundOf(envelope.data, where.person);
  if ("ok" in round) return round;
  const reads = round.entries.map(({ first }) => first);
  const before = reads.map((read) => (read === null ? null : earlierAnswer(where.db, read, where.person)));
  const said = before.findIndex((one) => one !== null && !one.ok);
  if (said !== -1) return { ...(before[said] as ActAnswer & { ok: false }), entry: said };
  const isAllSaid = before.every((one) => one !== null);
  if (!isAllSaid && round.needsPin) {
    const fault = await signature(where, envelope.data.pin);
    if (fault) return fault;
  }
  return prepared(where, reads, (made) => recordActs({ ...where, isRound: true }, roundSteps(where, round, made)));
}

function roundSteps(where: Where, round: ReadRound, made: readonly unknown[]): NextAct[] {
  return round.entries.map(({ complete }, at) => (answers) => {
    const read = complete(answers);
    if ("ok" in read) return read;
    return {
      read,
      run: (tx, now_ms) => {
        const refusal = read.refusal ?? round.faultInside(tx, read, now_ms);
        return refusal ? refused(refusal) : doer(where, read, made[at])(tx, now_ms);
      },
    };
  });
}

const refused = (refusal: Refusal): ActOutcome => ({
  ok: false,
  subject: "permit" in refusal && typeof refusal.permit === "string" ? refusal.permit : "",
  refusal,
});

/** What an act does inside the transaction. */
function doer({ person }: Where, { act, input }: ReadAct, made: unknown, doneAt_ms?: number) {
  return (tx: Tx, now_ms: number): ActOutcome => {
    // Who was not there when their lock was cut is told before they do anything else but stop work.
    const hands = [person.id, ...(act.signers?.(input as never) ?? []).map((signer) => signer.person as PersonId)];
    for (const hand of act.type === READ_REMOVAL || act.protects ? [] : new Set(hands)) {
      const unread = unreadRemoval(tx, hand);
      if (unread === null) continue;
      const { lock, permit } = unread.removal;
      const who = hand === person.id ? {} : { who: namesOf(tx)(hand) };
      return { ok: false, subject: permit, refusal: { code: "not read", lock, permit, ...who } };
    }
    const done_ms = Math.min(doneAt_ms ?? now_ms, now_ms);
    return act.run({ tx, person, now_ms, done_ms, kept: doneAt_ms !== undefined }, input as never, made);
  };
}

/** Works out what is too heavy for a transaction, then does it; again where somebody changed what it stands on meanwhile. */
async function prepared(
  where: Where,
  reads: readonly (ReadAct | null)[],
  record: (made: readonly unknown[]) => ActAnswer,
): Promise<ActAnswer> {
  for (let tries = 1; ; tries++) {
    const made: unknown[] = [];
    try {
      for (const read of reads) {
        const act: Act | undefined = read?.refusal ? undefined : read?.act;
        made.push(await act?.prepare?.(where.db, read!.input, where.clock_ms));
      }
    } catch (error) {
      if (!(error instanceof Busy)) throw error;
      return { ok: false, status: 503, code: "busy", sentence: error.message };
    }
    try {
      return record(made);
    } catch (error) {
      if (!(error instanceof PrepareAgain)) throw error;
      if (tries < MOST_TRIES) continue;
      const heavy = reads.find((read) => read?.act.prepare !== undefined)!;
      return recordActs(where, [() => ({ read: heavy, run: () => refused(CHANGED) })]);
    }
  }
}

/** What is wrong with whose hand this is; null where the PIN is theirs. */
async function signature({ db, person, clock_ms, spent }: Where, pin: string | undefined): Promise<ActAnswer | null> {
  if (!pin) {
    return { ok: false, status: 403, code: "pin missing", field: "pin", sentence: "Enter your PIN to sign this." };
  }
  const from_ms = performance.now();
  const fault = await pinFault(db, person, pin, clock_ms);
  spent.signing_ms += performance.now() - from_ms;
  return fault ? { ok: false, status: 403, code: "wrong pin", field: "pin", sentence: fault } : null;
}

async function othersSignatures(
  { db, person, clock_ms }: Where,
  signers: readonly Readonly<{ person: string; pin: string; field: string }>[],
  atCrewRound: boolean,
): Promise<ActAnswer | null> {
  for (const signer of signers) {
    const fault = await signerFault(db, signer, person, clock_ms, atCrewRound);
    if (fault) return { ok: false, status: 403, code: "wrong pin", field: signer.field, sentence: fault };
  }
  return null;
}
