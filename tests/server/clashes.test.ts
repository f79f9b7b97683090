import { expectReplay } from "../support/expectReplay";
import { approved, openTwoJobs } from "../support/twoJobs";
import { TestSite } from "../support/testSite";

const HOUR_MS = 3_600_000;
let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
}, 60_000);
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

/** A job on the motor, which needs the water to run meanwhile. */
async function asksForWater(): Promise<string> {
  const { job } = await site.done("cora", "job.ask", {
    title: "Change the bearing of the motor",
    work: "Change the bearing.",
    faces: [{ place: "M", how: ["touch"] }],
    windowFrom_ms: site.clock_ms,
    windowTo_ms: site.clock_ms + 8 * HOUR_MS,
    holder: "hob",
    crew: ["hob"],
  });
  await site.done("cora", "plan.adjust", {
    job,
    device: "W-1",
    to: "passing",
    reason: "the bearing of its twin is cooled",
  });
  return String(job);
}
const approving = (job: string) => ({ job, objective: "effort", school: "work", plantRevision: 1 });

test("a plan that needs passing what another plan stops is refused, though nobody has locked it yet, and changes nothing", async () => {
  const tank = await approved(site, { place: "T" });
  const motor = await asksForWater();
  expect(await site.refused("cora", "isolation.approve", approving(motor))).toBe(
    `W-1 must stay passing for this job, and job ${tank.job} stops it. Agree it with that job first.`,
  );
  // Taken back, it is approved; and put back by the engine once the tank's isolation is gone, it may be asked again.
  await site.done("cora", "plan.adjust", { job: motor, device: "W-1", to: "left to the engine", reason: "agreed" });
  await site.done("cora", "isolation.approve", approving(motor));
});

test("a plan that stops what another needs passing is refused, and says for whom", async () => {
  const motor = await asksForWater();
  await site.done("cora", "isolation.approve", approving(motor));
  const { job } = await site.done("cora", "job.ask", {
    title: "Work on the tank",
    work: "Open it.",
    faces: [{ place: "T", how: ["open"] }],
    windowFrom_ms: site.clock_ms,
    windowTo_ms: site.clock_ms + 8 * HOUR_MS,
    holder: "hal",
    crew: ["hal"],
  });
  expect(await site.refused("cora", "isolation.approve", approving(String(job)))).toBe(
    `W-1 must stay passing for job ${motor}. Choose another point, or agree it with that job first.`,
  );
});
