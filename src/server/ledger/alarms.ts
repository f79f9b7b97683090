import { and, asc, eq, gt, gte, or, sql, type SQL } from "drizzle-orm";
import { SEES_TO_IT, type Alarm } from "../../core/alarm/alarm";
import type { PersonId } from "../../core/people/roles";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { ledger } from "../db/schema";
import { whileUnchanged } from "../db/whileUnchanged";

/** Rows of the ledger that everybody is told of at once, whoever wrote them and whichever screen is open. */
const ALARM_TYPES: readonly string[] = ["permit.stop", "permit.stopped-by-itself", "permit.ran-out"];
/**
 * Acts that may stop the work by what they say (`MAY_STOP` of core/permit/acts/stopped): a bad reading, a blower that stands, a
 * fire, an audit, a conflict in which it waits. Where one did its answer says so, and it is an alarm like any other stop.
 */
const MAY_STOP: readonly string[] = [
  "permit.read-air",
  "permit.enter-paper-reading",
  "permit.end-ventilation",
  "permit.report-fire",
  "permit.audit",
  "permit.decide-clash",
];
const stopped = sql`json_extract(${ledger.body}, '$.answer.answer.stopped')`;
const isAlarm = or(
  isAmong(ledger.type, [...ALARM_TYPES]),
  and(isAmong(ledger.type, [...MAY_STOP]), sql`${stopped} IS NOT NULL`),
);
export const ANSWER = "alarm.answer";

/** A screen that slept for days is told of this many; each is on the permits' own pages as well. */
const MOST = 50;
/** So far back an alarm still stands on the screens; the permit itself says that it is stopped for ever. */
const STANDS_MS = 7 * 86_400_000;

export type Told = Readonly<{ seq: number; subject: string }>;

/**
 * What happened after a row of the ledger that is an alarm, oldest first. Screens that were hidden, or whose network was
 * away, ask from the row they last heard of, so that none is missed. Cost: one look-up by the ledger's key.
 */
export function alarmsAfter(tx: Tx, seq: number): Told[] {
  return tx
    .select({ seq: ledger.seq, subject: ledger.subject })
    .from(ledger)
    .where(and(gt(ledger.seq, seq), eq(ledger.outcome, "done"), isAlarm))
    .orderBy(asc(ledger.seq))
    .all()
    .slice(-MOST);
}

/**
 * Alarms of the ledger's last week, oldest first, each with who answered it first: by saying so, or by what they did about it.
 * Cost: one query over the rows of a week, by index, when something changed; every open screen asks.
 */
export const recentAlarms = whileUnchanged((tx: Tx) =>
  alarmsSince(tx, sql`(SELECT max(recorded_at_ms) FROM ledger) - ${STANDS_MS}`),
);

/** The same from some moment on. */
export function alarmsSince(tx: Tx, from_ms: number | SQL): readonly Alarm[] {
  const found = new Map<number, Alarm>();
  const rows = tx
    .select({
      seq: ledger.seq,
      type: ledger.type,
      subject: ledger.subject,
      at_ms: ledger.recordedAt,
      by: ledger.byPerson,
      stopped: sql<string | null>`${stopped}`,
      alarm: sql<number | null>`json_extract(${ledger.body}, '$.answer.answer.alarm')`,
    })
    .from(ledger)
    .where(
      and(
        gte(ledger.recordedAt, from_ms),
        eq(ledger.outcome, "done"),
        or(isAlarm, isAmong(ledger.type, [...SEES_TO_IT, ANSWER])),
      ),
    )
    .orderBy(asc(ledger.seq))
    .all();
  for (const { seq, type, subject, at_ms, by, alarm, stopped: cause } of rows) {
    if (ALARM_TYPES.includes(type) || (MAY_STOP.includes(type) && cause !== null)) {
      found.set(seq, { seq, subject, at_ms, answered: null });
      continue;
    }
    const answered = { by: by as PersonId, at_ms };
    for (const one of found.values()) {
      const isMeant = type === ANSWER ? one.seq === alarm : one.subject === subject;
      if (isMeant && one.answered === null) found.set(one.seq, { ...one, answered });
    }
  }
  return [...found.values()];
}

export function alarmAt(tx: Tx, seq: number): Alarm | null {
  return recentAlarms(tx).find((alarm) => alarm.seq === seq) ?? null;
}
