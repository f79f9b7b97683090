import { randomUUID } from "node:crypto";
import { planFault, unjudged, verdictOf, type Verdict } from "../../core/isolation/heldNow";
import type { OnNewPlant } from "../../core/plan/onNewPlant";
import { notHeldClause } from "../../core/words/en/notHeld";
import type { PlantKey } from "../../workers/plantFrom";
import { database, type Db, type Tx } from "../db/database";
import { appendToLedger, inLedger } from "../ledger/append";
import { headFilePath, type LedgerHead } from "../ledger/headFile";
import { CLOCK } from "../ledger/nobody";
import { aboutOf } from "../ledger/aboutOf";
import { plantKey } from "../plant/plantStore";
import { actTime_ms, now_ms } from "../runtime/clock";
import { announce } from "../runtime/events";
import { Busy, heavy } from "../runtime/workers";
import { revisionToday, saveVerdict, toJudge, type ToJudge } from "./verdictStore";

/** How isolations that stand fare on a register that is not the one they were planned on. */

/** In one task, so that none outlasts its time. */
const AT_ONCE = 16;
/** An import does not wait longer: what is not judged by then counts as fallen until it is. */
const WITHIN_MS = 60_000;

/** By name of what was judged; what was not judged in time is not among them. */
export type Judged = ReadonlyMap<string, OnNewPlant>;

/** Judges them in other threads, on a register that may only be staged yet. */
export async function judgeAll(
  db: Db,
  all: readonly ToJudge[],
  after: PlantKey,
  within_ms = WITHIN_MS,
): Promise<Judged> {
  const found = new Map<string, OnNewPlant>();
  const until_ms = performance.now() + within_ms;
  const file = db.$client.name;
  for (let from = 0; from < all.length && performance.now() < until_ms; from += AT_ONCE) {
    const some = all.slice(from, from + AT_ONCE);
    const given = some.map(({ isolation, job, planned, held }) => ({
      isolation,
      job,
      held,
      before: plantKey(db, file, planned),
      after,
    }));
    try {
      const judged = await heavy("judge standing", given);
      some.forEach(({ name }, i) => found.set(name, judged[i]!));
    } catch (error) {
      if (!(error instanceof Busy)) throw error;
    }
  }
  return found;
}

/** Before an import: everything that stands, judged on the register that is about to come. */
export function judgeBefore(db: Db, after: PlantKey): Promise<Judged> {
  return judgeAll(db, toJudge(db, revisionToday(db) + 1), after);
}

/**
 * Writes down, within the transaction, what each of them has come to on today's register, with a row in the ledger each:
 * those that hold are pinned to it, those that fell or were not judged as they are now are counted on by nobody. The numbers
 * of all isolations written down and of those that do not hold, and the ledger's head.
 */
export function writeVerdicts(
  tx: Tx,
  judged: Judged,
  now_ms: number,
  keepUnjudged = true,
): Readonly<{ written: readonly string[]; fallen: readonly string[]; head: LedgerHead | null }> {
  const today = revisionToday(tx);
  const written: string[] = [];
  const fallen: string[] = [];
  let head: LedgerHead | null = null;
  for (const one of toJudge(tx, today)) {
    const found = judged.get(one.name);
    if (found === undefined && !keepUnjudged) continue;
    const verdict = found === undefined ? unjudged(today) : verdictOf(today, found);
    saveVerdict(tx, one.id, verdict);
    head = recordVerdict(tx, one, verdict, now_ms);
    written.push(one.isolation);
    if (faultOf(one, verdict) !== null) fallen.push(one.isolation);
  }
  return { written, fallen, head };
}

const faultOf = ({ isolation, planned }: ToJudge, verdict: Verdict) =>
  planFault({ number: isolation, planned, today: verdict.revision, verdict });

function recordVerdict(tx: Tx, one: ToJudge, verdict: Verdict, at_ms: number): LedgerHead {
  const { isolation, planned } = one;
  const fault = faultOf(one, verdict);
  const did =
    fault === null
      ? `On revision ${verdict.revision} of the plant register ${isolation} holds as approved.`
      : sentence(notHeldClause(fault));
  return appendToLedger(tx, {
    actId: randomUUID(),
    type: fault === null ? "isolation.holds" : fault.code === "plan fell" ? "isolation.fell" : "isolation.unjudged",
    outcome: "done",
    by: CLOCK,
    subject: isolation,
    doneAt_ms: at_ms,
    recordedAt_ms: at_ms,
    transcribedBy: null,
    corrects: null,
    input: { isolation, planned, verdict },
    answer: { ok: true, answer: { isolation, revision: verdict.revision, did } },
  });
}

const sentence = (clause: string) => `${clause.charAt(0).toUpperCase()}${clause.slice(1)}.`;

/**
 * Judges what stands on another register than today's and was not judged in time: after an upgrade, or where it changed
 * while a register came in.
 */
export async function judgePending(clock_ms = now_ms(), db: Db = database(), headFile = headFilePath()): Promise<void> {
  const today = revisionToday(db);
  const all = toJudge(db, today);
  if (all.length === 0) return;
  const judged = await judgeAll(db, all, plantKey(db, db.$client.name, today));
  const written = inLedger(
    db,
    headFile,
    (tx) => {
      const found = revisionToday(tx) === today ? judged : new Map();
      const { written, head } = writeVerdicts(tx, found, actTime_ms(tx, clock_ms), false);
      return { head, value: written };
    },
    true,
  );
  for (const number of written) announce({ kind: "act", subject: number, about: aboutOf(db, number) });
}
