import { eq } from "drizzle-orm";
import { isolations, permits } from "../../src/server/db/schema";
import { jobView } from "../../src/server/job/jobView";
import type { Db } from "../../src/server/db/database";
import { expectReplay } from "../support/expectReplay";
import { HOUR } from "../support/permits";
import { TestSite } from "../support/testSite";
import { atWork, openTwoJobs } from "../support/twoJobs";

/** The locks of an isolation that stands are read again; one that is not found stops the work. */

let site: TestSite;
const holder = globalThis as { heavyLanternDatabase?: Db };
beforeEach(async () => {
  site = new TestSite();
  holder.heavyLanternDatabase = site.db;
  await openTwoJobs(site);
});
afterEach(async () => {
  delete holder.heavyLanternDatabase;
  await expectReplay(site);
  site.close();
});

const hung = (isolation: string) =>
  site.db.$client
    .prepare(
      `SELECT items.tag AS point, holds.lock FROM holds JOIN items ON items.id = item_id
       JOIN isolations ON isolations.id = isolation_id WHERE isolations.number = ? AND lifted_at_ms IS NULL`,
    )
    .all(isolation) as { point: string; lock: string }[];
const permitState = (permit: string) => site.db.select().from(permits).where(eq(permits.number, permit)).get()!.state;

test("found as hung, it is read again a day later; until then nothing is urgent", async () => {
  const { job, isolation } = await atWork(site, { place: "P" });
  const next = () => jobView(job, site.clock_ms)!.next!.words;
  expect(next()).not.toMatch(/Read the locks/);
  site.clock_ms += 25 * HOUR;
  // Work of yesterday has run out; what is left standing is read.
  expect(jobView(job, site.clock_ms)!.locks!.due_ms).toBeLessThan(site.clock_ms);
  await site.done("ines", "isolation.check-locks", { isolation, found: hung(isolation) });
  expect(jobView(job, site.clock_ms)!.locks).toEqual({
    due_ms: site.db.select().from(isolations).get()!.lockCheck!.checked_ms + 24 * HOUR,
    checked_ms: expect.any(Number),
    missing: [],
    crew: [],
  });
  await expectReplay(site);
});

test("anybody of the crew reads them at their points before their own goes on, and it is kept who did; nobody else of the workers", async () => {
  const { job, isolation, permit } = await atWork(site, { place: "P" });
  expect(await site.refused("hob", "isolation.check-locks", { isolation, found: hung(isolation) })).toMatch(/crew/);
  await site.done("wim", "isolation.check-locks", { isolation, found: hung(isolation) });
  expect(jobView(job, site.clock_ms)!.locks!.crew).toMatchObject([{ name: "wim" }]);
  // What one of them does not find stops the work like anybody's round.
  const found = hung(isolation).map((one, i) => (i === 0 ? { ...one, lock: "L-77" } : one));
  await site.done("will", "isolation.check-locks", { isolation, found });
  expect(permitState(permit)).toBe("suspended");
  expect(jobView(job, site.clock_ms)!.locks!.crew).toHaveLength(1);
  await expectReplay(site);
});

test("one that is not found stops the work in the same act; hung again, read by another and proved, it goes on", async () => {
  const { job, isolation, permit } = await atWork(site, { place: "P" });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  const locks = hung(isolation);
  const [first] = locks;
  const found = locks.map((one) => (one === first ? { ...one, lock: "", none: true } : one));
  expect(await site.refused("ines", "isolation.check-locks", { isolation, found: found.slice(1) })).toMatch(
    /Not read yet/,
  );
  expect(await site.refused("ana", "isolation.check-locks", { isolation, found })).toMatch(/isolator/);
  expect(permitState(permit)).toBe("live");
  await site.done("ines", "isolation.check-locks", { isolation, found });
  expect(permitState(permit)).toBe("suspended");
  expect(jobView(job, site.clock_ms)!.next).toMatchObject({ urgent: true });
  expect(await site.refused("isa", "permit.resume", { permit, words: "It looks fine." })).toMatch(/not found on/);
  // She cannot find it by looking again, and nobody hangs a lock where none is missing.
  await site.done("ines", "isolation.check-locks", { isolation, found: locks });
  expect(permitState(permit)).toBe("suspended");
  await site.refused("isa", "permit.resume", { permit, words: "It looks fine." });
  await site.refused("ivo", "isolation.rehang", { isolation, point: locks[1]!.point, lock: "L-901" });
  await site.done("ivo", "isolation.rehang", { isolation, point: first!.point, lock: "L-901" });
  expect(hung(isolation)).toContainEqual({ point: first!.point, lock: "L-901" });
  await site.refused("isa", "permit.resume", { permit, words: "It hangs." });
  const now = hung(isolation);
  await site.done("vera", "isolation.check-locks", { isolation, found: now });
  expect(jobView(job, site.clock_ms)!.planFault).toBeNull();
  // What was proved before the lock was found again counts no more.
  expect(await site.refused("isa", "permit.resume", { permit, words: "It hangs." })).toMatch(
    /Prove again.*not found since/s,
  );
  await expectReplay(site);
});

test("a missing lock is told to nobody by its number", async () => {
  const { isolation } = await atWork(site, { place: "T" });
  const locks = hung(isolation);
  const told = await site.done("ines", "isolation.check-locks", {
    isolation,
    found: locks.map(({ point }) => ({ point, lock: "L-990" })),
  });
  for (const { lock } of locks) expect(JSON.stringify(told)).not.toContain(lock);
});
