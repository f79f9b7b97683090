import { recentAlarms } from "../../src/server/ledger/alarms";
import { expectReplay } from "../support/expectReplay";
import { HOUR } from "../support/permits";
import { TestSite } from "../support/testSite";
import { atWork, openTwoJobs } from "../support/twoJobs";

/** An alarm stands until somebody answers it by name, or does something about it. */

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const standing = () => recentAlarms(site.db).filter(({ answered }) => answered === null);

test("answered once, by name, by somebody who answers for it", async () => {
  const { permit } = await atWork(site, { place: "P" });
  expect(standing()).toEqual([]);
  await site.done("wim", "permit.stop", { permit, reason: "It smells." });
  const [alarm] = standing();
  expect(alarm).toMatchObject({ subject: permit });
  expect(await site.refused("wim", "alarm.answer", { alarm: alarm!.seq })).toMatch(/coordinator/);
  expect(await site.refused("cora", "alarm.answer", { alarm: alarm!.seq + 1 })).toMatch(/row/);
  expect(standing()).toHaveLength(1);
  expect(await site.done("cora", "alarm.answer", { alarm: alarm!.seq })).toMatchObject({ permit, after_s: 180 });
  expect(standing()).toEqual([]);
  expect(recentAlarms(site.db)[0]!.answered).toMatchObject({ by: "cora" });
  expect(await site.refused("isa", "alarm.answer", { alarm: alarm!.seq })).toMatch(/already done, by cora/);
  await expectReplay(site);
});

test("what is done about it answers it, and what is done about another permit does not", async () => {
  const one = await atWork(site, { place: "P" });
  const other = await atWork(site, { place: "T" });
  for (const { permit } of [one, other]) await site.done("wim", "permit.stop", { permit, reason: "It smells." });
  await site.done("isa", "permit.resume", { permit: one.permit, words: "A drain; shut." });
  expect(standing().map(({ subject }) => subject)).toEqual([other.permit]);
  // Stopped again is another alarm.
  await site.done("wim", "permit.stop", { permit: one.permit, reason: "It smells again." });
  expect(standing().map(({ subject }) => subject)).toEqual([other.permit, one.permit]);
});

test("one that the clock brought is answered like any other", async () => {
  const { permit } = await atWork(site, { place: "P" });
  site.clock_ms += 10 * HOUR;
  await site.refused("hal", "permit.sign-on", { permit, lock: "H-1" });
  expect(standing()).toMatchObject([{ subject: permit }]);
  await site.done("hal", "permit.hand-back", { permit });
  expect(standing()).toEqual([]);
});
