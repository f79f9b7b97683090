import { eq } from "drizzle-orm";
import type { Db } from "../../src/server/db/database";
import { jobs } from "../../src/server/db/schema";
import { jobHazards } from "../../src/server/hazard/hazardStore";
import { loadVersion } from "../../src/server/library/procedureStore";
import { expectReplay } from "../support/expectReplay";
import { HOUR } from "../support/permits";
import { TestSite } from "../support/testSite";
import { atWork, importing, ITEMS, LINKS, openTwoJobs } from "../support/twoJobs";

/** A procedure from a job that went all the way: approved by two, judged anew at each use, and refused where it is unsafe. */

const DAY = 24 * HOUR;
let site: TestSite;
const holder = globalThis as { heavyLanternDatabase?: Db };
beforeEach(async () => {
  site = new TestSite();
  holder.heavyLanternDatabase = site.db;
  await openTwoJobs(site);
  const all = ["electrical", "high-voltage", "mechanical", "process"] as const;
  await site.add({ signIn: "tara", roles: ["isolator"], competences: all });
});
afterEach(async () => {
  delete holder.heavyLanternDatabase;
  await expectReplay(site);
  site.close();
});

/** A job on P from the request to closed. */
async function closedJob(): Promise<string> {
  const { job, isolation, box, permit } = await atWork(site, { place: "P", crew: ["hal"] });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  await site.done("hal", "permit.sign-off", { permit });
  await site.done("hal", "permit.hand-back", { permit });
  await site.done("hal", "permit.return-copy", { permit, copy: 1 });
  await site.done("isa", "permit.inspect", { permit, words: "Clean." });
  await site.done("isa", "permit.close", { permit });
  // Others of its kinds were written and never accepted.
  const open = site.db.$client.prepare("SELECT number FROM permits WHERE state NOT IN ('closed', 'cancelled')").pluck();
  for (const number of open.all()) await site.done("isa", "permit.cancel", { permit: number });
  await site.done("cora", "box.take-off", { box, lock: `C-${box}` });
  await site.done("cora", "return.start", { isolation });
  await site.walk(isolation, { first: "ivo", second: "vera", people: 1 });
  await site.done("cora", "job.close", { job });
  return job;
}

async function approvedProcedure(job: string, more: object = {}): Promise<string> {
  const made = await site.done("cora", "procedure.write", { job, title: "Open the pump", ...more });
  const asked = { procedure: made.procedure, version: made.version };
  await site.done("tara", "procedure.sign", { ...asked, part: "trade" });
  await site.done("isa", "procedure.sign", { ...asked, part: "equipment" });
  return String(made.procedure);
}

const asking = (procedure: string | null, more: object = {}) => ({
  title: "Open the pump again",
  work: "Open it.",
  faces: [{ place: "P", how: ["open"] }],
  windowFrom_ms: site.clock_ms,
  windowTo_ms: site.clock_ms + 8 * HOUR,
  holder: "hal",
  crew: ["hal"],
  ...(procedure === null ? {} : { procedure }),
  ...more,
});
const revision = () => site.db.$client.prepare("SELECT max(revision) FROM plant_revisions").pluck().get() as number;
const approving = (job: unknown, more: object = {}) =>
  site.act("cora", "isolation.approve", {
    job,
    objective: "effort",
    school: "work",
    plantRevision: revision(),
    ...more,
  });

test("only what is closed becomes a procedure, and nobody uses what two others have not approved", async () => {
  const { job: open } = await site.done("cora", "job.ask", asking(null));
  expect(await site.refused("cora", "procedure.write", { job: open, title: "Too soon" })).toContain("closed");
  const job = await closedJob();
  expect(await site.refused("hal", "procedure.write", { job, title: "Not mine" })).toContain("You may not");
  const made = await site.done("cora", "procedure.write", { job, title: "Open the pump" });
  expect(made).toMatchObject({ procedure: "IP-0001", version: 1 });
  expect(await site.refused("cora", "job.ask", asking("IP-0001"))).toContain("approved procedure");
  const asked = { procedure: "IP-0001", version: 1 };
  expect(await site.refused("hal", "procedure.sign", { ...asked, part: "trade" })).toContain("competence");
  await site.done("tara", "procedure.sign", { ...asked, part: "trade" });
  expect(await site.refused("cora", "job.ask", asking("IP-0001"))).toContain("approved procedure");
  await site.done("isa", "procedure.sign", { ...asked, part: "equipment" });
  expect(await site.done("cora", "job.ask", asking("IP-0001"))).toMatchObject({
    job: expect.stringMatching(/^J-/) as string,
  });
  await expectReplay(site);
}, 60_000);

test("used without a difference it asks nothing beyond the usual approval, and its hazards come with it", async () => {
  const procedure = await approvedProcedure(await closedJob());
  const { job } = await site.done("cora", "job.ask", asking(procedure));
  const hazards = jobHazards(site.db, String(job))!;
  expect(hazards.proposed.length).toBeGreaterThan(0);
  // Weather is of the day.
  expect(hazards.open).toEqual(["weather, tools and lifts"]);
  expect(hazards.hazards.decisions[0]!.reason).toContain(`as ${procedure} version 1`);
  expect(await approving(job)).toMatchObject({ ok: true });
  const planned = site.db.$client.prepare("SELECT plan_json FROM isolations ORDER BY rowid DESC LIMIT 1").pluck().get();
  const points = (JSON.parse(String(planned)) as { points: { device: string }[] }).points.map(({ device }) => device);
  expect([...points].sort()).toEqual([...loadVersion(site.db, procedure)!.content.points].sort());
}, 60_000);

test("after a harmless change it is read first; where a point is gone or something gets past it nobody isolates by it", async () => {
  const procedure = await approvedProcedure(await closedJob());

  await importing(site, `${ITEMS}G-1,gauge,,,,,,,,,,,,,\n`, `${LINKS}P,G-1,fluid,2026-10-01\n`);
  const { job: harmless } = await site.done("cora", "job.ask", asking(procedure));
  expect(await approving(harmless)).toMatchObject({ ok: false, code: "procedure differs" });
  expect(await approving(harmless, { readDifferences: true })).toMatchObject({ ok: true });

  // A line that nobody had drawn, from another source, past every point.
  await importing(
    site,
    `${ITEMS}S-2,header,solvent,20,300000,flammable,,,fluid,,,,,,\nX-1,pipe,solvent,20,300000,flammable,,,,,,,,,\n`,
    `${LINKS}S-2,X-1,fluid,2026-10-01\nX-1,P,fluid,2026-10-01\n`,
  );
  const { job: passed } = await site.done("cora", "job.ask", asking(procedure));
  const refused = await approving(passed, { readDifferences: true });
  expect(refused).toMatchObject({ ok: false, code: "procedure unsafe" });
  expect(refused.ok ? "" : refused.sentence).toContain("S-2");

  // A point that is there no more.
  const gone = loadVersion(site.db, procedure)!.content.points.find((tag) => tag.startsWith("V-"))!;
  const without = (text: string) => text.replaceAll(new RegExp(`\\b${gone}\\b`, "g"), "SP-9");
  await importing(
    site,
    without(ITEMS).replace(/^SP-9,valve.*$/m, "SP-9,pipe,solvent,20,300000,flammable,,,,,,,,,"),
    without(LINKS),
  );
  const { job: lost } = await site.done("cora", "job.ask", asking(procedure));
  const missing = await approving(lost, { readDifferences: true });
  expect(missing).toMatchObject({ ok: false, code: "procedure unsafe" });
  expect(missing.ok ? "" : missing.sentence).toContain(gone);

  // Without it the engine's own plan stands, if it is enough.
  expect(await site.refused("hal", "job.leave-procedure", { job: lost })).toContain("You may not");
  await site.done("cora", "job.leave-procedure", { job: lost });
  const row = site.db
    .select()
    .from(jobs)
    .where(eq(jobs.number, String(lost)))
    .get()!;
  expect([row.procedure, row.job.pinned]).toEqual([null, []]);
  expect(await site.refused("cora", "job.leave-procedure", { job: lost })).toContain("not asked for by a procedure");
  await expectReplay(site);
}, 120_000);

test("other work is not the procedure's, however near", async () => {
  const procedure = await approvedProcedure(await closedJob());
  const { job } = await site.done("cora", "job.ask", asking(procedure, { faces: [{ place: "P", how: ["enter"] }] }));
  expect(await approving(job, { readDifferences: true })).toMatchObject({ ok: false, code: "procedure unsafe" });
}, 60_000);

test("overdue, found wrong, superseded or withdrawn: nobody requests work by it, and it says why", async () => {
  const job = await closedJob();
  const procedure = await approvedProcedure(job);
  const asked = { procedure, version: 1 };
  site.clock_ms += 366 * DAY;
  expect(await site.refused("cora", "job.ask", asking(procedure))).toContain("inspection is overdue");
  const inspecting = { ...asked, watched: ["ivo"], found: "Followed." };
  expect(await site.refused("ivo", "procedure.inspect", { ...inspecting, sound: true })).toContain("looks on");
  await site.done("tara", "procedure.inspect", { ...inspecting, sound: true });
  expect(await site.refused("cora", "job.ask", asking(procedure))).toBe("done");
  await site.done("tara", "procedure.inspect", { ...inspecting, found: "A bleed is plugged.", sound: false });
  expect(await site.refused("cora", "job.ask", asking(procedure))).toContain("not right");

  // The next version takes its place, under the same number.
  expect(await approvedProcedure(job, { procedure })).toBe(procedure);
  expect(loadVersion(site.db, procedure, 1)!.life.state).toBe("superseded");
  expect(await site.refused("cora", "job.ask", asking(procedure))).toBe("done");
  await site.done("isa", "procedure.withdraw", { procedure, version: 2, reason: "The pump goes." });
  expect(await site.refused("cora", "job.ask", asking(procedure))).toContain("approved procedure");
}, 120_000);
