import { eq, ne } from "drizzle-orm";
import { isNoneOf } from "../db/isAmong";
import { afterClockJumped, afterClockSet } from "../../core/isolation/clockSet";
import { rightTimes } from "../../core/ledger/rightTimes";
import type { PersonId } from "../../core/people/roles";
import { withClockSet } from "../../core/permit/record/clockSet";
import type { Tx } from "../db/database";
import { gear, isolations, permits } from "../db/schema";
import { happenedColumns } from "../db/happened";
import { loadIsolations, saveStepTimes } from "../isolation/isolationStore";
import { loadPermits, savePermit } from "./permitStore";

const OVER = ["closed", "cancelled"] as const;

/**
 * What was timed by a clock that then jumped ahead, or was set back so long after the last act that nothing is dated later: waits
 * and watches are counted anew, proofs and air are done anew, and every permit that is not over says so in its log.
 *
 * Cost: that of setTimesRight.
 */
export function countTimesAnew(
  tx: Tx,
  { now_ms, by_ms, words }: Readonly<{ now_ms: number; by_ms: number; words: string }>,
): void {
  for (const { row, life } of standingIsolations(tx)) {
    for (const step of life.steps) {
      const now = afterClockJumped(step, now_ms);
      if (now !== step) saveStepTimes(tx, row.id, now);
    }
  }
  gearAnew(tx);
  toldToPermits(tx, { at_ms: now_ms, by: null }, { back_s: -Math.round(by_ms / 1000), words });
}

/**
 * What a clock that was ahead wrote, once it is set right: no row of state says that something happened later than now, what was
 * proved is proved again, and every permit that is not over says so in its log. The ledger keeps what it was told.
 *
 * Cost: linear in the rows of state and in the permits that are not over.
 */
export function setTimesRight(
  tx: Tx,
  { by, now_ms, back_ms, words }: Readonly<{ by: PersonId; now_ms: number; back_ms: number; words: string }>,
): void {
  const standing = standingIsolations(tx);
  const columns = happenedColumns(tx);
  const stepTimes = standing.flatMap(({ life }) =>
    life.steps.flatMap(({ done, begun, stuck, failures = [] }) =>
      [done, begun, stuck, ...failures].flatMap((one) => (one ? [one.at_ms] : [])),
    ),
  );
  const right = rightTimes([...stepTimes, ...columns.flatMap((column) => column.laterThan(now_ms))], now_ms);
  for (const { row, life } of standing) {
    for (const step of life.steps) {
      const now = afterClockSet(step, right);
      if (now !== step) saveStepTimes(tx, row.id, now);
    }
    const { lockCheck } = row;
    if (lockCheck === null) continue;
    const right_ms = lockCheck.right_ms === null ? null : right(lockCheck.right_ms);
    const crew = lockCheck.crew.map((one) => ({ ...one, at_ms: right(one.at_ms) }));
    const read = { ...lockCheck, checked_ms: right(lockCheck.checked_ms), right_ms, crew };
    tx.update(isolations).set({ lockCheck: read }).where(eq(isolations.id, row.id)).run();
  }
  gearAnew(tx);
  for (const column of columns) column.set(now_ms, right);
  toldToPermits(tx, { at_ms: now_ms, by }, { back_s: Math.round(back_ms / 1000), words });
}

function standingIsolations(tx: Tx) {
  const standing = tx
    .select({ number: isolations.number })
    .from(isolations)
    .where(ne(isolations.state, "restored"))
    .all();
  return loadIsolations(
    tx,
    standing.map(({ number }) => number),
  );
}

/** Since when it was wrong nobody knows, nor whether an instrument was zeroed and tested in this shift: it is done again. */
function gearAnew(tx: Tx): void {
  tx.update(gear).set({ bumpedAt: null, zeroedAt: null }).run();
}

function toldToPermits(
  tx: Tx,
  stamp: Parameters<typeof withClockSet>[1],
  said: Parameters<typeof withClockSet>[2],
): void {
  const open = tx.select({ number: permits.number }).from(permits).where(isNoneOf(permits.state, OVER)).all();
  for (const stored of loadPermits(
    tx,
    open.map(({ number }) => number),
  )) {
    savePermit(tx, stored, withClockSet(stored.life, stamp, said));
  }
}
