import { eq } from "drizzle-orm";
import { z } from "zod";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import { refusalSentence } from "../../core/words/en/refusals";
import { actTime_ms } from "../runtime/clock";
import { announce } from "../runtime/events";
import { log } from "../runtime/log";
import { appendToLedger, DiskFull, inLedger, RecordBroken } from "../ledger/append";
import { headFilePath } from "../ledger/headFile";
import { database, type Db, type Tx } from "../db/database";
import { ledger } from "../db/schema";
import { bodyOf } from "../ledger/body";
import type { Refusal } from "../../core/refusal/refusal";
import { pinFault, signerFault, type Person } from "../people/signIn";
import { PrepareAgain, type Act, type ActOutcome, type Consequences } from "../act/act";
import { Busy } from "../runtime/workers";
import { aboutOf } from "../ledger/aboutOf";
import { READ_REMOVAL, unreadRemoval } from "../box/removalStore";
import { settlePermit, settleStanding } from "../permit/settlePermits";
import { ACTS } from "./acts";
import { inputFault } from "./plainInput";

/** How an act arrives, from a screen or over HTTP. */
const envelopeSchema = z.object({
  version: z.literal(1),
  /** Made by the client, once for each thing the person means to do. */
  actId: z.uuid("must be a UUID"),
  type: z.string(),
  input: z.unknown(),
  pin: z.string().max(20).optional(),
  /** When the person did it, by their device's clock; only for acts that were kept while there was no network. */
  doneAt_ms: z.number("must be a time in ms").int("must be a time in ms").optional(),
});

/** A device's clock may be a little fast; what is older than two shifts is a late entry by somebody who answers for it. */
const CLOCK_AHEAD_MS = 2 * 60_000;
const KEPT_AT_MOST_MS = 24 * 3_600_000;

export type ActAnswer =
  | Readonly<{
      ok: true;
      answer: Readonly<Record<string, string | number | null>>;
      /** What is shown once: the same act sent again is answered without it. */
      once?: Readonly<Record<string, string>>;
    }>
  | Readonly<{
      ok: false;
      status: 400 | 401 | 403 | 409 | 503;
      sentence: string;
      field?: string;
      code: string;
      /** Code and evidence of a refusal: the sentence is written from it. */
      refusal?: Readonly<{ code: string }>;
      /** Every field that is wrong, and how. */
      faults?: readonly Readonly<{ field: string; message: string }>[];
    }>;

/** While it was worked out somebody changed what it stands on; more often than this nobody does. */
const MOST_TRIES = 3;
const CHANGED = { code: "changed meanwhile" } as const;

const SIGNED_OUT: ActAnswer = {
  ok: false,
  status: 401,
  code: "signed out",
  sentence: "You are not signed in. Sign in, then do it again: nothing was changed.",
};

/**
 * Does one act: checks who, checks the input, checks the PIN, then in one transaction asks the core and writes state
 * and ledger together. The same act id gets the same answer again and is not done twice. A refusal is evidence: it goes
 * to the ledger too, and changes nothing else.
 */
export async function runAct(
  raw: unknown,
  person: Person | null,
  clock_ms: number,
  db: Db = database(),
  headFile: string = headFilePath(),
  page: string | null = null,
): Promise<ActAnswer> {
  if (person === null) return SIGNED_OUT;
  try {
    return await run(raw, person, clock_ms, db, headFile, page);
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

/** Of a stop of work: the permit; null for everything else. People are told of it whatever becomes of the record. */
function stopOf(raw: unknown): string | null {
  const stop = z.object({ type: z.literal(STOP), input: z.object({ permit: z.string().regex(/^[\w-]{1,20}$/) }) });
  const read = stop.safeParse(raw);
  return read.success ? read.data.input.permit : null;
}
const STOP = "permit.stop";

async function run(
  raw: unknown,
  person: Person,
  clock_ms: number,
  db: Db,
  headFile: string,
  page: string | null,
): Promise<ActAnswer> {
  const envelope = envelopeSchema.safeParse(raw);
  if (!envelope.success) return badInput(envelope.error);
  const { actId, type, pin, doneAt_ms } = envelope.data;
  const act: Act | undefined = ACTS.get(type);
  if (act === undefined) return { ok: false, status: 400, code: "unknown act", sentence: `There is no act ${type}.` };
  // What was not read is not kept either: it may hold a PIN.
  let asked: unknown = null;
  // Before the schema: what is read costs time, and whoever may not do it makes nobody wait.
  const plain = act.isLarge ? null : inputFault(envelope.data.input);
  if (plain) return badField(plain.field, `${plain.field === "" ? "The input" : plain.field} ${plain.message}`);
  if (act.roles.length > 0 && !act.roles.some((role) => person.roles.includes(role))) {
    const refusal: Refusal = { code: "not yours to do", act: act.words, needs: act.roles };
    return (
      earlierAnswer(db, actId, type, person, asked) ?? record(db, headFile, () => ({ ok: false, subject: "", refusal }))
    );
  }
  const input = act.input.safeParse(envelope.data.input);
  if (!input.success) return badInput(input.error);
  asked = asStored(act.forLedger ? act.forLedger(input.data) : input.data);

  const before = earlierAnswer(db, actId, type, person, asked);
  if (before) return before;
  if (act.pin) {
    if (!pin)
      return { ok: false, status: 403, code: "pin missing", field: "pin", sentence: "Enter your PIN to sign this." };
    const fault = await pinFault(db, person, pin, clock_ms);
    if (fault) return { ok: false, status: 403, code: "wrong pin", field: "pin", sentence: fault };
  }
  for (const signer of act.signers?.(input.data) ?? []) {
    const fault = await signerFault(db, signer, person, clock_ms);
    if (fault) return { ok: false, status: 403, code: "wrong pin", field: signer.field, sentence: fault };
  }
  if (doneAt_ms !== undefined) {
    const refusal: Refusal | null = !act.offline
      ? { code: "online only", act: act.words }
      : doneAt_ms > clock_ms + CLOCK_AHEAD_MS
        ? { code: "device clock", why: "it is ahead of the server's" }
        : doneAt_ms < clock_ms - KEPT_AT_MOST_MS
          ? { code: "device clock", why: "it says that this was done more than a day ago" }
          : null;
    if (refusal) return record(db, headFile, () => ({ ok: false, subject: "", refusal }));
  }
  for (let tries = 1; ; tries++) {
    let prepared: unknown;
    try {
      prepared = await act.prepare?.(db, input.data, clock_ms);
    } catch (error) {
      if (!(error instanceof Busy)) throw error;
      return { ok: false, status: 503, code: "busy", sentence: error.message };
    }
    try {
      return record(db, headFile, (tx, now_ms) => decide(act, person, tx, now_ms, prepared));
    } catch (error) {
      if (!(error instanceof PrepareAgain)) throw error;
      if (tries === MOST_TRIES) return record(db, headFile, () => ({ ok: false, subject: "", refusal: CHANGED }));
    }
  }

  function decide(act: Act, person: Person, tx: Tx, now_ms: number, prepared: unknown): ActOutcome {
    // Who was not there when their lock was cut is told before they do anything else.
    const unread = act.type === READ_REMOVAL ? null : unreadRemoval(tx, person.id);
    if (unread) {
      const refusal = { code: "not read", lock: unread.removal.lock, permit: unread.removal.permit } as const;
      return { ok: false, subject: unread.removal.permit, refusal };
    }
    return act.run(
      { tx, person, now_ms, done_ms: Math.min(doneAt_ms ?? now_ms, now_ms), kept: doneAt_ms !== undefined },
      input.data as never,
      prepared,
    );
  }

  function record(db: Db, headFile: string, run: (tx: Tx, now_ms: number) => ActOutcome): ActAnswer {
    let subject = "";
    const also: string[] = [];
    let isNew = false;
    let once: Readonly<Record<string, string>> | undefined;
    const answer = inLedger<ActAnswer>(
      db,
      headFile,
      (tx) => {
        // Asked again inside: while the PIN was checked the same act may have come by another way.
        const again = earlierAnswer(tx, actId, type, person!, asked);
        if (again) return { head: null, value: again };
        const act_ms = actTime_ms(tx, clock_ms);
        const outcome = orNothing(tx, (inner) => run(inner, ACTS.get(type)?.setsTheClock ? clock_ms : act_ms));
        // What the clock did meanwhile stands, and is written before the refusal.
        const moved = outcome.ok ? null : settlePermit(tx, outcome.subject, act_ms);
        const now_ms = outcome.ok && ACTS.get(type)?.setsTheClock ? clock_ms : act_ms;
        const answer = answerOf(outcome);
        subject = outcome.subject;
        if (!outcome.ok && refusedTooOften(person!.id, clock_ms)) return { head: moved, value: answer };
        const own = appendToLedger(tx, {
          actId,
          type,
          outcome: outcome.ok ? "done" : "refused",
          by: person!.id,
          subject: outcome.subject,
          doneAt_ms: Math.min(doneAt_ms ?? now_ms, now_ms),
          recordedAt_ms: now_ms,
          transcribedBy: null,
          corrects: outcome.ok ? (outcome.corrects ?? null) : null,
          input: asked,
          answer: asStored(answer),
        });
        const follows = outcome.ok ? consequences(tx, outcome, now_ms) : null;
        also.push(...(follows?.about ?? []));
        isNew = true;
        once = outcome.ok ? outcome.once : undefined;
        return { head: follows?.head ?? own, value: answer };
      },
      act?.protects,
    );
    // After it is true and on disk: other screens come and look.
    if (isNew && answer.ok) {
      const about = aboutOf(db, subject, ...Object.values(answer.answer));
      announce({ kind: "act", subject, about, page });
      for (const one of also) announce({ kind: "permit", subject: one, about: aboutOf(db, one) });
    }
    return answer.ok && once !== undefined ? { ...answer, once } : answer;
  }
}

/** Refusals are evidence; a thousand of one minute are no more of it than a hundred, and would fill the disk. */
const REFUSED_KEPT_A_MINUTE = 120;
const refusals = new Map<string, { minute: number; n: number }>();

function refusedTooOften(person: string, clock_ms: number): boolean {
  const minute = Math.floor(clock_ms / 60_000);
  const known = refusals.get(person);
  const n = known?.minute === minute ? known.n + 1 : 1;
  refusals.set(person, { minute, n });
  return n > REFUSED_KEPT_A_MINUTE;
}

class Refused extends Error {
  constructor(readonly outcome: ActOutcome) {
    super("refused");
  }
}

/** A refused act changes nothing, whatever it had written before it was refused. */
function orNothing(tx: Parameters<Parameters<Db["transaction"]>[0]>[0], run: (tx: Tx) => ActOutcome): ActOutcome {
  try {
    return tx.transaction((inner) => {
      const outcome = run(inner);
      if (!outcome.ok) throw new Refused(outcome);
      return outcome;
    });
  } catch (error) {
    if (error instanceof Refused) return error.outcome;
    throw error;
  }
}

/** What follows from an act by itself, and the permits that it stops because their isolation is not held any more. */
function consequences(tx: Tx, outcome: Extract<ActOutcome, { ok: true }>, now_ms: number): Consequences {
  const own = outcome.then?.(tx, now_ms) ?? { head: null, about: [] };
  const named = [outcome.subject, ...Object.values(outcome.answer), ...own.about];
  const changed = named.filter((one): one is string => typeof one === "string" && /^S-\d+$/.test(one));
  const settled = settleStanding(tx, [...new Set(changed)], now_ms);
  return { head: settled.head ?? own.head, about: [...new Set([...own.about, ...settled.moved])] };
}

function answerOf(outcome: ActOutcome): ActAnswer {
  if (outcome.ok) return { ok: true, answer: outcome.answer };
  const status = outcome.refusal.code === "not yours to do" ? 403 : 409;
  const { refusal } = outcome;
  return { ok: false, status, code: refusal.code, sentence: refusalSentence(refusal), refusal };
}

/** The answer given when this act first came; a refusal when the id was used for something else. */
function earlierAnswer(tx: Tx, actId: string, type: string, person: Person, asked: unknown): ActAnswer | null {
  const row = tx.select().from(ledger).where(eq(ledger.actId, actId)).get();
  if (row === undefined) return null;
  const body = bodyOf(row);
  const same = row.type === type && row.byPerson === person.id && canonicalJson(body.input) === canonicalJson(asked);
  if (same) return body.answer;
  return {
    ok: false,
    status: 409,
    code: "act id used",
    sentence: "This act id was used for another act. Load the page again.",
  };
}

/** As JSON keeps it: without what is undefined. */
function asStored(value: unknown): unknown {
  return JSON.parse(JSON.stringify(value ?? null));
}

function badField(field: string, sentence: string): ActAnswer {
  const named = field === "" ? {} : { field };
  return {
    ok: false,
    status: 400,
    code: "bad input",
    sentence: `${sentence}.`,
    ...named,
    faults: [{ field, message: sentence }],
  };
}

function badInput(error: z.ZodError): ActAnswer {
  const faults = error.issues.map(({ path, message }) => ({ field: path.map(String).join("."), message }));
  const { field = "", message = "not understood" } = faults[0] ?? {};
  return {
    ok: false,
    status: 400,
    code: "bad input",
    sentence: `${field ? `${field}: ` : ""}${message}`,
    ...(field ? { field } : {}),
    faults,
  };
}
