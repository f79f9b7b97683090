import type { TestSite } from "./testSite";

/** What the tables of a site say, asked past the code that wrote them. */
export const jobIdOf = (site: TestSite, isolation: string) =>
  site.db.$client
    .prepare("SELECT job_id FROM job_isolations ji JOIN isolations i ON i.id = ji.isolation_id WHERE i.number = ?")
    .pluck()
    .get(isolation) as string;
export const peopleEver = (site: TestSite, isolation: string) =>
  site.db.$client
    .prepare(
      `SELECT count(DISTINCT person_id) FROM personal_locks pl JOIN permit_isolations pi ON pi.permit_id = pl.permit_id
       JOIN isolations i ON i.id = pi.isolation_id WHERE i.number = ?`,
    )
    .pluck()
    .get(isolation) as number;
export const peopleOnNow = (site: TestSite, isolation: string) =>
  site.db.$client
    .prepare(
      `SELECT DISTINCT person_id FROM personal_locks pl JOIN box_isolations bi ON bi.box_id = pl.box_id
       JOIN isolations i ON i.id = bi.isolation_id WHERE i.number = ? AND pl.off_at_ms IS NULL ORDER BY 1`,
    )
    .pluck()
    .all(isolation) as string[];
export const locksOnBox = (site: TestSite, box: string) =>
  site.db.$client
    .prepare(
      `SELECT (SELECT count(*) FROM personal_locks WHERE box_id = b.id AND off_at_ms IS NULL)
            + (SELECT count(*) FROM standing_locks WHERE box_id = b.id AND off_at_ms IS NULL)
       FROM lock_boxes b WHERE number = ?`,
    )
    .pluck()
    .get(box) as number;
export type Held = { isolation: string; tag: string; lock: string; people: number };
export const heldNow = (site: TestSite) =>
  site.db.$client
    .prepare(
      `SELECT i.number isolation, it.tag, h.lock,
         (SELECT count(*) FROM personal_locks pl JOIN box_isolations bi ON bi.box_id = pl.box_id
          WHERE bi.isolation_id = h.isolation_id AND pl.off_at_ms IS NULL) people
       FROM holds h JOIN isolations i ON i.id = h.isolation_id JOIN items it ON it.id = h.item_id
       WHERE h.lifted_at_ms IS NULL`,
    )
    .all() as Held[];
