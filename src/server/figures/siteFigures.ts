import { and, asc, eq, gte, inArray, sql } from "drizzle-orm";
import { countBy, devicesOf, spreadOf, type Count, type FigureRow, type Spread } from "../../core/figures/figures";
import { afterWatchOf } from "../../core/permit/afterwatch/afterWatchOf";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { deviations, isolations, jobIsolations, jobs, ledger, permitLog, permits } from "../db/schema";
import { alarmsSince } from "../ledger/alarms";
import { loadPermits } from "../permit/permitStore";
import { siteTime } from "../runtime/siteTime";

export type SiteFigures = Readonly<{
  /** Permits whose time ended before they were handed back, by number. */
  ranOver: readonly string[];
  /** Permits that work was done under. */
  worked: number;
  /** Proofs that failed, by what was seen. */
  failedProofs: readonly Count[];
  /** Ways accepted below the rules, by the device that should have held them. */
  deviations: readonly Count[];
  /** Periodic checks after hot work that nobody made, by permit; and how many were due. */
  missedLooks: readonly Count[];
  looks: number;
  /** Stops, by cause. */
  stops: readonly Count[];
  /** Rounds over locks, and points at which one was not found. */
  lockRounds: number;
  locksNotFound: number;
  /** From the request of a job to its first acceptance, in hours. */
  toStart_h: Spread | null;
  /** From an alarm to who sees to it, in minutes; and how many nobody answered. */
  toAnswer_min: Spread | null;
  unanswered: number;
}>;

const HOUR_MS = 3_600_000;
const MINUTE_MS = 60_000;

/** What the record holds of a time that is over. Cost: some ten queries over the rows of that time. */
export function siteFigures(tx: Tx, from_ms: number, now_ms: number): SiteFigures {
  const ranOver = tx
    .select({ number: ledger.subject })
    .from(ledger)
    .where(and(gte(ledger.recordedAt, from_ms), eq(ledger.type, "permit.ran-out")))
    .groupBy(ledger.subject)
    .orderBy(asc(ledger.subject))
    .all()
    .map(({ number }) => number);
  const failed = tx
    .select({ what: sql<string>`json_extract(${ledger.body}, '$.answer.answer.failed')` })
    .from(ledger)
    .where(
      and(
        gte(ledger.recordedAt, from_ms),
        eq(ledger.outcome, "done"),
        inArray(ledger.type, ["step.do", "step.prove-again"]),
        sql`json_extract(${ledger.body}, '$.answer.answer.failed') IS NOT NULL`,
      ),
    )
    .all();
  const rounds = tx
    .select({ missing: sql<number>`json_extract(${ledger.body}, '$.answer.answer.missing')` })
    .from(ledger)
    .where(and(gte(ledger.recordedAt, from_ms), eq(ledger.outcome, "done"), eq(ledger.type, "isolation.check-locks")))
    .all();
  const entries = tx
    .select({ number: permits.number, jobId: permits.jobId, at_ms: permitLog.at, entry: permitLog.entry })
    .from(permitLog)
    .innerJoin(permits, eq(permits.id, permitLog.permitId))
    .where(and(gte(permitLog.at, from_ms), sql`json_extract(${permitLog.entry}, '$.type') IN ('stopped', 'signed')`))
    .orderBy(asc(permitLog.at))
    .all();
  const stops = entries.flatMap(({ entry }) => (entry.type === "stopped" ? [entry.cause] : []));
  const accepted = entries.filter(({ entry }) => entry.type === "signed" && entry.act === "accept");
  const backs = entries.filter(({ entry }) => entry.type === "signed" && entry.act === "hand back");
  const watched = loadPermits(tx, [...new Set(backs.map(({ number }) => number))]).flatMap(({ life }) => {
    const watch = afterWatchOf(life, { timeOf: siteTime }, now_ms);
    return watch === null ? [] : [{ number: life.number, checks: watch.checks }];
  });
  const answered = alarmsSince(tx, from_ms);
  const times = answered.flatMap(({ answered: by, at_ms }) => (by === null ? [] : [(by.at_ms - at_ms) / MINUTE_MS]));
  return {
    ranOver,
    worked: new Set(accepted.map(({ number }) => number)).size,
    failedProofs: countBy(failed, ({ what }) => what),
    deviations: deviationsByDevice(tx, from_ms),
    missedLooks: countBy(
      watched.flatMap(({ number, checks }) => checks.filter(({ missed }) => missed).map(() => number)),
      (number) => number,
    ),
    looks: watched.reduce((sum, { checks }) => sum + checks.length, 0),
    stops: countBy(stops, (cause) => cause),
    lockRounds: rounds.length,
    locksNotFound: rounds.reduce((sum, { missing }) => sum + missing, 0),
    toStart_h: spreadOf(startTimes_h(tx, accepted)),
    toAnswer_min: spreadOf(times),
    unanswered: answered.length - times.length,
  };
}

/** From request to the first acceptance of any permit of the job, where that was in this time. */
function startTimes_h(tx: Tx, accepted: readonly Readonly<{ jobId: string; at_ms: number }>[]): number[] {
  const ids = [...new Set(accepted.map(({ jobId }) => jobId))];
  const first = new Map(
    tx
      .select({ jobId: permits.jobId, at_ms: sql<number>`min(${permitLog.at})` })
      .from(permitLog)
      .innerJoin(permits, eq(permits.id, permitLog.permitId))
      .where(and(isAmong(permits.jobId, ids), sql`json_extract(${permitLog.entry}, '$.act') = 'accept'`))
      .groupBy(permits.jobId)
      .all()
      .map(({ jobId, at_ms }) => [jobId, at_ms]),
  );
  const inTime = new Set(accepted.map(({ jobId, at_ms }) => `${jobId} ${at_ms}`));
  return tx
    .select({ id: jobs.id, askedAt: jobs.askedAt })
    .from(jobs)
    .where(isAmong(jobs.id, ids))
    .all()
    .flatMap(({ id, askedAt }) => {
      const at_ms = first.get(id);
      return at_ms !== undefined && inTime.has(`${id} ${at_ms}`) ? [(at_ms - askedAt) / HOUR_MS] : [];
    });
}

/** Each way counts once for a job, however often its acceptance was renewed. */
function deviationsByDevice(tx: Tx, from_ms: number): Count[] {
  const rows = tx
    .select({ jobId: deviations.jobId, way: deviations.way })
    .from(deviations)
    .where(gte(deviations.acceptedAt, from_ms))
    .groupBy(deviations.jobId, deviations.way)
    .all();
  const plans = new Map(
    tx
      .select({ jobId: jobIsolations.jobId, plan: isolations.plan })
      .from(jobIsolations)
      .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
      .where(isAmong(jobIsolations.jobId, [...new Set(rows.map(({ jobId }) => jobId))]))
      .orderBy(asc(isolations.approvedAt))
      .all()
      .map(({ jobId, plan }) => [jobId, plan]),
  );
  return countBy(rows, ({ jobId, way }) => devicesOf(way, plans.get(jobId) ?? { shortfalls: [], points: [] }));
}

/** The same as rows, for a spreadsheet. */
export function figureRows(of: SiteFigures): FigureRow[] {
  const row = (figure: string, key: string, value: number, unit = ""): FigureRow => ({ figure, of: key, value, unit });
  const counts = (figure: string, all: readonly Count[]) => all.map(({ key, n }) => row(figure, key, n));
  const spread = (figure: string, unit: string, all: Spread | null) =>
    all === null
      ? []
      : (["n", "quarter", "half", "threeQuarters", "most"] as const).map((part) =>
          row(figure, SPREAD_WORDS[part], Math.round(all[part] * 100) / 100, part === "n" ? "" : unit),
        );
  return [
    row("permits worked under", "", of.worked),
    row("permits that expired before they were handed back", "", of.ranOver.length),
    ...of.ranOver.map((number) => row("expired", number, 1)),
    ...counts("failed proofs", of.failedProofs),
    ...counts("deviations by device", of.deviations),
    row("periodic checks due", "", of.looks),
    ...counts("periodic checks missed", of.missedLooks),
    ...counts("stops by cause", of.stops),
    row("rounds over locks", "", of.lockRounds),
    row("locks not found", "", of.locksNotFound),
    ...spread("request to start", "h", of.toStart_h),
    ...spread("alarm to answer", "min", of.toAnswer_min),
    row("alarms that nobody answered", "", of.unanswered),
  ];
}

const SPREAD_WORDS = {
  n: "number",
  quarter: "a quarter by",
  half: "half by",
  threeQuarters: "three quarters by",
  most: "longest",
} as const;
