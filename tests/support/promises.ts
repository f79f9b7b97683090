import { notInArray } from "drizzle-orm";
import { checkBox } from "../../src/core/box/boxLife";
import type { IsolationLife } from "../../src/core/isolation/isolation";
import { checkIsolation } from "../../src/core/isolation/isolationLife";
import { asksOf } from "../../src/core/isolation/stepAsks";
import { checkPermit } from "../../src/core/permit/life/checkPermit";
import { check } from "../../src/core/plan/check";
import { loadBox } from "../../src/server/box/boxStore";
import { gear, holds, lockBoxes, permits, personalLocks, standingLocks } from "../../src/server/db/schema";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { liveJobs } from "../../src/server/isolation/liveJobs";
import { permitNow } from "../../src/server/permit/permitFacts";
import { plantAt } from "../../src/server/plant/plantStore";
import { heldNow, type Held } from "./siteRows";
import type { TestSite } from "./testSite";

/** State but for what the clock ends: a refused act changes none of it. */
export const withoutClock = (rows: readonly string[]) => rows.filter((row) => !/^permit(s|_log) /.test(row));

/** Rows that make up an isolation, as they lie in the tables. */
const ISOLATION_ROWS = [
  "SELECT * FROM isolations WHERE id = ?",
  "SELECT * FROM steps WHERE isolation_id = ?",
  "SELECT * FROM holds WHERE isolation_id = ?",
  "SELECT * FROM earths_on WHERE isolation_id = ?",
  "SELECT ji.*, j.* FROM job_isolations ji JOIN jobs j ON j.id = ji.job_id WHERE ji.isolation_id = ?",
];

/** Remembers isolations as they lay when they were last asked for: what did not change is not read again. */
export class Watched {
  readonly #seen = new Map<string, string>();

  constructor(readonly site: TestSite) {}

  /** Isolations that changed since this was last asked. */
  changed(): IsolationLife[] {
    const { $client } = this.site.db;
    const all = $client.prepare("SELECT id, number FROM isolations").all() as { id: string; number: string }[];
    return all.flatMap(({ id, number }) => {
      const lies = JSON.stringify(ISOLATION_ROWS.map((text) => $client.prepare(text).raw().all(id)));
      if (this.#seen.get(number) === lies) return [];
      this.#seen.set(number, lies);
      return [loadIsolation(this.site.db, number)!.life];
    });
  }
}

/** The promises, asked of the tables as they are now; of isolations, those that are named. */
export function expectPromises(site: TestSite, before: readonly Held[], changed: readonly IsolationLife[]): void {
  const { db } = site;
  const now = heldNow(site);
  // Never a point unlocked while a personal lock hangs on its box.
  for (const was of before) {
    const stays = now.some((hold) => hold.isolation === was.isolation && hold.tag === was.tag);
    if (!stays) expect({ unlocked: was.tag, people: was.people }).toEqual({ unlocked: was.tag, people: 0 });
  }
  // Never a face lit while someone is signed on: the engine is asked with what really hangs, on the register of which the plan
  // was made. A newer one that knows more than was known takes nobody's lock off: it stops their work (checked of a whole day).
  const isolated = [...new Set(now.map(({ tag }) => tag))];
  for (const { job, people, plantRevision } of liveJobs(db)) {
    if (people.length === 0) continue;
    const made = check(plantAt(db, plantRevision).graph, { ...job, isolated });
    expect({ people, lit: made.ok ? made.value.lit : made.problems }).toEqual({ people, lit: [] });
  }
  // Never a key both in a box and in a hand: it is in one place, and in the box while that is closed.
  for (const hold of db.select().from(holds).all()) {
    expect(hold.keyAt === "gone").toBe(hold.liftedAt !== null);
  }
  for (const { number } of db.select().from(lockBoxes).all()) checkBox(loadBox(db, { number })!.life);
  // Every lock hangs once, and every personal lock has one owner: who hung it.
  const own = db
    .select()
    .from(personalLocks)
    .all()
    .filter(({ offAt }) => offAt === null);
  const standing = db
    .select()
    .from(standingLocks)
    .all()
    .filter(({ offAt }) => offAt === null);
  const hanging = [...now.map(({ lock }) => lock), ...own.map(({ lock }) => lock), ...standing.map(({ lock }) => lock)];
  expect(new Set(hanging).size).toBe(hanging.length);
  const register = db.select().from(gear).all();
  for (const { lock, personId } of own) {
    const owners = register.filter(({ kind, number }) => kind === "lock" && number === lock.toUpperCase());
    expect(owners.map(({ ownerId }) => ownerId)).toEqual([personId]);
  }
  // No permit is active over an isolation that is not proven, or of which a lock was not found.
  const under = db.$client.prepare(
    `SELECT p.number permit, i.state, coalesce(json_extract(i.lock_check_json, '$.faults'), '[]') faults
     FROM permits p JOIN permit_isolations pi ON pi.permit_id = p.id JOIN isolations i ON i.id = pi.isolation_id
     WHERE p.state = 'live'`,
  );
  for (const { permit, state, faults } of under.all() as { permit: string; state: string; faults: string }[]) {
    expect({ permit, state, faults }).toEqual({ permit, state: "proven", faults: "[]" });
  }
  // Nothing is proved by an instrument that has no number, where a figure is asked of one.
  for (const life of changed) {
    for (const step of life.steps) {
      const asked = step.kind === "prove" ? (asksOf(step).reading?.instrument ?? null) : null;
      if (asked !== null && step.done && !step.done.skipped) expect(step.done.evidence?.instrument ?? "").not.toBe("");
    }
  }
  for (const life of changed) checkIsolation(life);
  // What is over stays as it was.
  const open = db
    .select()
    .from(permits)
    .where(notInArray(permits.state, ["closed", "cancelled"]))
    .all();
  for (const { number } of open) {
    const { now, facts } = permitNow(db, number, site.clock_ms)!;
    checkPermit(now, facts, site.clock_ms);
  }
}
