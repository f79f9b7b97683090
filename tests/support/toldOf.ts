import { alarmsSince } from "../../src/server/ledger/alarms";
import type { TestSite } from "./testSite";

/**
 * The record tells of every permit what the table says of it: the board's picture and the alarms are read from rows of the
 * ledger, so whatever moves a permit has a row of its own, and whatever stops one is an alarm.
 */
export function expectTold(site: TestSite): void {
  const untold = site.db.$client
    .prepare(
      // Of a draft that nobody did anything with nothing is told.
      `SELECT p.number, p.state, coalesce((
         SELECT json_extract(l.body, '$.answer.answer.state') FROM ledger l
         WHERE l.subject = p.number AND l.outcome = 'done' AND json_extract(l.body, '$.answer.answer.state') IS NOT NULL
         ORDER BY l.seq DESC LIMIT 1), 'draft') told
       FROM permits p WHERE told IS NOT p.state`,
    )
    .all();
  expect(untold).toEqual([]);
  const stops = site.db.$client
    .prepare(
      `SELECT p.number,
         (SELECT count(*) FROM permit_log g WHERE g.permit_id = p.id AND json_extract(g.entry_json, '$.type') = 'stopped') stops
       FROM permits p WHERE stops > 0`,
    )
    .all() as { number: string; stops: number }[];
  const alarms = alarmsSince(site.db, 0);
  const silent = stops.filter(({ number, stops }) => stops > alarms.filter(({ subject }) => subject === number).length);
  expect(silent).toEqual([]);
}
