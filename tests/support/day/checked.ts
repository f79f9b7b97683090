import type { IsolationLife } from "../../../src/core/isolation/isolation";
import { check } from "../../../src/core/plan/check";
import { jobSchema } from "../../../src/core/request/jobFile";
import { stateTables } from "../../../src/server/db/stateRows";
import { currentPlant } from "../../../src/server/plant/plantStore";
import { expectTold } from "../toldOf";
import { expectPromises } from "../promises";
import { heldNow, type Held } from "../siteRows";
import type { TestSite } from "../testSite";

/**
 * The promises of a whole day, asked of the tables and of the engine after every act, done or refused: those of the locks, and
 *
 * - no permit is live unless its own locks hold every way as asked, on the register of today, or as somebody accepted until later;
 * - no point is put back while another isolation's lock hangs there;
 * - no time before its cause, and none later than now;
 * - the record tells of every permit what the table says of it, and whatever stops one is an alarm.
 */
export function checkedPromises(site: TestSite, before: readonly Held[], changed: readonly IsolationLife[]): void {
  expectPromises(site, before, changed);
  expectLiveIsHeld(site);
  expectSharedStays(site, changed);
  expectTimes(site, changed);
  expectTold(site);
}

type Live = Readonly<{ permit: string; job: string; jobId: string; isolation: string }>;

function expectLiveIsHeld(site: TestSite): void {
  const { graph } = currentPlant(site.db)!;
  const live = site.db.$client
    .prepare(
      `SELECT p.number permit, j.job_json job, j.id jobId, i.number isolation FROM permits p
       JOIN jobs j ON j.id = p.job_id JOIN permit_isolations pi ON pi.permit_id = p.id
       JOIN isolations i ON i.id = pi.isolation_id WHERE p.state = 'live'`,
    )
    .all() as Live[];
  const held = heldNow(site);
  for (const { permit, job, jobId, isolation } of live) {
    const isolated = held.flatMap((one) => (one.isolation === isolation ? [one.tag] : []));
    const made = check(graph, { ...jobSchema.parse(JSON.parse(job)), isolated });
    if (!made.ok) throw new Error(`${permit} is live, and ${made.problems[0]?.message}`);
    const accepted = new Set(
      site.db.$client
        .prepare("SELECT way FROM deviations WHERE job_id = ? AND until_ms > ?")
        .pluck()
        .all(jobId, site.clock_ms) as string[],
    );
    const short = made.value.routes.filter(
      (route) => !route.held && !accepted.has(`${route.source} ${route.carrier} ${route.face}`),
    );
    expect({ permit, lit: made.value.lit, short }).toEqual({ permit, lit: [], short: [] });
  }
}

function expectSharedStays(site: TestSite, changed: readonly IsolationLife[]): void {
  const held = heldNow(site);
  for (const { number, ...life } of changed) {
    if (life.state !== "restoring" && life.state !== "testing") continue;
    for (const step of life.steps) {
      if (!step.done || step.done.skipped || step.kind !== "unlock" || step.phase !== "restore") continue;
      // Hung before this one's lock came off, and hanging still: then the device stayed as it was.
      const others = site.db.$client
        .prepare(
          `SELECT i.number FROM holds h JOIN isolations i ON i.id = h.isolation_id JOIN items t ON t.id = h.item_id
           WHERE t.tag = ? AND i.number <> ? AND h.lifted_at_ms IS NULL AND h.locked_at_ms < ?`,
        )
        .pluck()
        .all(step.subject, number, step.done.at_ms) as string[];
      const stays = step.done.evidence?.stays ?? [];
      for (const other of others)
        expect({ number, step: step.subject, stays }).toMatchObject({
          stays: expect.arrayContaining([other]) as unknown,
        });
      if (others.length > 0) expect(held.some(({ tag }) => tag === step.subject)).toBe(true);
    }
  }
}

function expectTimes(site: TestSite, changed: readonly IsolationLife[]): void {
  const { $client } = site.db;
  // Done before it was asked for, written down before it was done, or out of the order of the ledger.
  const odd = $client
    .prepare(
      `SELECT a.seq FROM ledger a LEFT JOIN ledger b ON b.seq = a.seq - 1
       WHERE a.done_at_ms > a.recorded_at_ms OR (a.recorded_at_ms < b.recorded_at_ms AND a.type <> 'clock.settle')`,
    )
    .pluck()
    .all();
  expect(odd).toEqual([]);
  const now_ms = Math.max(
    site.clock_ms,
    Number($client.prepare("SELECT recorded_at_ms FROM ledger ORDER BY seq DESC LIMIT 1").pluck().get()),
  );
  for (const { name, columns } of stateTables($client)) {
    if (name === "permit_log") continue;
    for (const column of columns) {
      if (!/(^|_)at_ms$/.test(column) || column === "next_at_ms") continue;
      const latest = $client.prepare(`SELECT max("${column}") FROM "${name}"`).pluck().get() as number | null;
      expect({ name, column, later: (latest ?? 0) > now_ms }).toEqual({ name, column, later: false });
    }
  }
  for (const life of changed) {
    // A proof is done again, long after what followed it.
    const once = life.steps.filter(({ kind }) => kind !== "prove");
    const at = new Map(once.flatMap((step) => (step.done ? [[step.id, step.done.at_ms] as const] : [])));
    for (const step of life.steps) {
      // What is passed over is so from the beginning.
      if (!step.done || step.done.skipped) continue;
      for (const id of step.after) {
        const early = step.done.at_ms < (at.get(id) ?? 0);
        const said = { step: `${step.id} ${step.kind} ${step.subject}`, after: id };
        expect({ ...said, early }).toEqual({ ...said, early: false });
      }
    }
  }
  const early = $client.prepare("SELECT count(*) FROM personal_locks WHERE off_at_ms < on_at_ms").pluck().get();
  expect(early).toBe(0);
}
