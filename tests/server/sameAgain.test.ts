import { expectReplay } from "../support/expectReplay";
import type { Db } from "../../src/server/db/database";
import { lastTimeOf } from "../../src/server/job/lastTime";
import { jobView } from "../../src/server/job/jobView";
import { TestSite } from "../support/testSite";
import { approved, importing, ITEMS, LINKS, openTwoJobs } from "../support/twoJobs";

/** A request that repeats another: what was isolated then is judged on the plant of today, never taken over. */

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

/** A request for work on P. */
const asking = (more: object = {}) => ({
  title: "Work on P again",
  work: "Open it.",
  faces: [{ place: "P", how: ["open"] }],
  windowFrom_ms: site.clock_ms,
  windowTo_ms: site.clock_ms + 8 * 3_600_000,
  holder: "hal",
  crew: ["wim"],
  ...more,
});

async function again(like: string, more: object = {}) {
  const { job } = await site.done("cora", "job.ask", asking({ like, ...more }));
  return (await lastTimeOf(jobView(String(job), site.clock_ms)!))!;
}

test("on the same plant the same points hold, and are said to", async () => {
  const first = await approved(site, { place: "P" });
  const last = await again(first.job);
  expect(last).toMatchObject({ job: first.job, isolation: first.isolation });
  expect(last.points).toEqual(expect.arrayContaining(["Q"]));
  expect(last.today).toMatchObject({ missingFaces: [], lostPoints: [], short: [] });
});

test("three changes of the plant: what is new and harmless, a point that is gone, a line that nobody had drawn", async () => {
  const first = await approved(site, { place: "P" });
  await importing(site, `${ITEMS}G-1,gauge,,,,,,,,,,,,,\n`, `${LINKS}P,G-1,fluid,2026-10-01\n`);
  const harmless = (await again(first.job)).today;
  expect(harmless.change.added).toEqual(["G-1"]);
  expect([harmless.lostPoints, harmless.short]).toEqual([[], []]);

  // The isolator was taken out: the motor stands on the board itself.
  const without = (text: string) =>
    text
      .split("\n")
      .filter((line) => !/(^|,)Q,/.test(line))
      .join("\n");
  await importing(site, without(ITEMS), `${without(LINKS)}NET,M,power,2026-10-01\n`);
  const gone = (await again(first.job)).today;
  expect(gone.lostPoints).toEqual(["Q"]);
  expect(gone.short.map(({ source, face }) => `${source} ${face}`)).toContain("NET P");

  await importing(
    site,
    `${ITEMS}S2,header,solvent,20,300000,flammable,,,fluid,,,,,,\n`,
    `${LINKS}S2,C,fluid,2026-10-01\n`,
  );
  const drawn = (await again(first.job)).today;
  expect(drawn.short.map(({ source, face, depth }) => `${source} ${face} ${depth}`)).toContain("S2 P 0");
});

test("other work than then is judged as what it is", async () => {
  const first = await approved(site, { place: "P" });
  const last = await again(first.job, { faces: [{ place: "T", how: ["enter"] }] });
  // The points before P do nothing for the tank.
  expect(last.today.short.map(({ source, face }) => `${source} ${face}`)).toContain("WS T");
});

test("nothing is repeated of a job that is not there, or was never isolated", async () => {
  expect(await site.refused("cora", "job.ask", asking({ like: "J-0999" }))).toMatch(/There is no job J-0999/);
  const bare = await site.done("cora", "job.ask", asking());
  expect(await again(String(bare.job))).toBeNull();
});
