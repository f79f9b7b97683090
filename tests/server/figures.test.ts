import { expectReplay } from "../support/expectReplay";
import { figureRows, siteFigures } from "../../src/server/figures/siteFigures";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { soundReport } from "../../src/core/isolation/soundReport";
import { HOUR } from "../support/permits";
import { TestSite } from "../support/testSite";
import { atWork, openTwoJobs } from "../support/twoJobs";

/** Figures are of what the record holds, of the time that is asked, and of nothing else. */

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const figures = (from_ms = 0) => siteFigures(site.db, from_ms, site.clock_ms);

test("nothing done, nothing counted", () => {
  expect(figures()).toMatchObject({
    ranOver: [],
    worked: 0,
    failedProofs: [],
    deviations: [],
    stops: [],
    toStart_h: null,
    toAnswer_min: null,
    unanswered: 0,
  });
  expect(figureRows(figures()).every(({ value }) => value === 0)).toBe(true);
});

test("stops, failed proofs, lock rounds, expiries and answers, each once; nothing of before the time that is asked", async () => {
  const asked_ms = site.clock_ms;
  const { permit, isolation } = await atWork(site, { place: "P" });
  expect(figures()).toMatchObject({ worked: 1, toStart_h: { n: 1 } });
  expect(figures().toStart_h!.half).toBeCloseTo((site.clock_ms - asked_ms - site.step_ms) / HOUR, 1);
  await site.done("wim", "permit.stop", { permit, reason: "It smells." });
  await site.done("isa", "permit.resume", { permit, words: "A drain; shut." });
  expect(figures()).toMatchObject({
    stops: [{ key: "stop-work", n: 1 }],
    toAnswer_min: { n: 1, half: 1, most: 1 },
    unanswered: 0,
  });
  const proof = loadIsolation(site.db, isolation)!.life.steps.find(
    ({ kind, carrier }) => kind === "prove" && carrier === "fluid",
  )!;
  await site.done("vera", "step.prove-again", { isolation, step: proof.id, ...soundReport(proof), reading: 1.4 });
  const stopped = figures();
  expect(stopped.failedProofs).toEqual([{ key: "not safe", n: 1 }]);
  expect(stopped.stops).toEqual([
    { key: "isolation", n: 1 },
    { key: "stop-work", n: 1 },
  ]);
  expect(stopped.unanswered).toBe(1);
  const locks = site.db.$client
    .prepare("SELECT items.tag AS point, lock FROM holds JOIN items ON items.id = item_id WHERE lifted_at_ms IS NULL")
    .all() as { point: string; lock: string }[];
  const found = locks.map((one, i) => (i === 0 ? { ...one, lock: "L-990" } : one));
  await site.done("ines", "isolation.check-locks", { isolation, found });
  expect(figures()).toMatchObject({ lockRounds: 1, locksNotFound: 1 });
  site.clock_ms += 10 * HOUR;
  await site.refused("hal", "permit.sign-on", { permit, lock: "H-1" });
  expect(figures().ranOver).toEqual([permit]);
  expect(figures(site.clock_ms + 1)).toMatchObject({ ranOver: [], stops: [], lockRounds: 0, unanswered: 0, worked: 0 });
  const rows = figureRows(figures());
  expect(rows).toContainEqual({ figure: "stops by cause", of: "isolation", value: 1, unit: "" });
  expect(rows).toContainEqual({ figure: "request to start", of: "number", value: 1, unit: "" });
});
