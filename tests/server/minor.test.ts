import { soundReport } from "../../src/core/isolation/soundReport";
import { isMinor } from "../../src/core/minor/minorSteps";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { loadPermit } from "../../src/server/permit/permitStore";
import { settleNumbers } from "../../src/server/permit/settlePermits";
import { expectReplay } from "../support/expectReplay";
import {
  approvedShort,
  ask,
  BRIEFED,
  decideAll,
  draftFor,
  FED_TWICE,
  ITEMS,
  minorSite,
  SHORT,
  walkAlone,
} from "../support/minorSite";
import type { TestSite } from "../support/testSite";
import { importing } from "../support/twoJobs";

/** The short route on a site: one person isolates, works and restores alone. */

let site: TestSite;
beforeEach(async () => {
  site = await minorSite();
});
afterEach(() => site.close());

test("one person locks, proves, works and takes the lock off, alone, and the ledger played again comes to the same", async () => {
  const { job, isolation, permit } = await approvedShort(site);
  expect(isMinor(loadIsolation(site.db, isolation)!.life.steps)).toBe(true);
  expect(await site.refused("ivo", "permit.begin-alone", { permit, ...BRIEFED })).toMatch(/not proven|steps/i);
  await walkAlone(site, isolation);
  expect(await site.refused("hal", "permit.begin-alone", { permit, ...BRIEFED })).toMatch(/Only its holder, ivo/);
  await site.done("ivo", "permit.begin-alone", { permit, ...BRIEFED });
  const on = loadPermit(site.db, permit)!.life;
  expect(on).toMatchObject({ state: "live", signOns: [{ person: "ivo", lock: "I-1", off_ms: null }] });

  // Anybody stops it; only the issuer, who looked, lets it go on.
  await site.done("wim", "permit.stop", { permit, cause: "stop-work", reason: "It smells." });
  expect(await site.refused("ivo", "permit.resume", { permit, words: "Looked." })).not.toBe("done");
  await site.done("isa", "permit.resume", { permit, words: "Looked." });

  const back = loadIsolation(site.db, isolation)!.life.steps.filter(({ phase }) => phase === "restore");
  const entries = [
    { type: "permit.end-alone", input: { permit } },
    { type: "return.start", input: { isolation } },
    ...back.map((step) => ({ type: "step.do", input: { isolation, step: step.id, ...soundReport(step) } })),
    { type: "job.close", input: { job } },
  ];
  // One step of it left out, or the lock first: none of it is done.
  const without = await site.round("ivo", "alone, off and closed", [...entries.slice(0, 2), ...entries.slice(3)]);
  expect(without).toMatchObject({ ok: false, code: "out of order" });
  expect(loadPermit(site.db, permit)!.life.state).toBe("live");
  expect(await site.round("ivo", "alone, off and closed", entries)).toMatchObject({ ok: true });
  expect(loadIsolation(site.db, isolation)!.life.state).toBe("restored");
  expect(loadPermit(site.db, permit)!.life).toMatchObject({ state: "closed", closedBy: "ivo" });
  await expectReplay(site);
});

test("nobody else comes in between, and it is not made into anything else", async () => {
  const { job, isolation, box, permit } = await approvedShort(site);
  const [tell] = site.open(isolation);
  for (const who of ["ines", "cora"]) {
    expect(await site.refused(who, "step.do", { isolation, step: tell!.id, ...soundReport(tell!) })).toMatch(
      /ivo works alone/i,
    );
  }
  const more: readonly [string, string, object, RegExp][] = [
    ["isa", "permit.authorise", { permit }, /alone/],
    ["cora", "permit.draft", draftFor(site, job, { details: { kind: "general" }, holder: "hal" }), /alone/],
    ["cora", "permit.draft", draftFor(site, job, { holder: "hal" }), /alone/],
    ["cora", "job.crew", { job, crew: ["ivo", "wim"] }, /alone/],
    ["cora", "box.hang", { box, role: "coordinator", lock: "C-1" }, /open/],
    ["cora", "isolation.re-plan", { isolation, plantRevision: 1 }, /./],
  ];
  for (const [who, type, input, why] of more) {
    const said = await site.refused(who, type, input);
    expect({ type, said }).toEqual({ type, said: expect.stringMatching(why) });
    expect(said).not.toBe("done");
  }
  await walkAlone(site, isolation);
  await site.done("ivo", "permit.begin-alone", { permit, ...BRIEFED });
  const now: readonly [string, string, object, RegExp][] = [
    ["ivo", "permit.sign-off", { permit }, /alone/],
    ["wim", "permit.sign-on", { permit, lock: "W-1" }, /alone/],
    ["ivo", "permit.hand-back", { permit }, /alone/],
    ["cora", "return.start", { isolation }, /Still signed on: ivo/],
    ["cora", "permit.end-alone", { permit }, /Still signed on: ivo/],
    ["ines", "point.swap", { isolation, from: "Q", to: "Q-2", plate: "Q-2", lock: "L-9", reason: "Try." }, /alone/],
  ];
  for (const [who, type, input, why] of now) {
    expect({ type, said: await site.refused(who, type, input) }).toEqual({ type, said: expect.stringMatching(why) });
  }
  await expectReplay(site);
});

test("it begins with one's own lock only, never over a shift change, and never after it once was not dead", async () => {
  const late = await ask(site, "DR", "ivo", 8);
  await decideAll(site, late);
  expect(await site.refused("cora", "isolation.approve", { job: late, ...SHORT })).toMatch(/within one shift/);
  const { isolation, permit } = await approvedShort(site);
  await walkAlone(site, isolation, "ivo", ({ kind }) => kind === "lock");
  const [lock] = site.open(isolation);
  await site.done("cora", "gear.enter", { kind: "lock", number: "SITE-1" });
  for (const number of ["SITE-1"]) {
    const said = await site.refused("ivo", "step.do", { isolation, step: lock!.id, plate: lock!.plate, lock: number });
    expect(said).not.toBe("done");
  }
  await walkAlone(site, isolation, "ivo", ({ kind }) => kind === "prove");
  const [prove] = site.open(isolation);
  const live = { ...soundReport(prove!), readings: Object.fromEntries(prove!.pairs!.map((pair) => [pair, 230])) };
  await site.done("ivo", "step.do", { isolation, step: prove!.id, ...live });
  expect(await site.refused("ivo", "permit.begin-alone", { permit, ...BRIEFED })).not.toBe("done");
  // Given up: the lock comes off, and whoever asks for the same machine again is told.
  await site.done("ivo", "permit.cancel", { permit });
  await site.done("ivo", "return.start", { isolation });
  await walkAlone(site, isolation);
  const again = await ask(site);
  await decideAll(site, again);
  expect(await site.refused("cora", "isolation.approve", { job: again, ...SHORT })).toMatch(/against expectation/);
  await expectReplay(site);
});

test("given up and planned in full it is a job like any other: its crew comes, and a coordinator closes it", async () => {
  const { job, isolation, permit } = await approvedShort(site);
  expect(await site.refused("cora", "job.crew", { job, crew: ["ivo", "wim"] })).toMatch(/alone/);
  await site.done("ivo", "permit.cancel", { permit });
  await site.done("ivo", "return.start", { isolation });
  await walkAlone(site, isolation);
  await site.done("cora", "isolation.approve", { job, objective: "effort", school: "work", plantRevision: 1 });
  await site.done("cora", "job.crew", { job, crew: ["hal", "wim"] });
  expect(await site.refused("ivo", "job.close", { job })).toMatch(/coordinator/);
  await expectReplay(site);
});

test("whose lock hangs and who is not there: it is taken off by the removal of a lock, before they are on, on, or off", async () => {
  for (const [day, when] of (["locked", "on", "off"] as const).entries()) {
    site.clock_ms = Date.UTC(2026, 9, 6 + day, 7, 0);
    const { isolation, permit } = await approvedShort(site);
    await walkAlone(site, isolation, "ivo", ({ kind }) => when === "locked" && kind === "prove");
    if (when !== "locked") await site.done("ivo", "permit.begin-alone", { permit, ...BRIEFED });
    if (when === "off") await site.done("ivo", "permit.end-alone", { permit });
    const unlock = loadIsolation(site.db, isolation)!.life.steps.find(({ kind }) => kind === "unlock")!;
    expect(await site.refused("ines", "removal.open", { permit, owner: "ivo", reason: "Gone home." })).not.toBe("done");
    const { removal } = await site.done("cora", "removal.open", { permit, owner: "ivo", reason: "Gone home." });
    await site.done("cora", "removal.looked-for", { removal, words: "Gate log, workshop." });
    for (const words of ["Called.", "Called again."]) await site.done("cora", "removal.tried", { removal, words });
    await site.done("ana", "removal.authorise", { removal, words: "May be cut." });
    await site.done("ines", "removal.cut", { removal });
    // It is off: it is not cut twice, and nobody begins behind it.
    expect(await site.refused("cora", "removal.open", { permit, owner: "ivo", reason: "Again." })).not.toBe("done");
    const { state, signOns } = loadPermit(site.db, permit)!.life;
    expect(signOns.every(({ off_ms }) => off_ms !== null)).toBe(true);
    if (state === "live" || state === "suspended") await site.done("cora", "permit.end-alone", { permit });
    else if (state !== "closed") await site.done("cora", "permit.cancel", { permit });
    await site.done("cora", "return.start", { isolation });
    await walkAlone(site, isolation, "ines", ({ kind }) => kind === "unlock");
    await site.done("ines", "step.do", { isolation, step: unlock.id, ...soundReport(unlock) });
    expect(loadIsolation(site.db, isolation)!.life.state).toBe("restored");
    await site.done("ivo", "removal.read", { removal });
  }
  await expectReplay(site);
});

test("a line that nobody had drawn stops it at once, and the lock still comes off", async () => {
  const { isolation, permit } = await approvedShort(site);
  await walkAlone(site, isolation);
  await site.done("ivo", "permit.begin-alone", { permit, ...BRIEFED });
  await importing(site, ITEMS, FED_TWICE);
  site.db.transaction((tx) => settleNumbers(tx, [permit], site.clock_ms));
  expect(loadPermit(site.db, permit)!.life.state).toBe("suspended");
  expect(await site.refused("isa", "permit.resume", { permit, words: "Looked." })).not.toBe("done");
  await site.done("ivo", "permit.end-alone", { permit });
  await site.done("ivo", "return.start", { isolation });
  await walkAlone(site, isolation);
  expect(loadIsolation(site.db, isolation)!.life.state).toBe("restored");
});
