import { eq } from "drizzle-orm";
import { copiesOf } from "../../src/core/permit/record/permitLog";
import { isolations, permits } from "../../src/server/db/schema";
import { loadPermit } from "../../src/server/permit/permitStore";
import { expectReplay } from "../support/expectReplay";
import { HOUR } from "../support/permits";
import { TestSite } from "../support/testSite";
import { atWork, openTwoJobs } from "../support/twoJobs";
import { issued } from "../support/writePermit";

/** Work handed back part done keeps its points; a permit's end is put off once. */

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(() => site.close());

const over = async (permit: string, more: object) => {
  await site.done("hal", "permit.hand-back", { permit, ...more });
  for (const { copy } of copiesOf(loadPermit(site.db, permit)!.life.log)) {
    await site.done("hal", "permit.return-copy", { permit, copy });
  }
  await site.done("isa", "permit.inspect", { permit, words: "Seen." });
  await site.done("isa", "permit.close", { permit });
};
const cancelOpen = async () => {
  const open = site.db.$client.prepare("SELECT number FROM permits WHERE state NOT IN ('closed', 'cancelled')").pluck();
  for (const number of open.all()) await site.done("isa", "permit.cancel", { permit: number });
};
const stateOf = (isolation: string) =>
  site.db.select().from(isolations).where(eq(isolations.number, isolation)).get()!.state;

test("what was handed back part done is not restored until it is finished", async () => {
  const { job, isolation, box, permit } = await atWork(site, { place: "P" });
  expect(await site.refused("hal", "permit.hand-back", { permit, work: "part" })).toMatch(/what is left to do/);
  expect(await site.refused("hal", "permit.hand-back", { permit, work: "done", left: "the gland" })).toMatch(
    /part is done/,
  );
  expect(await site.refused("hal", "permit.hand-back", { permit, work: "", left: "" })).toMatch(/whether all/);
  await over(permit, { work: "part", left: "The gland is out, its place open." });
  await cancelOpen();
  await site.done("cora", "box.take-off", { box, lock: `C-${box}` });
  expect(await site.refused("cora", "return.start", { isolation })).toMatch(
    new RegExp(`${permit} was handed back part done: The gland is out`),
  );
  expect(stateOf(isolation)).toBe("proven");
  // The next permit does what was left.
  await site.done("cora", "box.hang", { box, role: "coordinator", lock: `C-${box}` });
  const next = await issued(site, { job });
  await site.done("hal", "permit.accept", { permit: next });
  await over(next, { work: "done" });
  await cancelOpen();
  await site.done("cora", "box.take-off", { box, lock: `C-${box}` });
  await site.done("cora", "return.start", { isolation });
  expect(stateOf(isolation)).toBe("restoring");
  await expectReplay(site);
});

test("or until the coordinator says how it was made safe as it is", async () => {
  const { isolation, box, permit } = await atWork(site, { place: "P" });
  await over(permit, { work: "part", left: "The cover waits for a gasket." });
  await cancelOpen();
  await site.done("cora", "box.take-off", { box, lock: `C-${box}` });
  await site.refused("cora", "return.start", { isolation, leftSafe: "  " });
  await site.done("cora", "return.start", { isolation, leftSafe: "Old cover back on, tested." });
  expect(stateOf(isolation)).toBe("restoring");
  await expectReplay(site);
});

test("a permit is extended once, and its new end is the one that counts", async () => {
  const { permit } = await atWork(site, { place: "P" });
  const endOf = () => site.db.select().from(permits).where(eq(permits.number, permit)).get()!.validTo;
  const first_ms = endOf();
  const extend = { permit, until_ms: first_ms + HOUR, words: "Looked.", stillOn: [], marked: [1] };
  // The strict rules extend none.
  expect(await site.refused("isa", "permit.extend", extend)).toMatch(/extend none/);
  site.db.update(permits).set({ ruleProfile: "uk-style" }).where(eq(permits.number, permit)).run();
  expect(await site.refused("hal", "permit.extend", extend)).toMatch(/issuer/);
  await site.done("isa", "permit.extend", extend);
  expect(endOf()).toBe(first_ms + HOUR);
  expect(await site.refused("isa", "permit.extend", { ...extend, until_ms: first_ms + 2 * HOUR })).toMatch(/once/);
});
