import { asc, desc, eq, getTableColumns, sql } from "drizzle-orm";
import { z } from "zod";
import { lockCheckDue_ms } from "../../core/isolation/lockCheck";
import { reviewDue_ms, type Review } from "../../core/isolation/review";
import { logEntrySchema } from "../../core/permit/record/logSchema";
import type { PermitLife } from "../../core/permit/record/permitTypes";
import { profileOf } from "../../core/requirement/profiles";
import { isAmong } from "../db/isAmong";
import type { Db, Tx } from "../db/database";
import { isolationReviews, isolations, jobIsolations, permits } from "../db/schema";
import { openPermits } from "../permit/openPermits";
import { lifeOf } from "../permit/permitStore";
import { grouped } from "../runtime/grouped";

/** What a job's screens and the board ask alike. */

export type ReviewView = Readonly<{
  since_ms: number;
  due_ms: number;
  overdue: boolean;
  most_h: number;
  reviews: readonly (Review & Readonly<{ by: string }>)[];
}>;

export type Standing = Omit<typeof isolations.$inferSelect, "plan" | "inputs" | "engineVersion">;

/** The latest isolation of each job, without its plan. Cost: one query. */
export function standingIsolations(db: Tx, jobIds: readonly string[]): ReadonlyMap<string, Standing> {
  return new Map(
    db
      .select({
        jobId: jobIsolations.jobId,
        id: isolations.id,
        number: isolations.number,
        state: isolations.state,
        plantRevision: isolations.plantRevision,
        ruleProfile: isolations.ruleProfile,
        approvedBy: isolations.approvedBy,
        approvedAt: isolations.approvedAt,
        verdict: isolations.verdict,
        lockCheck: isolations.lockCheck,
      })
      .from(jobIsolations)
      .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
      .where(isAmong(jobIsolations.jobId, jobIds))
      .orderBy(asc(isolations.approvedAt), asc(isolations.number))
      .all()
      .map(({ jobId, ...isolation }) => [jobId, isolation]),
  );
}

type JobPermit = Readonly<{ life: PermitLife; words: string }>;

/** Of the log of a permit that is over what its job asks: that it was handed back, and what was left to do. */
const AT_END = sql`(
  SELECT json_group_array(json(l.entry_json)) FROM permit_log l
  WHERE l.permit_id = permits.id AND (json_extract(l.entry_json, '$.type') = 'left to do'
    OR json_extract(l.entry_json, '$.act') = 'hand back')
)`.mapWith((text: string) => z.array(logEntrySchema).parse(JSON.parse(text)));

/** The permits of jobs as they stand now, each job's in the order of their numbers. Of those that are over nobody is on. */
export function permitsOf(db: Db, jobIds: readonly string[], now_ms: number): (jobId: string) => readonly JobPermit[] {
  const open = new Map(openPermits(db, now_ms).map((one) => [one.row.id, one.now]));
  const rows = db
    .select({ ...getTableColumns(permits), atEnd: AT_END })
    .from(permits)
    .where(isAmong(permits.jobId, jobIds))
    .orderBy(asc(permits.number))
    .all();
  const ofJob = grouped(rows, ({ jobId }) => jobId);
  return (jobId) =>
    ofJob(jobId).map((row) => ({ words: row.words, life: open.get(row.id) ?? lifeOf(row, [], row.atEnd) }));
}

/** When the locks of an isolation that stands are read again, in ms; null where nobody counts on it. */
export function locksDueOf({ state, approvedAt, lockCheck, ruleProfile }: Standing): number | null {
  const { lockCheckEvery_h } = profileOf(ruleProfile);
  return lockCheckDue_ms({ state, approved_ms: approvedAt, check: lockCheck }, lockCheckEvery_h);
}

export function reviewOf(
  standing: Standing,
  looks: readonly (typeof isolationReviews.$inferSelect)[],
  now_ms: number,
  nameOf: (id: string) => string,
): ReviewView | null {
  const reviews = looks.map((row) => ({
    at_ms: row.reviewedAt,
    next_ms: row.nextAt,
    reason: row.reason,
    by: nameOf(row.reviewedBy),
  }));
  const most_h = profileOf(standing.ruleProfile).reviewEvery_h;
  const isolation = { approved_ms: standing.approvedAt, isRestored: standing.state === "restored" };
  const due_ms = reviewDue_ms(isolation, reviews, most_h * 3600);
  return due_ms === null ? null : { since_ms: standing.approvedAt, due_ms, overdue: now_ms >= due_ms, most_h, reviews };
}

/** The looks at isolations that stay, the last first. Cost: one query. */
export function looksAt(db: Tx, isolationIds: readonly string[]) {
  return grouped(
    isolationIds.length === 0
      ? []
      : db
          .select()
          .from(isolationReviews)
          .where(isAmong(isolationReviews.isolationId, isolationIds))
          .orderBy(desc(isolationReviews.reviewedAt))
          .all(),
    ({ isolationId }) => isolationId,
  );
}
