import { randomUUID } from "node:crypto";
import { inOneGo } from "../../core/inOneGo";
import { nextChange_ms } from "../../core/permit/life/nextChange";
import type { PermitState } from "../../core/permit/record/permitTypes";
import { watchedAnew } from "../../core/permit/record/clockSet";
import { lastOf } from "../../core/permit/record/permitLog";
import { and, eq, inArray } from "drizzle-orm";
import { database, type Db, type Tx } from "../db/database";
import { isAmong } from "../db/isAmong";
import { isolations, permitIsolations, permits } from "../db/schema";
import { appendToLedger, inLedger } from "../ledger/append";
import { headFilePath, type LedgerHead } from "../ledger/headFile";
import { actTime_ms } from "../runtime/clock";
import { CLOCK } from "../ledger/nobody";
import { announce } from "../runtime/events";
import { aboutOf } from "../ledger/aboutOf";
import { freshLookSteps, lookOfJustNow, type Look } from "./openPermits";
import { permitNow, permitsNow, type PermitNow } from "./permitFacts";
import { savePermit } from "./permitStore";

/**
 * Writes down what the clock or changed facts have done to a permit: it ran out, or it stopped. Null where nothing did.
 * Runs inside the transaction of whoever asks, before their own act.
 */
export function settlePermit(tx: Tx, number: string, now_ms: number, by = CLOCK): LedgerHead | null {
  const permit = moveByClock(tx, number, now_ms);
  return permit === null ? null : recordMove(tx, permit, now_ms, by);
}

/**
 * The same for every permit that stands on one of these isolations: in the transaction of what changed them, so that at no
 * moment a permit is live over an isolation that is not held. The permits that moved, and the ledger's head.
 *
 * Cost: one look at all of them together, and a row for each that moves.
 */
export function settleStanding(
  tx: Tx,
  isolationNumbers: readonly string[],
  now_ms: number,
): Readonly<{ moved: readonly string[]; head: LedgerHead | null }> {
  if (isolationNumbers.length === 0) return { moved: [], head: null };
  const rows = tx
    .select({ number: permits.number })
    .from(permits)
    .innerJoin(permitIsolations, eq(permitIsolations.permitId, permits.id))
    .innerJoin(isolations, eq(isolations.id, permitIsolations.isolationId))
    .where(and(isAmong(isolations.number, isolationNumbers), inArray(permits.state, [...MOVED_BY_CLOCK])))
    .all();
  return settleNumbers(tx, [...new Set(rows.map(({ number }) => number))], now_ms);
}

/** The same for these permits. Those that the clock does not move stay as they are. */
export function settleNumbers(
  tx: Tx,
  numbers: readonly string[],
  now_ms: number,
): Readonly<{ moved: readonly string[]; head: LedgerHead | null }> {
  let head: LedgerHead | null = null;
  const moved: string[] = [];
  for (const permit of permitsNow(tx, numbers, now_ms)) {
    if (permit.now === permit.life) continue;
    savePermit(tx, permit, permit.now);
    head = recordMove(tx, permit, now_ms, CLOCK);
    moved.push(permit.life.number);
  }
  return { moved, head };
}

function recordMove(tx: Tx, permit: PermitNow, now_ms: number, by: string): LedgerHead {
  const { number } = permit.life;
  const did = moveOf(permit);
  return appendToLedger(tx, {
    actId: randomUUID(),
    type: did.type,
    outcome: "done",
    by,
    subject: number,
    // When it was so, and when it was noticed: a server that slept says both.
    doneAt_ms: did.type === "permit.ran-out" ? permit.now.validTo_ms : now_ms,
    recordedAt_ms: now_ms,
    transcribedBy: null,
    corrects: null,
    input: { permit: number, cause: did.cause },
    answer: { ok: true, answer: { permit: number, state: permit.now.state, did: did.sentence } },
  });
}

/** What the clock or an instrument did to it. A permit that was not live, and whose blower was heard to stand, stays what it was. */
function moveOf({ life, now }: PermitNow) {
  const { number } = life;
  if (now.state === "run out") {
    const sentence = `Permit ${number} ran out. Everybody stops, makes safe and signs off.`;
    return { type: "permit.ran-out", cause: "its time ended", sentence };
  }
  if (now.state === "watching") {
    const cause = watchedAnew(now.log) ?? "clock";
    const why = cause === "fire" ? "something burned after it had ended" : "it ended by a clock that was wrong";
    return { type: "permit.watched-anew", cause, sentence: `The watch after permit ${number} is kept anew: ${why}.` };
  }
  if (now.state === life.state) {
    const sentence = `The blower of permit ${number} stands: the space is purged again and its air read anew.`;
    return { type: "permit.blower-stands", cause: "ventilation", sentence };
  }
  const stop = lastOf(now.log, "stopped");
  return {
    type: "permit.stopped-by-itself",
    cause: stop?.cause,
    sentence: `Permit ${number} is stopped: ${stop?.reason}.`,
  };
}

/** Only the state, without the line in the ledger; null where nothing moved. */
export function moveByClock(tx: Tx, number: string, now_ms: number): PermitNow | null {
  const permit = permitNow(tx, number, now_ms);
  if (permit === null || permit.now === permit.life) return null;
  savePermit(tx, permit, permit.now);
  return permit;
}

/** States in which the clock may still move a permit. */
const MOVED_BY_CLOCK: readonly PermitState[] = ["issued", "live", "suspended"];

function runningIn({ permits }: Look): PermitNow[] {
  return permits.filter(({ life }) => MOVED_BY_CLOCK.includes(life.state));
}

/** When time alone will next move one of a look's permits; Infinity when only an act will. */
function nextOf(look: Look): number {
  return Math.min(
    ...runningIn(look).map(({ now, facts }) => nextChange_ms({ permit: now, facts, now_ms: look.at_ms })),
  );
}

/** Settles every permit that the clock may move, each in a transaction of its own. The numbers of those that moved. */
export function settleAll(clock_ms: number, db: Db = database(), headFile = headFilePath()): readonly string[] {
  return inOneGo(settleSteps(clock_ms, db, headFile)).moved;
}

/** What the clock did, and when time alone will next do something; Infinity when only an act will. */
export type Settled = Readonly<{ moved: readonly string[]; next_ms: number }>;

/**
 * The same, bit by bit. What is found is looked at again within the transaction that writes it down, for others act in
 * between.
 */
export function* settleSteps(
  clock_ms: number,
  db: Db = database(),
  headFile = headFilePath(),
): Generator<void, Settled> {
  // Looked at together first: most of the time nothing has moved, and nothing is written.
  // A page's look of just now serves as well, unless by what it found something is due by now.
  const recent = lookOfJustNow(db, clock_ms);
  const isGood = recent !== null && (recent.at_ms === clock_ms || nextOf(recent) > clock_ms);
  const look = isGood ? recent : yield* freshLookSteps(db, clock_ms);
  const next_ms = nextOf(look);
  const moved: string[] = [];
  for (const { now, life } of runningIn(look)) {
    if (now === life) continue;
    yield;
    const { number } = life;
    // Nobody works on under a permit that ran out, whatever has become of the record.
    const head = inLedger(
      db,
      headFile,
      (tx) => {
        const head = settlePermit(tx, number, actTime_ms(tx, clock_ms));
        return { head, value: head };
      },
      true,
    );
    if (head === null) continue;
    announce({ kind: "permit", subject: number, about: aboutOf(db, number) });
    moved.push(number);
  }
  return { moved, next_ms };
}
