import { expectReplay } from "../support/expectReplay";
import { siteClock } from "../../src/server/runtime/siteTime";
import { TestSite } from "../support/testSite";
import { approved, importing, ITEMS, LINKS, openTwoJobs } from "../support/twoJobs";
import { decideHazards, drafted, toTick } from "../support/writePermit";

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const appoint = (areas: readonly string[], shifts: readonly number[], person = "isa", role = "issuer") =>
  site.done("cora", "person.change", { person, roles: [role], areas, shifts });

/** A permit at T, drafted and checked: what comes next is an issuer's. */
async function checked(): Promise<string> {
  const made = await approved(site, { place: "T" });
  await site.walk(made.isolation, { first: "ivo", second: "vera" });
  await site.done("cora", "box.hang", { box: made.box, role: "coordinator", lock: `C-${made.box}` });
  await decideHazards(site, made.job);
  const permit = await drafted(site, { job: made.job });
  await site.done("cora", "permit.check", { permit });
  return permit;
}

test("an issuer who is appointed for an area signs nothing elsewhere, nor where nobody knows the area", async () => {
  const permit = await checked();
  await appoint(["Hall"], []);
  const refused = await site.act("isa", "permit.authorise", { permit });
  expect(refused).toMatchObject({ ok: false, code: "not appointed" });
  expect(!refused.ok && refused.sentence).toMatch(
    /Isa is appointed for Hall, and may not authorise a permit where nobody wrote down the area of the work/,
  );
  const areaOf = (row: string) => (row.startsWith("tag,") ? "area" : row.startsWith("T,") ? "Yard" : "");
  const items = ITEMS.trim().replace(/^.*$/gm, (row) => `${row},${areaOf(row)}`);
  await importing(site, items, LINKS);
  const inYard = await site.act("isa", "permit.authorise", { permit });
  expect(!inYard.ok && inYard.sentence).toMatch(/may not authorise a permit in the area Yard/);
  await appoint(["Yard"], []);
  await site.done("isa", "permit.authorise", { permit });
});

test("one who is appointed for a shift signs in it and not before or after; anybody stops the work at any hour", async () => {
  const permit = await checked();
  const hour = Number(siteClock(site.clock_ms).slice(0, 2));
  const [now, other] = hour >= 6 && hour < 14 ? [6, 14] : hour >= 14 && hour < 22 ? [14, 22] : [22, 6];
  await appoint([], [other]);
  const refused = await site.act("isa", "permit.authorise", { permit });
  expect(refused).toMatchObject({ ok: false, code: "not appointed" });
  expect(!refused.ok && refused.sentence).toMatch(
    /appointed for the shift from \d\d:00, and may not .* at \d\d:\d\d\./,
  );
  await appoint([], [now]);
  await site.done("isa", "permit.authorise", { permit });
  const asks = toTick(site, permit).filter((id) => !id.startsWith("stand-in"));
  if (asks.length > 0) await site.done("cora", "permit.tick", { permit, asks, words: "seen" });
  await site.done("isa", "permit.issue", { permit, copies: ["at the work"] });
  await site.done("hal", "permit.accept", { permit });
  await appoint([], [other]);
  await site.done("isa", "permit.stop", { permit, reason: "Something drips." });
  expect(await site.act("isa", "permit.resume", { permit, words: "Looked." })).toMatchObject({ code: "not appointed" });
});

test("an approver accepts no deviation elsewhere", async () => {
  const { job } = await approved(site, { place: "T" });
  await appoint(["Hall"], [], "ana", "approver");
  const input = {
    job,
    objective: "effort",
    school: "work",
    ways: ["WS fluid T"],
    measures: ["watcher"],
    reason: "as asked",
  };
  expect(await site.act("ana", "deviation.accept", input)).not.toMatchObject({ ok: true });
  const renew = { job, until_ms: site.clock_ms + 1000, reason: "as asked" };
  expect(await site.act("ana", "deviation.renew", renew)).toMatchObject({ ok: false, code: "not appointed" });
  await appoint([], [], "ana", "approver");
  expect(await site.act("ana", "deviation.renew", renew)).toMatchObject({ ok: false, code: "unknown" });
});
