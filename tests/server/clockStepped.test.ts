import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { desc } from "drizzle-orm";
import type { Clocks } from "../../src/core/ledger/clockWatch";
import { soundReport } from "../../src/core/isolation/soundReport";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { alarmsSince } from "../../src/server/ledger/alarms";
import { ledger } from "../../src/server/db/schema";
import { clockStepped, noticeClock, rememberClocks, startClockWatch } from "../../src/server/permit/clockWatch";
import { verifyLedger } from "../../src/server/ledger/verify";
import { expectReplay } from "../support/expectReplay";
import { HOUR, MINUTE } from "../support/permits";
import { TestSite } from "../support/testSite";
import { expectTold } from "../support/toldOf";
import { atWork, openTwoJobs } from "../support/twoJobs";

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const stateOf = (permit: string) =>
  site.db.$client.prepare("SELECT state FROM permits WHERE number = ?").pluck().get(permit);
const last = () => site.db.select().from(ledger).orderBy(desc(ledger.seq)).limit(1).get()!;

test("a clock that jumps ahead stops the work with a row and an alarm of its own; proved again it goes on", async () => {
  const { isolation, permit } = await atWork(site, { place: "P" });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  site.clock_ms += 2 * HOUR;
  expect(clockStepped(site.db, site.headFile, 2 * HOUR, site.clock_ms)).toBe(true);
  expect(stateOf(permit)).toBe("suspended");
  expect(last()).toMatchObject({ type: "permit.stopped-by-itself", subject: permit });
  expect(alarmsSince(site.db, 0).some(({ subject }) => subject === permit)).toBe(true);
  expectTold(site);
  const resume = { permit, words: "looked" };
  expect(await site.refused("isa", "permit.resume", resume)).toMatch(/timed by a clock that was wrong/);
  const { life } = loadIsolation(site.db, isolation)!;
  for (const proof of life.steps.filter(({ kind, done }) => kind === "prove" && done)) {
    await site.done("vera", "step.prove-again", { isolation, step: proof.id, ...soundReport(proof) });
  }
  await site.done("isa", "permit.resume", resume);
  expect(stateOf(permit)).toBe("live");
  expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true, stateKnown: true });
  await expectReplay(site);
});

test("set back far enough to be seen in the ledger it waits for a person; once that has caught up without one it counts all the same", async () => {
  const { permit } = await atWork(site, { place: "P" });
  const rows = last().seq;
  site.clock_ms -= 40 * MINUTE;
  expect(clockStepped(site.db, site.headFile, -40 * MINUTE, site.clock_ms)).toBe(false);
  expect(last().seq).toBe(rows);
  site.clock_ms += 41 * MINUTE;
  expect(clockStepped(site.db, site.headFile, -40 * MINUTE, site.clock_ms)).toBe(true);
  expect(stateOf(permit)).toBe("suspended");
  expectTold(site);
  await expectReplay(site);
});

describe("the watch over the clock", () => {
  const watch = globalThis as { heavyLanternClocks?: Clocks };
  const env = process.env.LANTERN_DATA;
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), "lantern-clock-"));
    process.env.LANTERN_DATA = folder;
  });
  afterEach(() => {
    delete watch.heavyLanternClocks;
    if (env === undefined) delete process.env.LANTERN_DATA;
    else process.env.LANTERN_DATA = env;
    rmSync(folder, { recursive: true, force: true });
  });
  const stepped = () =>
    site.db
      .select()
      .from(ledger)
      .all()
      .filter(({ type }) => type === "clock.stepped").length;

  test("notices a step once, over a restart of the server too, and nothing where the clock was not set", async () => {
    await atWork(site, { place: "P" });
    // Of an act that was never done nothing is noticed: nobody watches yet.
    noticeClock(site.db, site.headFile);
    startClockWatch();
    noticeClock(site.db, site.headFile);
    expect(stepped()).toBe(0);
    // As it stood before somebody set the clock an hour ahead.
    const now = watch.heavyLanternClocks!;
    rememberClocks({ ...now, wall_ms: now.wall_ms - HOUR });
    delete watch.heavyLanternClocks;
    startClockWatch();
    noticeClock(site.db, site.headFile);
    noticeClock(site.db, site.headFile);
    expect(stepped()).toBe(1);
    // Of another start of the machine nobody knows.
    rememberClocks({ wall_ms: now.wall_ms - HOUR, up_ms: now.up_ms, boot: "another" });
    noticeClock(site.db, site.headFile);
    noticeClock(site.db, site.headFile);
    expect(stepped()).toBe(1);
    // Nor from a file that says nothing.
    writeFileSync(join(folder, "clock.json"), "{");
    delete watch.heavyLanternClocks;
    startClockWatch();
    noticeClock(site.db, site.headFile);
    expect(stepped()).toBe(1);
  });
});
