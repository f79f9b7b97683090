import { eq } from "drizzle-orm";
import { jobs, permits } from "../../src/server/db/schema";
import { jobHazards } from "../../src/server/hazard/hazardStore";
import { permitNow } from "../../src/server/permit/permitFacts";
import { HOUR } from "../support/permits";
import { expectReplay } from "../support/expectReplay";
import { TestSite } from "../support/testSite";
import { approved, openTwoJobs } from "../support/twoJobs";
import { decideHazards, drafted, signedToIssue } from "../support/writePermit";

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const ask = (more: object = {}) => ({
  title: "Work on P",
  work: "Open it.",
  faces: [{ place: "P", how: ["open"] }],
  windowFrom_ms: site.clock_ms,
  windowTo_ms: site.clock_ms + 8 * HOUR,
  holder: "hal",
  ...more,
});
const rowOf = (job: string) => site.db.select().from(jobs).where(eq(jobs.number, job)).get()!;

test("a draft is sent back with remarks, changed under its number, and signed anew; a stray one is cancelled by its holder", async () => {
  const made = await approved(site, { place: "T" });
  await site.walk(made.isolation, { first: "ivo", second: "vera" });
  await decideHazards(site, made.job);
  const permit = await drafted(site, { job: made.job });
  await site.done("cora", "permit.check", { permit });
  const remarks = { permit, words: "The release point is on the walkway." };
  expect(await site.refused("hal", "permit.send-back", remarks)).toMatch(/You may not send a permit back/);
  expect(await site.refused("isa", "permit.send-back", { permit, words: " " })).toMatch(
    /What has to be put right is missing/,
  );
  await site.done("isa", "permit.send-back", remarks);
  const row = () => site.db.select().from(permits).where(eq(permits.number, permit)).get()!;
  expect(row().state).toBe("draft");
  const { words, hazards, precautions, validFrom, validTo, details } = row();
  const same = { permit, words, hazards, precautions, validFrom_ms: validFrom, validTo_ms: validTo, details };
  expect(await site.refused("hal", "permit.change", same)).toMatch(/says that already/);
  expect(await site.refused("wim", "permit.change", { ...same, words: "Other." })).toMatch(
    /You may not change a draft/,
  );
  expect(await site.refused("hal", "permit.change", { ...same, validTo_ms: validFrom + 13 * HOUR })).toMatch(
    /longer than 12/,
  );
  await site.done("hal", "permit.change", { ...same, details: { ...details, release: "into the sump" } });
  expect(row().details).toMatchObject({ release: "into the sump" });
  expect(permitNow(site.db, permit, site.clock_ms)!.now.log.at(-1)).toMatchObject({ what: ["what its kind asks"] });
  await signedToIssue(site, permit);
  await site.done("hal", "permit.accept", { permit });

  const stray = await drafted(site, { job: made.job });
  await site.done("hal", "permit.cancel", { permit: stray });
});

test("what a job asks for is changed while that is possible, and its hazards are gone through anew where its places change", async () => {
  const { job: number } = await site.done("cora", "job.ask", { ...ask(), crew: ["wim"] });
  const job = String(number);
  await decideHazards(site, job);
  await site.done("hal", "job.change", {
    job,
    ...ask({ title: "Work on the pump", windowTo_ms: site.clock_ms + 5 * HOUR }),
  });
  expect(rowOf(job)).toMatchObject({ title: "Work on the pump", crew: ["wim"] });
  expect(jobHazards(site.db, job)!.open).toEqual([]);
  await site.done("hal", "job.change", { job, ...ask({ faces: [{ place: "T", how: ["open"] }] }) });
  expect(jobHazards(site.db, job)!.begun).toBe(false);
  expect(
    await site.refused("hal", "job.change", { job, ...ask({ faces: [{ place: "Q-9", how: ["open"] }] }) }),
  ).toMatch(/Q-9/);
  await site.done("cora", "isolation.approve", { job, school: "work", plantRevision: 1 });
  expect(await site.refused("hal", "job.change", { job, ...ask() })).toMatch(/already done/);
  await site.done("hal", "job.change", {
    job,
    ...ask({ faces: [{ place: "T", how: ["open"] }], work: "Open it well." }),
  });
  expect(rowOf(job).work).toBe("Open it well.");
  expect(await site.refused("cora", "job.withdraw", { job, words: "not this year" })).toMatch(/S-0001/);
});

test("a job that nobody does is withdrawn with its reason, stays on record, and changes no more", async () => {
  const { job: number } = await site.done("cora", "job.ask", { ...ask(), crew: [] });
  const job = String(number);
  expect(await site.refused("cora", "job.withdraw", { job, words: "" })).toMatch(/Why it is withdrawn is missing/);
  await site.done("cora", "job.withdraw", { job, words: "the pump is scrapped" });
  expect(rowOf(job).state).toBe("withdrawn");
  for (const [type, input] of [
    ["job.change", { job, ...ask() }],
    ["job.withdraw", { job, words: "again" }],
    ["isolation.approve", { job, school: "work", plantRevision: 1 }],
  ] as const) {
    expect(await site.refused("cora", type, input)).toMatch(/is withdrawn/);
  }
  await expectReplay(site);
});
