import { eq } from "drizzle-orm";
import { asAt } from "../../src/core/permit/life/permitLife";
import { revalidationDue } from "../../src/core/permit/requirements/every";
import { asksOf } from "../../src/core/permit/requirements/requirements";
import type { PermitLife } from "../../src/core/permit/record/permitTypes";
import { gear, ledger, permits } from "../../src/server/db/schema";
import { shiftChanges } from "../../src/server/runtime/siteTime";
import { permitNow } from "../../src/server/permit/permitFacts";
import { settleAll } from "../../src/server/permit/settlePermits";
import { replay, stateOf as rowsOf } from "../support/replay";
import { DETAILS, draftOf, HOUR, idOf, MINUTE, SHEET, wellFacts } from "../support/permits";
import { expectTold } from "../support/toldOf";
import { TestSite } from "../support/testSite";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { soundReport } from "../../src/core/isolation/soundReport";
import { verifyLedger } from "../../src/server/ledger/verify";
import { approved, atWork, openTwoJobs } from "../support/twoJobs";

const ZONE = "Europe/Berlin";
const facts = wellFacts({ shiftChanges_ms: (from, to) => shiftChanges(from + 1, to + 1, ZONE) });

/** A live permit that was accepted at its start. */
function live(from: string, hours: number): PermitLife {
  const from_ms = Date.parse(from);
  return draftOf(
    { kind: "general" },
    {
      state: "live",
      issuer: idOf("isa"),
      validFrom_ms: from_ms,
      validTo_ms: from_ms + hours * HOUR,
      log: [{ type: "signed", act: "accept", at_ms: from_ms, by: idOf("hal") }],
    },
  );
}
const owed = (permit: PermitLife, at: string) => {
  const due = revalidationDue({ permit, facts, now_ms: Date.parse(at) });
  return due && new Date(due.change_ms).toISOString();
};

describe("a permit's clock", () => {
  test("runs over midnight, and the night shift's change is the next morning's", () => {
    const permit = live("2026-11-24T22:30:00+01:00", 9);
    expect(owed(permit, "2026-11-25T00:01:00+01:00")).toBeNull();
    expect(asAt(permit, facts, Date.parse("2026-11-25T05:59:59+01:00")).state).toBe("live");
    expect(owed(permit, "2026-11-25T06:00:00+01:00")).toBe("2026-11-25T05:00:00.000Z");
    // Half an hour to revalidate, then it stops by itself.
    expect(asAt(permit, facts, Date.parse("2026-11-25T06:29:59+01:00")).state).toBe("live");
    expect(asAt(permit, facts, Date.parse("2026-11-25T06:30:00+01:00")).state).toBe("suspended");
  });
  test("counts hours, not figures on a clock, when summer time ends: the night has one more", () => {
    // 25 October 2026: at 03:00 it is 02:00 again. Ten hours from 22:30 end at 07:30, not at 08:30.
    const permit = live("2026-10-24T22:30:00+02:00", 10);
    const end = Date.parse("2026-10-25T07:30:00+01:00");
    expect(permit.validTo_ms).toBe(end);
    expect(owed(permit, "2026-10-25T05:59:59+01:00")).toBeNull();
    expect(owed(permit, "2026-10-25T06:00:00+01:00")).toBe("2026-10-25T05:00:00.000Z");
    const signed: PermitLife = {
      ...permit,
      log: [
        ...permit.log,
        { type: "signed", act: "revalidate", at_ms: Date.parse("2026-10-25T06:05:00+01:00"), by: idOf("isa") },
      ],
    };
    expect(asAt(signed, facts, end - 1000).state).toBe("live");
    expect(asAt(signed, facts, end).state).toBe("run out");
  });
  test("and when it begins: the night has one less, and the change comes an hour sooner", () => {
    // 29 March 2026: at 02:00 it is 03:00. From 22:30 to the change at 06:00 are six and a half hours.
    const permit = live("2026-03-28T22:30:00+01:00", 10);
    expect(owed(permit, "2026-03-29T05:59:59+02:00")).toBeNull();
    expect(owed(permit, "2026-03-29T06:00:00+02:00")).toBe("2026-03-29T04:00:00.000Z");
    expect(Date.parse("2026-03-29T06:00:00+02:00") - permit.validFrom_ms).toBe(6.5 * HOUR);
  });
  test("runs through a leap day, which is a day like any other", () => {
    const permit = live("2028-02-28T22:30:00+01:00", 24);
    expect(new Date(permit.validTo_ms).toISOString()).toBe("2028-02-29T21:30:00.000Z");
    expect(owed(permit, "2028-02-29T06:10:00+01:00")).toBe("2028-02-29T05:00:00.000Z");
    // Rehearsed on 29 February: a year later is 365 days, and the day after that is too late.
    const entry = draftOf({
      ...DETAILS["confined space entry"],
      rehearsed_ms: Date.parse("2028-02-29T10:00:00Z"),
    });
    const rescue = (at: string) =>
      asksOf({ permit: entry, facts, now_ms: Date.parse(at) }).find(({ id }) => id === "rescue")!.unmet;
    expect(rescue("2029-02-28T10:00:00Z")).toBeNull();
    expect(rescue("2029-03-01T10:00:00Z")).toMatch(/366 days/);
  });
});

describe("a server that slept", () => {
  let site: TestSite;
  beforeEach(async () => {
    site = new TestSite();
    await openTwoJobs(site);
  });
  afterEach(() => site.close());
  const stateOf = (permit: string) => site.db.select().from(permits).where(eq(permits.number, permit)).get()!.state;

  test("for six hours acts on what ran out as soon as it wakes, dated to the second, before anybody asks", async () => {
    const { permit } = await atWork(site, { place: "T" });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    const until = site.db.select().from(permits).where(eq(permits.number, permit)).get()!.validTo;
    // It falls asleep an hour before the end, and nobody did anything meanwhile.
    const wakes = until + 5 * HOUR;
    expect(settleAll(wakes, site.db, site.headFile)).toEqual([permit]);
    expect(stateOf(permit)).toBe("run out");
    const row = site.db.select().from(ledger).where(eq(ledger.type, "permit.ran-out")).get()!;
    expect([row.byPerson, row.doneAt, row.recordedAt]).toEqual(["clock", until, wakes]);
    // Once is enough.
    expect(settleAll(wakes + 1000, site.db, site.headFile)).toEqual([]);
    site.clock_ms = wakes;
    expect(await site.refused("wim", "permit.sign-on", { permit, lock: "W-1" })).toMatch(/ran out/);
    expect(await site.refused("isa", "permit.resume", { permit, words: "fine" })).toMatch(/ran out/);
    await site.done("hal", "permit.sign-off", { permit });
    await site.done("hal", "permit.hand-back", { permit });
    await site.done("isa", "permit.inspect", { permit, words: "clean" });
    await site.done("hal", "permit.return-copy", { permit, copy: 1 });
    await site.done("isa", "permit.close", { permit });
  });
  test("and the first act of a person finds it run out even when no look came before", async () => {
    const { permit } = await atWork(site, { place: "T" });
    site.clock_ms += 10 * HOUR;
    expect(await site.refused("wim", "permit.sign-on", { permit, lock: "W-1" })).toMatch(/ran out/);
    // The clock's own act is kept though the person's was refused.
    expect(stateOf(permit)).toBe("run out");
  });
  test("to the second: a look just before finds it live", async () => {
    const { permit } = await atWork(site, { place: "T" });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    const until = site.db.select().from(permits).where(eq(permits.number, permit)).get()!.validTo;
    // A shift changes in between: it is revalidated, so that only the end is left.
    site.clock_ms = until - 20 * MINUTE;
    const isStopped = permitNow(site.db, permit, site.clock_ms + MINUTE)!.now.state === "suspended";
    const act = isStopped ? "permit.resume" : "permit.revalidate";
    await site.done("isa", act, { permit, words: "As it was." });
    expect(permitNow(site.db, permit, until - 1)!.now.state).toBe("live");
    expect(permitNow(site.db, permit, until)!.now.state).toBe("run out");
  });
  test("whose clock is set back neither revives what ran out nor puts acts before those that were done", async () => {
    const { permit } = await atWork(site, { place: "T" });
    site.clock_ms += 10 * HOUR;
    await site.refused("wim", "permit.sign-on", { permit, lock: "W-1" });
    const before = site.db.select().from(ledger).all().at(-1)!.recordedAt;
    site.clock_ms -= 9 * HOUR;
    expect(await site.refused("wim", "permit.sign-on", { permit, lock: "W-1" })).toMatch(/ran out/);
    expect(stateOf(permit)).toBe("run out");
    const after = site.db.select().from(ledger).all().at(-1)!;
    expect(after.recordedAt).toBe(before);
    expect(settleAll(site.clock_ms, site.db, site.headFile)).toEqual([]);
  });
  test("whose clock was ahead and is set back stands still until a coordinator says that it is right; then everybody looks again", async () => {
    const { permit } = await atWork(site, { place: "T" });
    const settle = { words: "the radio's time signal" };
    expect(await site.refused("cora", "clock.settle", settle)).toMatch(/was not set back/);
    const { isolation } = await approved(site, { place: "P" });
    // An hour ahead for one act.
    site.clock_ms += HOUR;
    const [tell] = site.open(isolation);
    await site.done("ivo", "step.do", { isolation, step: tell!.id, ...soundReport(tell!) });
    site.clock_ms -= HOUR;
    const last = () => site.db.select().from(ledger).all().at(-1)!.recordedAt;
    const ahead = last();
    await site.refused("wim", "permit.sign-off", { permit });
    expect(last()).toBe(ahead);
    expect(await site.refused("hal", "clock.settle", settle)).toMatch(/You may not say that the clock is right/);
    expect(last()).toBe(ahead);
    const done = await site.done("cora", "clock.settle", settle);
    expect(done.stopped).toBe(1);
    expect(last()).toBe(site.clock_ms);
    expect(stateOf(permit)).toBe("suspended");
    await site.refused("wim", "permit.sign-off", { permit });
    expect(last()).toBe(site.clock_ms);
    expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true });
  });
  test("and nothing is dated later than now any more; what was proved by the wrong clock is proved again before work goes on", async () => {
    site.clock_ms += HOUR;
    const { permit, isolation } = await atWork(site, { place: "P" });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    await site.done("hal", "permit.sign-off", { permit });
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    const inDateUntil_ms = site.clock_ms + 100 * 24 * HOUR;
    await site.done("cora", "gear.enter", { kind: "gas instrument", number: "GI-4", inDateUntil_ms, sheet: SHEET });
    const gas = { number: "GI-4", gas: "test gas", verdict: "alarmed", zeroed: true };
    await site.done("cora", "gear.bump", gas);
    site.clock_ms -= HOUR;
    await site.done("cora", "clock.settle", { words: "the radio's time signal" });
    // Nobody knows whether that was in this shift.
    const instrument = site.db.select().from(gear).where(eq(gear.number, "GI-4")).get()!;
    expect([instrument.zeroedAt, instrument.bumpedAt]).toEqual([null, null]);
    const { now } = permitNow(site.db, permit, site.clock_ms)!;
    // In the order in which it was.
    expect(now.signOns.map(({ off_ms }) => off_ms === null)).toEqual([false, true]);
    const times = [
      ...now.signOns.flatMap(({ on_ms, off_ms }) => [on_ms, off_ms ?? on_ms]),
      ...now.log.map(({ at_ms }) => at_ms),
    ];
    expect(Math.max(...times)).toBe(site.clock_ms);
    expect(now.log.map(({ at_ms }) => at_ms)).toEqual(now.log.map(({ at_ms }) => at_ms).sort((a, b) => a - b));
    expect(now.log.slice(-2).map(({ type }) => type)).toEqual(["clock set", "stopped"]);
    // The board and the alarms say so too.
    expectTold(site);
    await site.done("hal", "permit.sign-off", { permit });
    const resume = { permit, words: "Looked at." };
    expect(await site.refused("isa", "permit.resume", resume)).toMatch(/timed by a clock that was wrong/);
    const proofs = loadIsolation(site.db, isolation)!.life.steps.filter(({ kind, done }) => kind === "prove" && done);
    for (const proof of proofs) {
      expect(proof.done!.at_ms).toBeLessThanOrEqual(site.clock_ms);
      await site.done("vera", "step.prove-again", { isolation, step: proof.id, ...soundReport(proof) });
    }
    await site.done("isa", "permit.resume", resume);
    // Only the state: what is looked back at is dated rightly by now, and was not then.
    const again = new TestSite("again.db");
    expect(await replay(site.db, again.db)).toBe(site.db.select().from(ledger).all().at(-1)!.hash);
    expect(rowsOf(again.db)).toEqual(rowsOf(site.db));
    again.close();
  });
});
