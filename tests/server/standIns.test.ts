import { expectReplay } from "../support/expectReplay";
import type { Db } from "../../src/server/db/database";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { permitNow } from "../../src/server/permit/permitFacts";
import { TestSite } from "../support/testSite";
import { approved, openTwoJobs } from "../support/twoJobs";
import { issued } from "../support/writePermit";

/** What was accepted below the rules is work: a step with a result, a condition of the permit, and taken back at the end. */

let site: TestSite;
const holder = globalThis as { heavyLanternDatabase?: Db };
beforeAll(async () => {
  site = new TestSite();
  holder.heavyLanternDatabase = site.db;
  await openTwoJobs(site);
});
afterAll(async () => {
  delete holder.heavyLanternDatabase;
  await expectReplay(site);
  site.close();
});

test("an accepted deviation is done, asked of the permit, kept up, and taken back", async () => {
  const { job, isolation, box } = await approved(site, { place: "T" });
  await site.walk(isolation, { first: "ivo", second: "vera", until: (step) => step.kind === "lock" });
  const [stuck] = site.open(isolation);
  await site.done("ivo", "step.cannot", { isolation, step: stuck!.id, why: "missing", words: "No valve here." });
  await site.done("ana", "deviation.accept", {
    job,
    objective: "effort",
    school: "work",
    ways: ["WS fluid T"],
    measures: ["watcher", "gauge in view"],
    reason: "supply drained and watched",
  });
  await site.done("cora", "isolation.re-plan", { isolation, plantRevision: 1 });
  const steps = () => loadIsolation(site.db, isolation)!.life.steps;
  const standIns = steps().filter(({ kind }) => kind === "stand in");
  expect(standIns.map(({ subject }) => subject)).toEqual(["watcher, T", "gauge in view, T"]);
  expect(standIns[0]!.words).toBe(
    "Instead of what is not there between WS and T: someone at the barrier who watches until the end and does nothing else.",
  );
  await site.walk(isolation, { first: "ivo", second: "vera", until: (step) => step.kind === "stand in" });
  const bare = { isolation, step: standIns[0]!.id };
  expect(await site.refused("ivo", "step.do", bare)).toMatch(/who does it, where, and what was found is missing/);
  await site.walk(isolation, { first: "ivo", second: "vera" });
  expect(loadIsolation(site.db, isolation)!.life.state).toBe("proven");
  expect(steps().find(({ kind }) => kind === "stand in")!.done!.evidence!.words).toMatch(/by radio/);

  await site.done("cora", "box.hang", { box, role: "coordinator", lock: "C-1" });
  const permit = await issued(site, { job });
  expect(await site.refused("hal", "permit.accept", { permit })).toMatch(
    /Someone at the barrier who watches until the end and does nothing else, against WS at T: nobody has looked yet/,
  );
  for (const measure of ["watcher", "gauge in view"]) {
    await site.done("hal", "permit.tick", { permit, asks: [`stand-in ${measure} T`], words: "Ivo is there." });
  }
  await site.done("hal", "permit.accept", { permit });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  // It is accepted to the end of the job's window; then an approver looks again, and meanwhile nobody works.
  const ends_ms = permitNow(site.db, permit, site.clock_ms)!.facts.acceptedUntil_ms!;
  expect(permitNow(site.db, permit, ends_ms - 1)!.now.state).toBe("live");
  expect(permitNow(site.db, permit, ends_ms)!.now.log.at(-1)).toMatchObject({
    cause: "isolation",
    reason: expect.stringMatching(/accepted until .*; an approver looks at it again/),
  });
  const longer = { job, until_ms: ends_ms + 3_600_000, reason: "the drain is still watched" };
  expect(await site.refused("hal", "deviation.renew", longer)).toMatch(/You may not accept deviations for longer/);
  expect(await site.refused("ana", "deviation.renew", { ...longer, until_ms: site.clock_ms - 1 })).toMatch(
    /over before/,
  );
  await site.done("ana", "deviation.renew", longer);
  expect(permitNow(site.db, permit, site.clock_ms)!.facts.acceptedUntil_ms).toBe(longer.until_ms);
  await site.done("hal", "permit.sign-off", { permit });
  await site.done("hal", "permit.hand-back", { permit });
  await site.done("isa", "permit.inspect", { permit, words: "Clean." });
  await site.done("hal", "permit.return-copy", { permit, copy: 1 });
  await site.done("isa", "permit.close", { permit });
  await site.done("cora", "box.take-off", { box, lock: "C-1" });
  await site.done("cora", "return.start", { isolation });
  await site.walk(isolation, { first: "ivo", second: "vera", people: 1 });
  expect(loadIsolation(site.db, isolation)!.life.state).toBe("restored");
  const ended = steps().filter(({ kind }) => kind === "end stand-in");
  expect(ended.map(({ done }) => done?.skipped)).toEqual([false, false]);
});
