import { expectReplay } from "../support/expectReplay";
import { randomUUID } from "node:crypto";
import sharp from "sharp";
import { eq } from "drizzle-orm";
import { soundReport } from "../../src/core/isolation/soundReport";
import { lockedPoints } from "../../src/core/isolation/lockedPoints";
import { holds, isolations, jobs, ledger, photos } from "../../src/server/db/schema";
import { verifyLedger } from "../../src/server/ledger/verify";
import { loadBox } from "../../src/server/box/boxStore";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { storePhoto } from "../../src/server/photos/storePhoto";
import { PIN, TestSite } from "../support/testSite";
import { approved, atWork, openTwoJobs } from "../support/twoJobs";
import { issued } from "../support/writePermit";

const HOUR_MS = 3_600_000;
// Whole walks on a real database file: on a slow machine one takes its time.
jest.setTimeout(60_000);
let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
}, 60_000);
afterEach(async () => {
  expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true });
  await expectReplay(site);
  site.close();
});
const lifeOf = (isolation: string) => loadIsolation(site.db, isolation)!.life;
const locked = (isolation: string) =>
  lockedPoints(lifeOf(isolation))
    .map(({ subject }) => subject)
    .sort();
const stepOf = (isolation: string, kind: string, subject?: string) =>
  lifeOf(isolation).steps.find((step) => step.kind === kind && (subject === undefined || step.subject === subject))!;

describe("a step that cannot be done as planned", () => {
  test("strikes its device, blocks the walk, and is planned again around what hangs", async () => {
    const { job, isolation } = await approved(site, { place: "P" });
    await site.walk(isolation, {
      first: "ivo",
      second: "vera",
      until: (step) => step.kind === "lock" && step.subject !== "Q",
    });
    const stuck = site.open(isolation).find((step) => step.kind === "lock")!;
    const report = { isolation, step: stuck.id, why: "broken", words: "Handwheel came off." };
    expect(await site.refused("wim", "step.cannot", report)).toMatch(/may not say that a step cannot be done/);
    await site.done("ivo", "step.cannot", report);
    expect(site.db.select().from(jobs).where(eq(jobs.number, job)).get()!.job.struck).toEqual([stuck.subject]);
    expect(
      await site.refused("ivo", "step.do", { isolation, step: stuck.id, ...soundReport(stuck, { lock: "L-50" }) }),
    ).toMatch(/cannot be done as planned: broken, says ivo/);

    const held = locked(isolation);
    expect(held.length).toBeGreaterThan(0);
    const replan = { isolation, plantRevision: 1 };
    expect(await site.refused("ivo", "isolation.re-plan", replan)).toMatch(/may not approve a new plan/);
    await site.done("cora", "isolation.re-plan", replan);
    const life = lifeOf(isolation);
    expect(life.steps.some((step) => step.stuck)).toBe(false);
    expect(life.steps.some((step) => step.kind === "lock" && step.subject === stuck.subject)).toBe(false);
    for (const tag of held) expect(locked(isolation)).toContain(tag);
    await site.walk(isolation, { first: "ivo", second: "vera" });
    expect(lifeOf(isolation).state).toBe("proven");
    await site.done("cora", "return.start", { isolation });
    await site.walk(isolation, { first: "ivo", second: "vera" });
    expect(
      site.db
        .select()
        .from(holds)
        .all()
        .every((hold) => hold.liftedAt !== null),
    ).toBe(true);
    await site.done("cora", "job.close", { job });
  });
  test("is not approved when the new plan falls short, until an approver answers for it", async () => {
    const { job, isolation } = await approved(site, { place: "T" });
    await site.walk(isolation, { first: "ivo", second: "vera", until: (step) => step.kind === "lock" });
    const [stuck] = site.open(isolation);
    await site.done("ivo", "step.cannot", { isolation, step: stuck!.id, why: "missing", words: "No valve here." });
    const replan = { isolation, plantRevision: 1 };
    expect(await site.refused("cora", "isolation.re-plan", replan)).toMatch(/falls short at WS fluid T/);
    await site.done("ana", "deviation.accept", {
      job,
      objective: "effort",
      school: "work",
      ways: ["WS fluid T"],
      measures: ["watcher"],
      reason: "supply drained and watched",
    });
    await site.done("cora", "isolation.re-plan", replan);
    expect(lifeOf(isolation).steps.some((step) => step.kind === "lock")).toBe(false);
  });
  test("may be freed again, and its device counts again", async () => {
    const { job, isolation } = await approved(site, { place: "T" });
    await site.walk(isolation, { first: "ivo", second: "vera", until: (step) => step.kind === "lock" });
    const [stuck] = site.open(isolation);
    await site.done("ivo", "step.cannot", {
      isolation,
      step: stuck!.id,
      why: "locked by others",
      words: "Three locks.",
    });
    await site.done("vera", "step.can", { isolation, step: stuck!.id, words: "They put a hasp on." });
    expect(site.db.select().from(jobs).where(eq(jobs.number, job)).get()!.job.struck).toEqual([]);
    await site.walk(isolation, { first: "ivo", second: "vera" });
    expect(lifeOf(isolation).state).toBe("proven");
    expect(await site.refused("cora", "isolation.re-plan", { isolation, plantRevision: 1 })).toMatch(
      /so there is nothing/,
    );
  });
});

describe("what a device kept without a network", () => {
  test("is taken with its own time, in the ledger with both; a repeat is answered and not done twice", async () => {
    const { isolation } = await approved(site, { place: "T" });
    const [tell] = site.open(isolation);
    site.clock_ms += 15 * 60_000;
    const doneAt_ms = site.clock_ms - 10 * 60_000;
    const input = { isolation, step: tell!.id, ...soundReport(tell!) };
    const actId = randomUUID();
    expect(await site.act("ivo", "step.do", input, { doneAt_ms, actId })).toMatchObject({ ok: true });
    expect(await site.act("ivo", "step.do", input, { doneAt_ms, actId })).toMatchObject({ ok: true });
    expect(stepOf(isolation, "tell").done?.at_ms).toBe(doneAt_ms);
    const rows = site.db.select().from(ledger).where(eq(ledger.actId, actId)).all();
    expect(rows).toHaveLength(1);
    expect(rows[0]!.recordedAt - rows[0]!.doneAt).toBeGreaterThan(10 * 60_000);
  });
  test("is refused when the device's clock cannot be right, and always for what protects somebody", async () => {
    const { isolation } = await approved(site, { place: "T" });
    const [tell] = site.open(isolation);
    const input = { isolation, step: tell!.id, ...soundReport(tell!) };
    const at = async (doneAt_ms: number) => {
      const answer = await site.act("ivo", "step.do", input, { doneAt_ms });
      return answer.ok ? "done" : answer.code;
    };
    expect(await at(site.clock_ms + HOUR_MS)).toBe("device clock");
    expect(await at(site.clock_ms - 30 * HOUR_MS)).toBe("device clock");
    // Before the approval that it follows.
    expect(await at(site.clock_ms - HOUR_MS)).toBe("before its cause");
    const { permit } = await atWork(site, { place: "P" });
    for (const [who, type, more] of [
      ["hal", "permit.sign-on", { permit, lock: "H-1" }],
      ["hal", "permit.sign-off", { permit }],
      ["isa", "permit.close", { permit }],
      ["cora", "return.start", { isolation }],
    ] as const) {
      const answer = await site.act(who, type, more, { doneAt_ms: site.clock_ms });
      expect(answer).toMatchObject({ ok: false, code: "online only" });
    }
  });
  test("never lifts a lock, opens a path or starts anything: on the way back only what was seen or said is kept", async () => {
    const { isolation } = await approved(site, { place: "P" });
    await site.walk(isolation, { first: "ivo", second: "vera" });
    await site.done("cora", "return.start", { isolation });
    const kept: string[] = [];
    const refused: string[] = [];
    for (let next = site.open(isolation)[0]; next !== undefined; next = site.open(isolation)[0]) {
      const input = { isolation, step: next.id, ...soundReport(next) };
      const answer = await site.act("ivo", "step.do", input, { doneAt_ms: site.clock_ms });
      (answer.ok ? kept : refused).push(next.kind);
      if (answer.ok) continue;
      expect(answer.code).toBe("online only");
      await site.walk(isolation, { first: "ivo", second: "vera", until: (one) => one.id !== next!.id });
      if (site.open(isolation)[0]?.id === next.id) throw new Error(`${next.kind} was never done`);
    }
    const seenOrSaid = ["clear", "count people", "guards", "take barriers away", "tell all", "walk line", "watch"];
    expect([...new Set(kept)].sort()).toEqual(seenOrSaid);
    expect(refused).toEqual(expect.arrayContaining(["unlock", "start", "hand over", "close bleed"]));
  });
  test("two hang a lock on one point: the second is settled as off, or kept as hanging too and lifted with the first", async () => {
    const { isolation } = await approved(site, { place: "T" });
    await site.walk(isolation, { first: "ivo", second: "vera", until: (step) => step.kind === "lock" });
    const [lock] = site.open(isolation);
    const input = (number: string) => ({ isolation, step: lock!.id, ...soundReport(lock!, { lock: number }) });
    const late = site.clock_ms - 60_000;
    await site.done("ivo", "step.do", input("L-1"));
    const [offId, tooId] = [randomUUID(), randomUUID()];
    for (const [actId, number] of [
      [offId, "L-2"],
      [tooId, "L-3"],
    ] as const) {
      const answer = await site.act("ines", "step.do", input(number), { actId, doneAt_ms: late });
      expect(answer).toMatchObject({ ok: false, code: "already done" });
    }
    const settle = (refusedAct: string, what: string) => ({ refusedAct, isolation, what, words: "looked again" });
    expect(await site.refused("ivo", "kept.settle", settle(tooId, "hangs too"))).toMatch(/no refused act of yours/);
    await site.done("ines", "kept.settle", settle(offId, "undone"));
    await site.done("ines", "kept.settle", settle(tooId, "hangs too"));
    expect(await site.refused("ines", "kept.settle", settle(tooId, "hangs too"))).toMatch(/already done/);
    const standing = () =>
      site.db
        .select()
        .from(holds)
        .all()
        .filter((hold) => hold.liftedAt === null);
    expect(
      standing()
        .map(({ lock: number }) => number)
        .sort(),
    ).toEqual(["L-1", "L-3"]);
    await site.walk(isolation, { first: "ivo", second: "vera" });
    expect(loadBox(site.db, { number: "B-0001" })!.life.keys.map(({ at }) => at)).toEqual(["box", "box"]);
    await site.done("cora", "return.start", { isolation });
    await site.walk(isolation, { first: "ivo", second: "vera" });
    expect(standing()).toEqual([]);
  });
});

describe("the box and its people", () => {
  test("the coordinator is first on and last off, the lead first and last of the crew", async () => {
    const { box, permit, isolation } = await atWork(site, { place: "T" });
    expect(await site.refused("wim", "permit.sign-on", { permit, lock: "W-9" })).toMatch(/Hal leads this work/);
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    await site.done("wim", "permit.sign-on", { permit, lock: "W-9" });
    const own = { box, lock: `C-${box}` };
    expect(await site.refused("cora", "box.take-off", own)).toMatch(/last to come off, and hal, wim are still on/);
    expect(await site.refused("hal", "permit.sign-off", { permit })).toMatch(/last to come off, and wim is still on/);
    await site.done("wim", "permit.sign-off", { permit });
    await site.done("hal", "permit.sign-off", { permit });
    expect(await site.refused("cora", "box.take-off", own)).toMatch(new RegExp(`Still open: ${permit}`));
    // Over night: the department's lock, with a name on it, and then the coordinator may go home.
    await site.done("cora", "box.hang", { box, role: "department", person: "colin", lock: "D-1" });
    await site.done("cora", "box.take-off", own);
    await site.done("hal", "permit.hand-back", { permit });
    await site.done("isa", "permit.inspect", { permit, words: "Clean, nothing left." });
    await site.done("hal", "permit.return-copy", { permit, copy: 1 });
    await site.done("isa", "permit.close", { permit });
    expect(await site.refused("cora", "return.start", { isolation })).toMatch(/still locked by colin/);
    await site.done("colin", "box.take-off", { box, lock: "D-1" });
    await site.done("cora", "return.start", { isolation });
  });
  test("a personal lock keeps its owner for good", async () => {
    const { permit } = await atWork(site, { place: "T" });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    await site.done("wim", "permit.sign-on", { permit, lock: "X-1" });
    await site.done("wim", "permit.sign-off", { permit });
    expect(await site.refused("will", "permit.sign-on", { permit, lock: "x-1" })).toMatch(/belongs to wim/);
    const entry = { kind: "lock", number: "X-1", owner: "will", key: null };
    expect(await site.refused("cora", "gear.enter", entry)).toMatch(/belongs to wim/);
    await site.done("cora", "gear.enter", { kind: "lock", number: "X-2", owner: "wim", key: "K-7" });
    const same = { kind: "lock", number: "X-3", owner: "will", key: "k-7" };
    expect(await site.refused("cora", "gear.enter", same)).toMatch(/also opens lock X-2 of wim/);
  });
  test("under the other school each hangs a lock on every point", async () => {
    const made = await approved(site, { place: "P" });
    await site.done("cora", "job.set-up", { job: made.job, setup: { lockSchool: "on every point" } });
    await site.walk(made.isolation, { first: "ivo", second: "vera" });
    await site.done("cora", "box.hang", { box: made.box, role: "coordinator", lock: "C-1" });
    const permit = await issued(site, { job: made.job, hours: 1 });
    await site.done("hal", "permit.accept", { permit });
    expect(await site.refused("hal", "permit.sign-on", { permit, lock: "H-1" })).toMatch(
      /write the number of the lock/,
    );
    const points = Object.fromEntries(locked(made.isolation).map((tag, i) => [tag, `H-${i}`]));
    expect(Object.keys(points).length).toBeGreaterThan(1);
    await site.done("hal", "permit.sign-on", { permit, points });
    expect(
      await site.refused("ivo", "point.swap", {
        isolation: made.isolation,
        from: "Q",
        to: "V-1",
        plate: "V-1",
        lock: "H-0",
        reason: "try",
      }),
    ).not.toBe("done");
    expect(await site.refused("cora", "return.start", { isolation: made.isolation })).toMatch(/Still signed on: hal\./);
    await site.done("hal", "permit.sign-off", { permit });
  });
  test("a contractor signs on only after both sides told each other their procedures", async () => {
    const { job, permit } = await atWork(site, { place: "T", crew: ["hal", "rick"] });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    expect(await site.refused("rick", "permit.sign-on", { permit, lock: "R-1" })).toMatch(/Skerry Rope and Rig yet/);
    const exchange = { job, lead: "rick", leadPin: "2468", ours: "Lock, tag, try.", theirs: "Own locks, red tags." };
    const wrong = await site.act("cora", "contractor.exchange", { ...exchange, leadPin: "1111" });
    expect(wrong).toMatchObject({ ok: false, status: 403, field: "leadPin" });
    await site.done("cora", "contractor.exchange", exchange);
    await site.done("rick", "permit.sign-on", { permit, lock: "R-1" });
    const bodies = site.db.select({ body: ledger.body }).from(ledger).all();
    expect(bodies.some(({ body }) => body.includes(`"${PIN}"`))).toBe(false);
  });
  test("a shift hands over as one: every PIN, or nothing", async () => {
    const { permit } = await atWork(site, { place: "T", crew: ["hal", "wim", "hob", "will"] });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    await site.done("wim", "permit.sign-on", { permit, lock: "W-9" });
    const pair = (from: string, to: string, lock: string, toPin = "2468") => ({
      from,
      to,
      lock,
      fromPin: "2468",
      toPin,
    });
    const bad = await site.act("hal", "permit.hand-over", {
      permit,
      pairs: [pair("hal", "hob", "H-2"), pair("wim", "will", "W-2", "0000")],
    });
    expect(bad).toMatchObject({ ok: false, status: 403, field: "pairs.1.toPin" });
    expect(await site.refused("cora", "permit.hand-back", { permit })).toMatch(/Only its holder, hal/);
    await site.done("hal", "permit.hand-over", {
      permit,
      pairs: [pair("hal", "hob", "H-2"), pair("wim", "will", "W-2")],
    });
    // The lead went with it, so the new one hands back.
    expect(await site.refused("hal", "permit.hand-back", { permit })).toMatch(/Only its holder, hob/);
    await site.done("will", "permit.sign-off", { permit });
    await site.done("hob", "permit.sign-off", { permit });
    await site.done("hob", "permit.hand-back", { permit });
  });
  test("a proof is done again after an hour with nobody there", async () => {
    const { permit, isolation } = await atWork(site, { place: "T" });
    site.clock_ms += 2 * HOUR_MS;
    expect(await site.refused("hal", "permit.sign-on", { permit, lock: "H-1" })).toMatch(/Prove again before anybody/);
    const proofs = lifeOf(isolation).steps.filter((step) => step.kind === "prove");
    expect(proofs.length).toBeGreaterThan(0);
    for (const proof of proofs) {
      const input = { isolation, step: proof.id, ...soundReport(proof) };
      expect(await site.refused("ivo", "step.prove-again", input)).toMatch(/somebody else must prove it/);
      await site.done("vera", "step.prove-again", input);
    }
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  });
});

describe("a temporary de-isolation", () => {
  test("is refused while anybody is on, signed for by whom it reaches, done by steps, and proved afresh", async () => {
    const { isolation, job, permit, box } = await atWork(site, { place: "P" });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    const asked = await site.done("hal", "test.ask", { isolation, lift: ["Q"], purpose: "Which way does it turn?" });
    const { test } = asked;
    expect(await site.refused("hal", "test.ask", { isolation, lift: ["Q"], purpose: "again" })).toMatch(/already done/);
    expect(await site.refused("hal", "test.agree", { test, job })).toMatch(/Still signed on: hal/);
    expect(await site.refused("cora", "test.start", { test })).toMatch(/Their holders sign that everybody is off/);
    await site.done("hal", "permit.sign-off", { permit });
    expect(await site.refused("hob", "test.agree", { test, job })).toMatch(/Only its holder, hal/);
    await site.done("hal", "test.agree", { test, job });
    // Somebody went back on between: it does not start.
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    expect(await site.refused("cora", "test.start", { test })).toMatch(/Still signed on: hal/);
    await site.done("hal", "permit.sign-off", { permit });
    await site.done("cora", "test.start", { test });
    expect(await site.refused("hal", "permit.sign-on", { permit, lock: "H-1" })).toMatch(
      /is stopped: .* it is testing \(asked: its isolation is proven and holds\)/,
    );
    // The box opens when the coordinator's lock is off it; that one may come off though the permit is live: nobody is on.
    const [opens] = site.open(isolation);
    const open = { isolation, step: opens!.id, ...soundReport(opens!, { locks: 1 }) };
    expect(await site.refused("ivo", "step.do", open)).toMatch(/still locked by cora/);
    await site.done("cora", "box.take-off", { box, lock: `C-${box}` });
    await site.walk(isolation, { first: "ivo", second: "vera", people: 1, until: (step) => step.kind === "test run" });
    expect(locked(isolation)).not.toContain("Q");
    await site.walk(isolation, { first: "ivo", second: "vera", people: 1 });
    expect(lifeOf(isolation).state).toBe("proven");
    expect(locked(isolation)).toContain("Q");
    await site.done("cora", "box.hang", { box, role: "coordinator", lock: `C-${box}` });
    expect(await site.refused("hal", "permit.sign-on", { permit, lock: "H-1" })).toMatch(/is stopped/);
    await site.done("isa", "permit.resume", { permit, words: "The test is over, all is proved." });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  });
});

test("a picture is made again from its pixels, once, and what is no picture is refused", async () => {
  const png = await sharp({ create: { width: 2400, height: 300, channels: 3, background: "#804000" } })
    .withMetadata({ exif: { IFD0: { Copyright: "somebody", ImageDescription: "where it was taken" } } })
    .png()
    .toBuffer();
  const stored = await storePhoto(site.db, png, "ivo", 1);
  expect(stored).toMatchObject({ ok: true });
  expect(await storePhoto(site.db, png, "ivo", 2)).toEqual(stored);
  const [row, ...rest] = site.db.select().from(photos).all();
  expect(rest).toEqual([]);
  expect([row!.width, row!.height]).toEqual([1600, 200]);
  expect((await sharp(row!.jpeg).metadata()).exif).toBeUndefined();
  for (const bytes of [Buffer.from("not a picture"), png.subarray(0, 200), Buffer.alloc(0)]) {
    expect(await storePhoto(site.db, bytes, "ivo", 3)).toMatchObject({ ok: false });
  }
  expect(site.db.select().from(isolations).all()).toEqual([]);
});
