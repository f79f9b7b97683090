import { eq, ne, notInArray } from "drizzle-orm";
import { afterClockSet } from "../../core/isolation/clockSet";
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
 * What a clock that was ahead wrote, once it is set right: no row of state says that something happened later than now, what was
 * proved is proved again, and every permit that is not over says so in its log. The ledger keeps what it was told.
 *
 * Cost: linear in the rows of state and in the permits that are not over.
 */
export function setTimesRight(
  tx: Tx,
  { by, now_ms, back_ms, words }: Readonly<{ by: PersonId; now_ms: number; back_ms: number; words: string }>,
): void {
  const standing = loadIsolations(
    tx,
    tx
      .select({ number: isolations.number })
      .from(isolations)
      .where(ne(isolations.state, "restored"))
      .all()
      .map(({ number }) => number),
  );
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
  // Since when it was ahead nobody knows, nor whether an instrument was zeroed and tested in this shift: it is done again.
  tx.update(gear).set({ bumpedAt: null, zeroedAt: null }).run();
  for (const column of columns) column.set(now_ms, right);
  const open = tx
    .select({ number: permits.number })
    .from(permits)
    .where(notInArray(permits.state, [...OVER]))
    .all();
  const said = { back_s: Math.round(back_ms / 1000), words };
  for (const stored of loadPermits(
    tx,
    open.map(({ number }) => number),
  )) {
    savePermit(tx, stored, withClockSet(stored.life, { at_ms: now_ms, by }, said));
  }
}
