import { noticeClock, rememberClocks } from "../permit/clockWatch";
import { actTime_ms } from "../runtime/clock";
import { announce } from "../runtime/events";
import { aboutOf } from "../ledger/aboutOf";
import { appendToLedger, inLedger } from "../ledger/append";
import type { LedgerHead } from "../ledger/headFile";
import type { Db, Tx } from "../db/database";
import type { ActOutcome, Consequences } from "../act/act";
import type { Person } from "../people/signIn";
import { settlePermit, settleStanding } from "../permit/settlePermits";
import { answerOf, type ActAnswer } from "./answer";
import { asStored, earlierAnswer, type ReadAct } from "./readAct";

/** An act ready to be done: `run` is asked inside the transaction. */
export type ReadyAct = Readonly<{ read: ReadAct; run: (tx: Tx, now_ms: number) => ActOutcome }>;

/** Inside a round: what the next act is, once those before it have been done and answered; or why it is none. */
export type NextAct = (answers: readonly Said[]) => ReadyAct | ActAnswer;
export type Said = Readonly<Record<string, string | number | null>>;

type Where = Readonly<{
  db: Db;
  headFile: string;
  person: Person;
  clock_ms: number;
  /** Whose page it came from: the others look again. */
  page: string | null;
  /** When a device did it that had no network. */
  doneAt_ms?: number;
  /** The token by which a program sent it. */
  via?: string | undefined;
  /** They came as a round: the answer says which of them was refused. */
  isRound?: boolean;
}>;

/** An act of the transaction could not be done: all that was written in it is undone. */
class Refused extends Error {
  constructor(
    readonly at: number,
    readonly read: ReadAct | null,
    readonly answer: ActAnswer,
    readonly outcome: ActOutcome | null,
  ) {
    super("refused");
  }
}

/**
 * Does acts in one transaction, in their order, each with its own row of the ledger; all of them, or none. The same ids
 * get the same answers and are not done twice. A refusal is evidence: the act that was refused gets a row, and changes
 * nothing; where there are several, those before it left nothing either.
 */
export function recordActs(where: Where, next: readonly NextAct[]): ActAnswer {
  const { db, headFile, person, clock_ms, page, isRound = false } = where;
  const subjects: string[] = [];
  const also: string[] = [];
  const answers: Said[] = [];
  let isNew = false;
  let setsTheClock = false;
  let once: Readonly<Record<string, string>> | undefined;

  const doAll = (tx: Tx, act_ms: number): { head: LedgerHead | null; value: ActAnswer } => {
    let head: LedgerHead | null = null;
    let hasNew = false;
    next.forEach((following, at) => {
      const ready = following(answers);
      if ("ok" in ready) throw new Refused(at, null, ready, null);
      const { read, run } = ready;
      // Asked again inside: while the PIN was checked the same act may have come by another way.
      const again = earlierAnswer(tx, read, person);
      if (again && !again.ok) throw new Refused(at, null, again, null);
      if (again) {
        if (hasNew) throw new Refused(at, null, ID_USED, null);
        answers.push(again.answer);
        return;
      }
      hasNew = true;
      setsTheClock ||= read.act.setsTheClock === true;
      const now_ms = read.act.setsTheClock ? clock_ms : act_ms;
      const outcome = run(tx, now_ms);
      if (!outcome.ok) throw new Refused(at, read, answerOf(outcome), outcome);
      const own = append(tx, read, outcome, now_ms);
      const follows = consequences(tx, outcome, now_ms);
      head = follows.head ?? own;
      subjects.push(outcome.subject);
      also.push(...follows.about);
      answers.push(outcome.answer);
      if (outcome.once !== undefined) once = { ...once, ...outcome.once };
    });
    isNew = hasNew;
    return { head, value: { ok: true, answer: Object.assign({}, ...answers) as Said } };
  };

  const append = (tx: Tx, { actId, act, asked }: ReadAct, outcome: ActOutcome, now_ms: number): LedgerHead =>
    appendToLedger(tx, {
      actId,
      type: act.type,
      outcome: outcome.ok ? "done" : "refused",
      by: person.id,
      subject: outcome.subject,
      doneAt_ms: Math.min(where.doneAt_ms ?? now_ms, now_ms),
      recordedAt_ms: now_ms,
      transcribedBy: null,
      ...(where.via === undefined ? {} : { via: where.via }),
      corrects: outcome.ok ? (outcome.corrects ?? null) : null,
      input: asked,
      answer: asStored(answerOf(outcome)),
    });

  noticeClock(db, headFile);
  const first = next[0]!([]);
  const answer = inLedger<ActAnswer>(
    db,
    headFile,
    (tx) => {
      const act_ms = actTime_ms(tx, clock_ms);
      try {
        return tx.transaction((inner) => doAll(inner, act_ms));
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        answers.length = 0;
        const value: ActAnswer = isRound && !error.answer.ok ? { ...error.answer, entry: error.at } : error.answer;
        if (error.read === null || error.outcome === null) return { head: null, value };
        // What the clock did meanwhile stands, and is written before the refusal.
        const moved = settlePermit(tx, error.outcome.subject, act_ms);
        if (refusedTooOften(person.id, clock_ms)) return { head: moved, value };
        return { head: append(tx, error.read, error.outcome, act_ms), value };
      }
    },
    "ok" in first ? false : first.read.act.protects,
  );
  if (isNew && answer.ok && setsTheClock) rememberClocks();
  // After it is true and on disk: other screens come and look.
  if (isNew && answer.ok) {
    for (const subject of new Set(subjects)) {
      announce({ kind: "act", subject, about: aboutOf(db, subject, ...Object.values(answer.answer)), page });
    }
    for (const one of new Set(also)) announce({ kind: "permit", subject: one, about: aboutOf(db, one) });
  }
  return answer.ok && once !== undefined ? { ...answer, once } : answer;
}

const ID_USED: ActAnswer = {
  ok: false,
  status: 409,
  code: "act id used",
  sentence: "Some of this was done before and some was not. Load the page again.",
};

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

/** What follows from an act by itself, and the permits that it stops because their isolation is not held any more. */
function consequences(
  tx: Tx,
  outcome: Extract<ActOutcome, { ok: true }>,
  now_ms: number,
): Omit<Consequences, "fallen"> {
  const own = outcome.then?.(tx, now_ms) ?? { head: null, about: [], fallen: [] };
  const named = [outcome.subject, ...Object.values(outcome.answer), ...own.fallen];
  const changed = named.filter((one): one is string => typeof one === "string" && /^S-\d+$/.test(one));
  const settled = settleStanding(tx, [...new Set(changed)], now_ms);
  return { head: settled.head ?? own.head, about: [...new Set([...own.about, ...settled.moved])] };
}
