import { expectReplay } from "../support/expectReplay";
import { PIN, TestSite } from "../support/testSite";
import { approved, atWork, openTwoJobs } from "../support/twoJobs";

/** Acts that no day of a model does: each is done once, and the ledger played again comes to the same. */

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

test("things handed out, given back, withdrawn, and given back into use by another", async () => {
  const { job } = await approved(site, { place: "T" });
  const tester = { kind: "voltage tester", number: "VT-02" };
  await site.done("cora", "gear.hand-out", { ...tester, job });
  await site.done("cora", "gear.give-back", tester);
  await site.done("cora", "gear.withdraw", tester);
  expect(await site.refused("cora", "gear.return", { ...tester, words: "New leads.", inDateUntil_ms: null })).not.toBe(
    "done",
  );
  const inDateUntil_ms = site.clock_ms + 90 * 86_400_000;
  await site.done("colin", "gear.return", { ...tester, words: "New leads, checked.", inDateUntil_ms });
});

test("a hazard added, a plan changed by hand, and left to the engine again", async () => {
  const { job } = await site.done("cora", "job.ask", {
    title: "Look at T",
    work: "Look.",
    faces: [{ place: "T", how: ["open"] }],
    windowFrom_ms: site.clock_ms,
    windowTo_ms: site.clock_ms + 3_600_000,
    holder: "hal",
    crew: ["hal"],
  });
  await site.done("hal", "hazard.add", { job, hazard: "Wasps", controls: ["Nest away"], owner: "holder" });
  await site.done("cora", "plan.adjust", { job, device: "W-1", to: "pinned", reason: "It shuts tight." });
  await site.done("cora", "plan.adjust", { job, device: "W-1", to: "left to the engine", reason: "As before." });
});

test("procedures exchanged with a contractor, an isolation looked at again, and what a device kept settled", async () => {
  const { job, isolation, permit } = await atWork(site, { place: "T", crew: ["hal", "wim", "rick"] });
  const said = { ours: "A lock of one's own.", theirs: "The same." };
  await site.done("cora", "contractor.exchange", { job, lead: "rick", leadPin: PIN, ...said });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  await site.done("rick", "permit.sign-on", { permit, lock: "R-1" });
  await site.done("rick", "permit.sign-off", { permit });
  await site.done("cora", "isolation.review", { isolation, reason: "The part comes on Monday.", next_h: 24 });
  const other = await approved(site, { place: "P" });
  const [tell] = site.open(other.isolation);
  const step = { isolation: other.isolation, step: tell!.id, words: "Control room." };
  await site.done("ivo", "step.do", step);
  const refusedAct = "6f1f7a52-8e9f-4a58-9d53-1f0b2f6f7a10";
  expect(await site.act("ivo", "step.do", step, { actId: refusedAct })).toMatchObject({ ok: false });
  const settled = { refusedAct, isolation: other.isolation, what: "undone", words: "Told once was enough." };
  await site.done("ivo", "kept.settle", settled);
});
