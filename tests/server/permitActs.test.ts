import { eq } from "drizzle-orm";
import { detectors, ledger, permitLog, permits } from "../../src/server/db/schema";
import { receive } from "../../src/server/permit/instruments";
import { tokenHash } from "../../src/server/permit/detectorStore";
import { jobHazards } from "../../src/server/hazard/hazardStore";
import { permitNow } from "../../src/server/permit/permitFacts";
import { settleAll } from "../../src/server/permit/settlePermits";
import { message, SCENARIOS } from "../../src/instruments/scenarios";
import { DETAILS, HOUR, MINUTE, SHEET } from "../support/permits";
import { TestSite } from "../support/testSite";
import { expectReplay } from "../support/expectReplay";
import { decideHazards, drafted, toTick } from "../support/writePermit";
import { approved, atWork, openTwoJobs } from "../support/twoJobs";

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
  await site.add(
    { signIn: "gil", roles: ["gas tester"] },
    { signIn: "fay", roles: ["fire watch"] },
    { signIn: "fin", roles: ["fire watch"] },
  );
  await site.done("cora", "gear.enter", {
    kind: "gas instrument",
    number: "GI-1",
    rating_V: null,
    error: null,
    inDateUntil_ms: site.clock_ms + 100 * 24 * HOUR,
    sheet: SHEET,
  });
  await site.done("gil", "gear.bump", { number: "GI-1", gas: "methane", verdict: "alarmed", zeroed: true });
});
afterEach(() => site.close());

const at = (more: object = {}) => ({
  words: "Grind it.",
  hazards: "Sparks.",
  precautions: "Screens.",
  validFrom_ms: site.clock_ms - HOUR,
  validTo_ms: site.clock_ms + 8 * HOUR,
  ...more,
});
const HOT = { ...DETAILS["hot work"], points: ["at the work"], x_m: 500, y_m: 500 };
const unmet = (permit: string) =>
  permitNow(site.db, permit, site.clock_ms)!.now.log.filter(({ type }) => type === "stopped");

/** Hazards of grinding, with a question that somebody asked and somebody answered. */
async function analysed(job: string) {
  await site.done("wim", "hazard.ask", { job, words: "Anything else?" });
  await decideHazards(site, job, "grinder");
  for (const { id } of jobHazards(site.db, job)!.hazards.questions) {
    await site.done("hal", "hazard.answer", { job, question: id, words: "No." });
  }
}

/** Hazards decided, hot work on a proven isolation, live, with a watch. */
async function hotWork(place = "T") {
  const made = await approved(site, { place, how: ["touch"] });
  await site.walk(made.isolation, { first: "ivo", second: "vera" });
  await site.done("cora", "box.hang", { box: made.box, role: "coordinator", lock: `C-${made.box}` });
  await analysed(made.job);
  const { permit } = await site.done("hal", "permit.draft", { job: made.job, ...at(), details: HOT });
  const P = { permit: String(permit) };
  await site.done("cora", "permit.check", P);
  await site.done("isa", "permit.authorise", P);
  await site.done("cora", "permit.tick", {
    ...P,
    asks: ["floor", "screens", "extinguisher", "edge detector", "zone no place known no area"],
  });
  await site.done("isa", "permit.issue", { ...P, copies: ["at the door"] });
  await site.done("fay", "permit.take-post", { ...P, post: "fire watch", ready: true });
  await readAir(P.permit);
  await site.done("hal", "permit.accept", P);
  return { ...made, ...P };
}
async function readAir(permit: string, flammable_percent = 0) {
  await site.done("gil", "permit.begin-sample", { permit, point: "at the work", instrument: "GI-1" });
  site.clock_ms += 2 * MINUTE;
  return site.done("gil", "permit.read-air", {
    permit,
    point: "at the work",
    oxygen_percent: "20.9",
    flammable_percent,
  });
}
describe("permits by kind, by their acts", () => {
  test("hot work waits for hazards, ticks, a watch and the air, and says what is missing", async () => {
    const made = await approved(site, { place: "T", how: ["touch"] });
    await site.walk(made.isolation, { first: "ivo", second: "vera" });
    const { permit } = await site.done("hal", "permit.draft", { job: made.job, ...at(), details: HOT });
    const P = { permit: String(permit) };
    await site.done("cora", "permit.check", P);
    await site.done("isa", "permit.authorise", P);
    const said = await site.refused("isa", "permit.issue", P);
    expect(said).toMatch(/lacks \d+ things: The job's hazards are decided: nobody has gone through/);
    await analysed(made.job);
    expect(await site.refused("isa", "permit.issue", P)).not.toMatch(/hazards/);
    expect(await site.refused("wim", "permit.tick", { ...P, asks: ["floor"] })).toMatch(
      /You may not confirm permit conditions/,
    );
    expect(await site.refused("cora", "permit.tick", { ...P, asks: ["watch"] })).toMatch(/not ticked by hand/);
    expect(await site.refused("cora", "permit.tick", { ...P, asks: [] })).toMatch(/tick what you have looked at/);
    await site.done("cora", "permit.tick", {
      ...P,
      asks: ["floor", "screens", "extinguisher", "edge detector", "zone no place known no area"],
    });
    await site.done("isa", "permit.issue", P);
    expect(await site.refused("hal", "permit.accept", P)).toMatch(/A fire watch is on duty: 0 of 1 on duty/);
  });
  test("a bad reading stops it for everybody, and only the issuer lets it go on", async () => {
    const { permit } = await hotWork();
    await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
    const read = await readAir(permit, 12);
    expect(read.state).toBe("suspended");
    expect(unmet(permit)).toHaveLength(1);
    expect(await site.refused("wim", "permit.sign-on", { permit, lock: "W-1" })).toMatch(
      /is stopped: at the work: flammable 12 %/,
    );
    expect(await site.refused("isa", "permit.resume", { permit, words: "fine" })).toMatch(/The air is tested and fit/);
    await readAir(permit);
    // Whence it came is written down before anybody goes on.
    expect(await site.refused("isa", "permit.resume", { permit, words: "fine" })).toMatch(
      /Every bad reading has its cause/,
    );
    const found = { permit, point: "at the work", cause: "source", words: "a packing leaked; tightened" };
    expect(await site.refused("wim", "permit.find-cause", found)).toMatch(/You may not write down the cause/);
    await site.done("gil", "permit.find-cause", found);
    expect(await site.refused("hal", "permit.resume", { permit, words: "fine" })).toMatch(/You may not let work go on/);
    await site.done("isa", "permit.resume", { permit, words: "valve shut, air clean" });
  });
  test("an instrument is read from only after its bump test; one that does not alarm is withdrawn", async () => {
    const { permit } = await hotWork();
    const inDateUntil_ms = site.clock_ms + 100 * 24 * HOUR;
    await site.done("cora", "gear.enter", { kind: "gas instrument", number: "GI-2", inDateUntil_ms, sheet: SHEET });
    const sample = { permit, point: "at the work", instrument: "GI-2" };
    const bump = { number: "gi-2", gas: "methane", verdict: "alarmed" };
    expect(await site.refused("gil", "permit.begin-sample", sample)).toMatch(/GI-2 alarm in the last 24 hours. Blow/);
    expect(await site.refused("wim", "gear.bump", bump)).toMatch(/You may not bump test gas instruments/);
    expect(await site.refused("gil", "gear.bump", { ...bump, number: "GI-7" })).toMatch(/no gas instrument GI-7/);
    await site.done("gil", "gear.bump", bump);
    // What was read with one that does not alarm was never read: the work in that air stops.
    expect(unmet(permit)).toEqual([]);
    await site.done("gil", "gear.bump", { ...bump, number: "GI-1", verdict: "did not alarm" });
    expect(unmet(permit)).toMatchObject([
      { cause: "gas", reason: expect.stringMatching(/GI-1, which was withdrawn/) as unknown },
    ]);
    await site.done("gil", "permit.begin-sample", sample);
    await site.done("gil", "gear.bump", { ...bump, verdict: "did not alarm" });
    expect(await site.refused("gil", "permit.begin-sample", sample)).toMatch(/GI-2 was withdrawn/);
    expect(await site.refused("gil", "gear.bump", bump)).toMatch(/GI-2 was withdrawn/);
  });
  test("anybody stops work without a PIN; the reason is kept, in a log that nobody can change", async () => {
    const { permit } = await hotWork();
    const stop = await site.act("wanda", "permit.stop", { permit, reason: "sparks below the grating" }, { pin: "" });
    expect(stop).toMatchObject({ ok: true, answer: { state: "suspended" } });
    expect(await site.refused("wanda", "permit.stop", { permit, reason: " " })).toMatch(
      /Why the work stops is missing/,
    );
    const row = () => site.db.update(permitLog).set({ at: 0 }).run();
    expect(row).toThrow(/append-only/);
    expect(() => site.db.delete(permitLog).run()).toThrow(/append-only/);
  });
  test("the next day's permit is the same work under a new number, linked, within its length", async () => {
    const { permit } = await hotWork();
    const day = { validFrom_ms: site.clock_ms + 8 * HOUR, validTo_ms: site.clock_ms + 30 * HOUR };
    const { permit: next } = await site.done("hal", "permit.next-day", { permit, ...day });
    const row = site.db
      .select()
      .from(permits)
      .where(eq(permits.number, String(next)))
      .get()!;
    expect(row).toMatchObject({ previous: permit, state: "draft", kind: "hot work", words: "Grind it." });
    const long = { ...day, validTo_ms: day.validFrom_ms + 24 * HOUR + 1 };
    expect(await site.refused("hal", "permit.next-day", { permit, ...long })).toMatch(/longer than 24 hours/);
  });
  test("bad details are refused, every field of them, and nothing is written", async () => {
    const { job } = await approved(site, { place: "T" });
    const bad = { ...HOT, works: [], welders: "0", x_m: "" };
    const answer = await site.act("hal", "permit.draft", { job, ...at({ words: "" }), details: bad });
    const faults = answer.ok ? [] : (answer.faults ?? []).map(({ field }) => field);
    expect(faults).toEqual(["words", "details.works", "details.x_m", "details.welders"]);
    expect(site.db.select().from(permits).all()).toEqual([]);
  });
  test("two jobs near each other: a person decides before the second is issued, and the decision counts for both", async () => {
    const first = await atWork(site, { place: "P" });
    const second = await approved(site, { place: "P", crew: ["hob"], holder: "hob" });
    await site.walk(second.isolation, { first: "ivo", second: "vera" });
    const permit = await drafted(site, { job: second.job, holder: "hob" });
    await site.done("cora", "permit.check", { permit });
    await site.done("isa", "permit.authorise", { permit });
    expect(await site.refused("isa", "permit.issue", { permit })).toMatch(/Both work at P: say who goes first/);
    const clash = permitNow(site.db, String(permit), site.clock_ms)!.facts.clashes[0]!.id;
    const decide = { permit, clash, decision: "go on", reason: "hal's crew first, hob's after dinner" };
    expect(await site.refused("hob", "permit.decide-clash", decide)).toMatch(
      /You may not decide a conflict with other work/,
    );
    expect(await site.refused("isa", "permit.decide-clash", { ...decide, reason: "" })).toMatch(
      /The reason is missing/,
    );
    await site.done("isa", "permit.decide-clash", decide);
    await decideHazards(site, second.job);
    await site.done("cora", "permit.tick", { permit, asks: toTick(site, permit), words: "seen" });
    await site.done("isa", "permit.issue", { permit });
    // The first goes on: it was decided for both.
    expect(permitNow(site.db, first.permit, site.clock_ms)!.now.state).toBe("live");
  });
  test("a bypass stands without an isolation, is approved, and nobody signs on to it", async () => {
    const { job } = await approved(site, { place: "T" });
    const details = { ...DETAILS["safeguard bypass"], until_ms: site.clock_ms + 24 * HOUR };
    await analysed(job);
    const { permit } = await site.done("hal", "permit.draft", { job, ...at(), details });
    const P = { permit: String(permit) };
    await site.done("cora", "permit.check", P);
    await site.done("isa", "permit.authorise", P);
    expect(await site.refused("isa", "permit.issue", P)).toMatch(/Approved by safety/);
    await site.done("ana", "permit.approve", { ...P, words: "for a day" });
    await site.done("cora", "permit.tick", { ...P, asks: ["compensation"] });
    await site.done("isa", "permit.issue", { ...P, copies: ["at the panel"] });
    await site.done("hal", "permit.accept", P);
    expect(await site.refused("hal", "permit.sign-on", { ...P, lock: "H-1" })).toMatch(/has no isolation/);
  });
});

test("a ledger with hazards, lifts, air and a watch, played again on an empty database, gives the same", async () => {
  const { permit, job } = await hotWork();
  const lift = { job, weather: "wind from the west", wind_m_s: "6", tools: "grinder", inspected: "grinder" };
  const wrong = await site.refused("cora", "hazard.conditions", { ...lift, lifts: "gear unit, heavy, 2, T" });
  expect(wrong).toMatch(/^lifts: “gear unit, heavy, 2, T”: write what, how many kg/);
  await site.done("cora", "hazard.conditions", { ...lift, lifts: "gear unit, 40 kg, 2, T" });
  await site.done("hal", "hazard.decide", { job, hazard: "lift", verdict: "kept" });
  await readAir(permit, 3);
  await site.done("wanda", "permit.stop", { permit, reason: "smoke" });
  await expectReplay(site);
});

describe("instruments", () => {
  const TOKEN = "token-of-a-detector-under-test";
  beforeEach(() => {
    site.db
      .insert(detectors)
      .values({ id: "GD-1", kind: "gas", tokenHash: tokenHash(TOKEN) })
      .run();
  });
  let sequence = 0;
  const send = (scenario: string, second: number, token = TOKEN) => {
    const sent = message(SCENARIOS[scenario]!, second, ++sequence);
    return receive(token, sent, site.clock_ms, site.db, site.headFile);
  };

  test("one that is silent is not posted; one that sends is, at one place, and stays while the work is live", async () => {
    const { permit } = await hotWork();
    const post = { permit, detector: "GD-1", place: "at the work" };
    expect(await site.refused("fay", "detector.post", post)).toMatch(/GD-1 sends nothing/);
    site.step_ms = 1000;
    site.clock_ms += 110 * MINUTE;
    send("clean", 0);
    expect(await site.refused("fay", "detector.post", { ...post, place: "beside the flame" })).toMatch(
      /not beside the flame/,
    );
    await site.done("fay", "detector.post", post);
    send("clean", 1);
    expect(await site.refused("fay", "detector.take", { permit, detector: "GD-1" })).toMatch(/is active/);
    // It reads all the time: the air is not asked for again after two hours, of which 110 min were over when it was posted.
    const until_ms = site.clock_ms + 12 * MINUTE;
    while (site.clock_ms < until_ms) {
      site.clock_ms += 9_000;
      send("clean", 0);
    }
    expect(permitNow(site.db, permit, site.clock_ms)!.now.state).toBe("live");
    // Nobody looked while it said nothing, and now it sends again: what it did not say stops the work all the same.
    site.clock_ms += 10 * MINUTE;
    expect(send("clean", 0)).toEqual({ ok: true, stopped: permit });
    expect(permitNow(site.db, permit, site.clock_ms)!.life.state).toBe("suspended");
  });
  test("a reading over the limit stops the permit in its own transaction, and the ledger names the instrument", async () => {
    const { permit } = await hotWork();
    site.step_ms = 1000;
    send("clean", 0);
    await site.done("fay", "detector.post", { permit, detector: "GD-1", place: "at the edge" });
    expect(send("pocket", 10)).toEqual({ ok: true, stopped: null });
    expect(send("pocket", 20)).toEqual({ ok: true, stopped: permit });
    const row = site.db.select().from(ledger).where(eq(ledger.type, "permit.stopped-by-itself")).get()!;
    expect([row.byPerson, row.subject]).toEqual(["instrument GD-1", permit]);
    expect(unmet(permit).at(-1)).toMatchObject({ cause: "gas" });
    // What comes late or twice changes nothing.
    const old = receive(TOKEN, { ...message(SCENARIOS.clean!, 0, 1)! }, site.clock_ms, site.db, site.headFile);
    expect(old).toEqual({ ok: true, stopped: null });
    expect(await site.refused("isa", "permit.resume", { permit, words: "fine" })).toMatch(/GD-1: flammable/);
  });
  test("ten seconds of silence stop it at the next look", async () => {
    const { permit } = await hotWork();
    site.step_ms = 1000;
    send("clean", 0);
    await site.done("fay", "detector.post", { permit, detector: "GD-1", place: "at the edge" });
    send("silence", 1);
    expect(settleAll(site.clock_ms + 10_000, site.db, site.headFile)).toEqual([]);
    expect(settleAll(site.clock_ms + 10_001, site.db, site.headFile)).toEqual([permit]);
    expect(unmet(permit).at(-1)).toMatchObject({ cause: "silent detector", by: null });
  });
  test("an unknown token and a broken message are refused", () => {
    expect(send("clean", 0, "another-token-altogether")).toMatchObject({ ok: false, status: 401 });
    const broken = receive(TOKEN, { version: 1, sequence: 1, battery: "full" }, site.clock_ms, site.db, site.headFile);
    expect(broken).toMatchObject({ ok: false, status: 400 });
    expect(broken.ok ? "" : broken.sentence).toMatch(/^battery: /);
  });
});
