import type { TestSite } from "../testSite";

export type JobRow = Readonly<{
  job: string;
  jobId: string;
  holder: string;
  isolation: string | null;
  box: string | null;
}>;
export type PermitRow = Readonly<{ permit: string; state: string; kind: string; validTo_ms: number }>;

/** The newest job at a place that is still open, with its isolation and its box. */
export function jobAt(site: TestSite, place: string): JobRow | null {
  const row = site.db.$client
    .prepare(
      `SELECT j.number job, j.id jobId, j.holder_id holder, i.number isolation, b.number box
       FROM jobs j
       LEFT JOIN job_isolations ji ON ji.job_id = j.id
       LEFT JOIN isolations i ON i.id = ji.isolation_id
       LEFT JOIN box_isolations bi ON bi.isolation_id = i.id
       LEFT JOIN lock_boxes b ON b.id = bi.box_id
       WHERE j.state = 'open' AND json_extract(j.job_json, '$.faces[0].place') = ?
       ORDER BY j.number DESC, i.number DESC LIMIT 1`,
    )
    .get(place) as JobRow | undefined;
  return row ?? null;
}

/** Permits of a job that are not over, oldest first. */
export const permitsOf = (site: TestSite, jobId: string) =>
  site.db.$client
    .prepare(
      `SELECT number permit, state, kind, valid_to_ms validTo_ms FROM permits
       WHERE job_id = ? AND state NOT IN ('closed', 'cancelled') ORDER BY number`,
    )
    .all(jobId) as PermitRow[];

export const isOver = (site: TestSite, jobId: string) =>
  site.db.$client
    .prepare("SELECT count(*) FROM permits WHERE job_id = ? AND state = 'closed'")
    .pluck()
    .get(jobId) as number;

export const acceptedBelow = (site: TestSite, jobId: string) =>
  site.db.$client.prepare("SELECT count(*) FROM deviations WHERE job_id = ?").pluck().get(jobId) as number;

/** Who is on under a permit. */
export const onPermit = (site: TestSite, permit: string) =>
  site.db.$client
    .prepare(
      `SELECT person_id FROM personal_locks pl JOIN permits p ON p.id = pl.permit_id
       WHERE p.number = ? AND off_at_ms IS NULL ORDER BY 1`,
    )
    .pluck()
    .all(permit) as string[];

export const standingOn = (site: TestSite, box: string) =>
  site.db.$client
    .prepare(
      `SELECT lock, role, person_id person FROM standing_locks s JOIN lock_boxes b ON b.id = s.box_id
       WHERE b.number = ? AND off_at_ms IS NULL ORDER BY 1`,
    )
    .all(box) as { lock: string; role: string; person: string }[];

export const revisionNow = (site: TestSite) =>
  site.db.$client.prepare("SELECT max(revision) FROM plant_revisions").pluck().get() as number;

/** Temporary de-isolations of an isolation that are not over. */
export const testsOf = (site: TestSite, isolation: string) =>
  site.db.$client
    .prepare(
      `SELECT t.number test, t.state FROM temporary_restores t JOIN isolations i ON i.id = t.isolation_id
       WHERE i.number = ? AND t.state IN ('asked', 'running') ORDER BY 1`,
    )
    .all(isolation) as { test: string; state: string }[];
