import { expectReplay } from "../support/expectReplay";
import { asc, eq } from "drizzle-orm";
import type { OnNewPlant } from "../../src/core/plan/onNewPlant";
import { soundReport } from "../../src/core/isolation/soundReport";
import { boxView } from "../../src/server/box/boxView";
import type { Db } from "../../src/server/db/database";
import { holds, isolations, ledger, permits } from "../../src/server/db/schema";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { judgePending, writeVerdicts } from "../../src/server/isolation/verdicts";
import { shiftSheet } from "../../src/server/paper/shiftSheet";
import { shiftState } from "../../src/server/job/shiftState";
import { openJobs } from "../../src/server/job/openJobs";
import { inLedger } from "../../src/server/ledger/append";
import { verifyLedger } from "../../src/server/ledger/verify";
import { settleStanding } from "../../src/server/permit/settlePermits";
import { TestSite } from "../support/testSite";
import { approved, atWork, ITEMS, LINKS, openTwoJobs } from "../support/twoJobs";

/** A permit stands on its isolation being held now: nothing that breaks it leaves the permit live, not for a moment. */

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

const importing = (items: string, links: string) => ({
  files: [
    { name: "items.csv", text: items },
    { name: "links.csv", text: links },
  ],
});
/** Somebody found a second line into C, from a header that nobody had drawn. */
const SECOND_LINE = importing(
  `${ITEMS}S2,header,solvent,20,300000,flammable,,,fluid,,,,,,\n`,
  `${LINKS}S2,C,fluid,2026-10-01\n`,
);
/** A tank far from anything, with its own valve. */
const FAR_TANK = importing(`${ITEMS}T9,tank,water,20,200000,,,,,,,,,,\n`, LINKS);

const stateOf = (permit: string) => site.db.select().from(permits).where(eq(permits.number, permit)).get()!.state;
const rows = () => site.db.select().from(ledger).orderBy(asc(ledger.seq)).all();
const typesAfter = (seq: number) => rows().flatMap((row) => (row.seq > seq ? [`${row.type} ${row.subject}`] : []));
const lastRow = () => rows().at(-1)!.seq;

/** Open jobs that nobody may count on, and why: what the board says of them. */
const faults = () => openJobs(site.db, site.clock_ms).filter(({ planFault }) => planFault !== null);

test("a register on which the points still hold pins the plan to it, with a row, and work goes on", async () => {
  const { permit, isolation } = await atWork(site, { place: "P" });
  const before = lastRow();
  await site.done("cora", "plant.import", FAR_TANK);
  expect(typesAfter(before)).toEqual(["plant.import plant 2", `isolation.holds ${isolation}`]);
  expect(stateOf(permit)).toBe("live");
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  expect(faults()).toEqual([]);
});

test("one on which they do not stops every permit in the same transaction; nobody signs on, revalidates or resumes", async () => {
  const { permit, isolation, job, box } = await atWork(site, { place: "P" });
  const other = await atWork(site, { place: "T", holder: "hob", crew: ["hob"] });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  const before = lastRow();
  await site.done("cora", "plant.import", SECOND_LINE);
  expect(typesAfter(before)).toEqual([
    "plant.import plant 2",
    `isolation.fell ${isolation}`,
    `isolation.holds ${other.isolation}`,
    `permit.stopped-by-itself ${permit}`,
  ]);
  expect([stateOf(permit), stateOf(other.permit)]).toEqual(["suspended", "live"]);
  const [, fell] = rows().filter(({ seq }) => seq > before);
  expect(JSON.parse(fell!.body)).toMatchObject({
    input: {
      isolation,
      planned: 1,
      verdict: { revision: 2, judged: true, short: [{ source: "S2", face: "P", depth: 0 }] },
    },
  });
  const says = /on revision 2 of the plant register S-\d+ does not hold: S2 reaches P/i;
  expect(await site.refused("wim", "permit.sign-on", { permit, lock: "W-1" })).toMatch(says);
  expect(await site.refused("isa", "permit.resume", { permit, words: "All is well." })).toMatch(says);
  expect(faults()).toMatchObject([{ number: job, planFault: { code: "plan fell" } }]);
  expect(boxView(box)!.jobs[0]!.planFault).toMatchObject({ code: "plan fell", lostPoints: [] });
  // Who is on may always come off.
  await site.done("hal", "permit.sign-off", { permit });
});

test("it is planned anew once everybody is off, its new points are locked and proved, and then the issuer resumes", async () => {
  const { permit, isolation } = await atWork(site, { place: "P" });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  // The new header has a valve: there is a plan that holds.
  const valve = "V-9,valve,,,,,,,,fluid,yes,yes,4,passing,\n";
  const source = "S2,header,solvent,20,300000,flammable,,,fluid,,,,,,\n";
  const second = "V-8,valve,,,,,,,,fluid,yes,yes,4,passing,\n";
  const between = "D,pipe,solvent,20,300000,flammable,,,,,,,,,\nBL-D,bleed,,,,,,,,,,,,,safe gauge\n";
  const links = ["S2,V-8", "V-8,D", "D,V-9", "V-9,C", "D,BL-D"].map((link) => `${link},fluid,2026-10-01\n`).join("");
  await site.done("cora", "plant.import", importing(ITEMS + source + valve + second + between, LINKS + links));
  const anew = { isolation, plantRevision: 2 };
  expect(await site.refused("cora", "isolation.re-plan", anew)).toMatch(/Still signed on: hal/);
  await site.done("hal", "permit.sign-off", { permit });
  await site.done("cora", "isolation.re-plan", anew);
  expect(loadIsolation(site.db, isolation)!.life.state).toBe("isolating");
  expect(await site.refused("isa", "permit.resume", { permit, words: "Planned anew." })).toMatch(/not proven/);
  await site.walk(isolation, { first: "ivo", second: "vera" });
  const { life } = loadIsolation(site.db, isolation)!;
  expect(life.state).toBe("proven");
  expect(life.steps.flatMap(({ kind, subject, done }) => (kind === "lock" && done ? [subject] : []))).toEqual(
    expect.arrayContaining(["V-8", "V-9"]),
  );
  await site.done("isa", "permit.resume", { permit, words: "The second line is isolated and proved." });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  expect(verifyLedger(site.db.$client, site.headFile).ok).toBe(true);
});

test("what changed while it was judged counts as fallen until it is judged again", async () => {
  const { permit, isolation } = await atWork(site, { place: "P" });
  await site.done("cora", "plant.import", FAR_TANK);
  expect(stateOf(permit)).toBe("live");
  // As if the register had come in while nobody could judge it.
  site.db.update(isolations).set({ verdict: null }).where(eq(isolations.number, isolation)).run();
  const before = lastRow();
  inLedger(site.db, site.headFile, (tx) => {
    const { written, head } = writeVerdicts(tx, new Map<string, OnNewPlant>(), site.clock_ms);
    return { head: settleStanding(tx, written, site.clock_ms).head ?? head, value: undefined };
  });
  expect(typesAfter(before)).toEqual([`isolation.unjudged ${isolation}`, `permit.stopped-by-itself ${permit}`]);
  expect(await site.refused("hal", "permit.sign-on", { permit, lock: "H-1" })).toMatch(/is not known yet/);
  expect(faults()).toMatchObject([{ planFault: { code: "not judged" } }]);
  await judgePending(site.clock_ms, site.db, site.headFile);
  expect(typesAfter(before).at(-1)).toBe(`isolation.holds ${isolation}`);
  // It holds; but work that was stopped goes on by the issuer's word only.
  expect(stateOf(permit)).toBe("suspended");
  await site.done("isa", "permit.resume", { permit, words: "The points hold on the new register." });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
});

test("a plan that fell holds again when the register is put right", async () => {
  const { permit, isolation } = await atWork(site, { place: "P" });
  await site.done("cora", "plant.import", SECOND_LINE);
  expect(stateOf(permit)).toBe("suspended");
  await site.done("cora", "plant.import", importing(ITEMS, LINKS));
  expect(rows().at(-1)!.type).toBe("isolation.holds");
  expect(stateOf(permit)).toBe("suspended");
  await site.done("isa", "permit.resume", { permit, words: "There is no second line: the drawing was wrong." });
  expect(loadIsolation(site.db, isolation)!.row.plantRevision).toBe(1);
});

test("a test that lifts a point stops the permit in its own transaction", async () => {
  const { isolation, job, permit, box } = await atWork(site, { place: "P" });
  const { test: number } = await site.done("hal", "test.ask", { isolation, lift: ["Q"], purpose: "Which way round?" });
  await site.done("hal", "test.agree", { test: number, job });
  const before = lastRow();
  await site.done("cora", "test.start", { test: number });
  expect(typesAfter(before)).toEqual([expect.stringMatching(/^test.start /), `permit.stopped-by-itself ${permit}`]);
  const [opens] = site.open(isolation);
  await site.done("cora", "box.take-off", { box, lock: `C-${box}` });
  await site.done("ivo", "step.do", { isolation, step: opens!.id, ...soundReport(opens!, { locks: 0 }) });
});

test("a point that another isolation holds is not put back, nothing behind it is started: the last who lets go does", async () => {
  const first = await atWork(site, { place: "P" });
  const second = await atWork(site, { place: "C", how: ["open"], holder: "hob", crew: ["hob"] });
  const held = (isolation: string) =>
    loadIsolation(site.db, isolation)!.life.steps.flatMap(({ kind, subject }) => (kind === "unlock" ? [subject] : []));
  const shared = held(first.isolation).filter((tag) => held(second.isolation).includes(tag));
  expect(shared.length).toBeGreaterThan(0);
  const back = async ({ isolation, permit, box }: typeof first, holder: string) => {
    await site.done(holder, "permit.hand-back", { permit });
    await site.done("isa", "permit.inspect", { permit, words: "Clean." });
    await site.done(holder, "permit.return-copy", { permit, copy: 1 });
    await site.done("isa", "permit.close", { permit });
    await site.done("cora", "box.take-off", { box, lock: `C-${box}` });
    await site.done("cora", "return.start", { isolation });
  };
  await back(first, "hal");
  await site.walk(first.isolation, { first: "ivo", second: "vera", until: ({ kind }) => kind === "start" });
  const steps = () => loadIsolation(site.db, first.isolation)!.life.steps;
  for (const tag of shared) {
    const off = steps().find(
      ({ kind, subject, phase }) => kind === "unlock" && subject === tag && phase === "restore",
    )!;
    expect(off.done?.evidence?.stays).toEqual([second.isolation]);
  }
  const start = site.open(first.isolation).find(({ kind }) => kind === "start")!;
  const report = { isolation: first.isolation, step: start.id, ...soundReport(start) };
  expect(await site.refused("ivo", "step.do", report)).toMatch(new RegExp(`still held by ${second.isolation}`));
  expect(loadIsolation(site.db, first.isolation)!.life.state).toBe("restoring");
  await back(second, "hob");
  await site.walk(second.isolation, { first: "ivo", second: "vera" });
  expect(loadIsolation(site.db, second.isolation)!.life.state).toBe("restored");
  const lastOff = loadIsolation(site.db, second.isolation)!.life.steps.filter(({ kind }) => kind === "unlock");
  expect(lastOff.every(({ done }) => done?.evidence?.stays === undefined)).toBe(true);
  await site.walk(first.isolation, { first: "ivo", second: "vera" });
  expect(loadIsolation(site.db, first.isolation)!.life.state).toBe("restored");
});

test("a proof that fails stops every permit on the isolation at once; it goes on after a cause, another proof and the issuer", async () => {
  const { permit, isolation, job } = await atWork(site, { place: "P" });
  const proof = loadIsolation(site.db, isolation)!.life.steps.find(
    ({ kind, carrier }) => kind === "prove" && carrier === "fluid",
  )!;
  const sound = { isolation, step: proof.id, ...soundReport(proof) };
  const before = lastRow();
  const answer = await site.done("vera", "step.prove-again", { ...sound, reading: 1.4 });
  expect(answer).toMatchObject({ state: "isolating", failed: "not safe", did: expect.stringMatching(/not proved/) });
  expect(typesAfter(before)).toEqual([`step.prove-again ${isolation}`, `permit.stopped-by-itself ${permit}`]);
  expect(openJobs(site.db, site.clock_ms).find(({ number }) => number === job)!.next).toMatchObject({
    urgent: true,
    words: "Not proved: prove P (fluid). Find out why",
  });
  expect(await site.refused("hal", "permit.sign-on", { permit, lock: "H-1" })).toMatch(/is stopped/);
  expect(await site.refused("vera", "step.do", sound)).toMatch(/failed before. Find out why/);
  expect(await site.refused("ivo", "step.cause", { isolation, step: proof.id, words: "" })).toMatch(
    /write what it came from/,
  );
  await site.done("ivo", "step.cause", { isolation, step: proof.id, words: "BL-P was plugged with wax" });
  expect(await site.refused("vera", "step.do", sound)).toMatch(/failed in your hands/);
  await site.add({
    signIn: "otto",
    roles: ["isolator"],
    competences: ["electrical", "high-voltage", "mechanical", "process"],
  });
  await site.done("otto", "step.do", sound);
  expect(stateOf(permit)).toBe("suspended");
  await site.done("isa", "permit.resume", { permit, words: "Cleared, proved by another." });
  const kept = loadIsolation(site.db, isolation)!.life.steps.find(({ id }) => id === proof.id)!.failures;
  expect(kept).toMatchObject([{ reading: 1.4, by: "vera", cause: { by: "ivo", words: "BL-P was plugged with wax" } }]);
  expect(verifyLedger(site.db.$client, site.headFile).ok).toBe(true);
});

test("one lock hangs in one place, however its number was typed", async () => {
  const { isolation } = await approved(site, { place: "P" });
  const locks = () =>
    loadIsolation(site.db, isolation)!.life.steps.filter(({ kind, done }) => kind === "lock" && done === null);
  await site.walk(isolation, { first: "ivo", second: "vera", until: ({ kind }) => kind === "lock" });
  const [first, second] = locks();
  const hang = (step: typeof first, lock: string) => ({ isolation, step: step!.id, ...soundReport(step!, { lock }) });
  await site.done("ivo", "step.do", hang(first, " l-900"));
  for (const typed of ["L-900", "l-900", "L \u2013 900", "L-900\u200B"]) {
    expect(await site.refused("ivo", "step.do", hang(second, typed))).toMatch(/Lock L-900 is in use on Q, isolation/);
  }
  // Not even a mistake in the code hangs it twice.
  const row = site.db.select().from(holds).get()!;
  expect(() =>
    site.db
      .insert(holds)
      .values({ ...row, id: "another" })
      .run(),
  ).toThrow(/UNIQUE constraint failed: holds.lock/);
  await site.done("ivo", "step.do", hang(second, "l-901"));
});

test("nobody is on two permits at different work", async () => {
  const first = await atWork(site, { place: "P" });
  const second = await atWork(site, { place: "T", crew: ["hal", "wim"] });
  await site.done("hal", "permit.sign-on", { permit: first.permit, lock: "H-1" });
  expect(await site.refused("hal", "permit.sign-on", { permit: second.permit, lock: "H-2" })).toBe(
    `Hal is on permit ${first.permit}, at other work. Nobody is in two places: off there first, or say that they go from one to the other.`,
  );
  const also = { permit: second.permit, lock: "H-2", also: first.permit };
  expect(await site.refused("hal", "permit.sign-on", { ...also, also: "P-9999" })).toMatch(/in two places/);
  await site.done("hal", "permit.sign-on", also);
  await site.done("hal", "permit.sign-off", { permit: second.permit });
  await site.done("hal", "permit.sign-off", { permit: first.permit });
  await site.done("hal", "permit.sign-on", { permit: second.permit, lock: "H-2" });
});

test("the next shift is told on paper what is stopped and why, what fell, what was not proved, and what is kept up", async () => {
  const first = await atWork(site, { place: "P" });
  const second = await atWork(site, { place: "T", holder: "hob", crew: ["hob"] });
  const proof = loadIsolation(site.db, second.isolation)!.life.steps.find(({ kind }) => kind === "prove")!;
  const report = { isolation: second.isolation, step: proof.id, ...soundReport(proof), reading: 1.4 };
  await site.done("vera", "step.prove-again", report);
  await site.done("cora", "plant.import", SECOND_LINE);
  const paper = await shiftSheet(
    shiftState(site.clock_ms),
    "http://plant.invalid",
    { seq: 1, hash: "0" },
    site.clock_ms,
  );
  const text = JSON.stringify(paper.document.content);
  expect(text).toMatch(
    new RegExp(
      `STOP, everybody off: on revision 2 of the plant register ${first.isolation} does not hold: S2 reaches P`,
    ),
  );
  expect(text).toMatch(new RegExp(`${first.permit}, Stopped .*: on revision 2`));
  expect(text).toMatch(/Not proved: prove T \(fluid\), 1.4 bar/);
  expect(text).toMatch(new RegExp(`${second.permit}, Stopped .*${second.isolation} is not proven now`));
});
