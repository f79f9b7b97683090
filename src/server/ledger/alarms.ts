import { and, asc, eq, gt } from "drizzle-orm";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { ledger } from "../db/schema";

/** Rows of the ledger that everybody is told of at once, whoever wrote them and whichever screen is open. */
const ALARM_TYPES: readonly string[] = ["permit.stop", "permit.stopped-by-itself", "permit.ran-out"];

/** A screen that slept for days is told of this many; each is on the permits' own pages as well. */
const MOST = 50;

export type Alarm = Readonly<{ seq: number; subject: string }>;

/**
 * What happened after a row of the ledger that is an alarm, oldest first. Screens that were hidden, or whose network was
 * away, ask from the row they last heard of, so that none is missed. Cost: one look-up by the ledger's key.
 */
export function alarmsAfter(tx: Tx, seq: number): Alarm[] {
  return tx
    .select({ seq: ledger.seq, subject: ledger.subject })
    .from(ledger)
    .where(and(gt(ledger.seq, seq), eq(ledger.outcome, "done"), isAmong(ledger.type, [...ALARM_TYPES])))
    .orderBy(asc(ledger.seq))
    .all()
    .slice(-MOST);
}
