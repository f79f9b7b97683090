import { eq } from "drizzle-orm";
import { CREW_IDLE_MS } from "../../src/core/crew/crewRound";
import { peopleOn } from "../../src/core/permit/record/permitTypes";
import { missingNow } from "../../src/core/permit/people/roll";
import { ledger, sessions } from "../../src/server/db/schema";
import { countedFor } from "../../src/server/people/attempts";
import { openSession, pinFault } from "../../src/server/people/signIn";
import { loadPermit } from "../../src/server/permit/permitStore";
import { expectReplay } from "../support/expectReplay";
import { PIN, TestSite } from "../support/testSite";
import { atWork, openTwoJobs } from "../support/twoJobs";

/** A crew signs on at one screen at the box, each with their own PIN and lock, with whoever leads or issued the work beside them. */

jest.setTimeout(60_000);
const TWENTY = Array.from({ length: 20 }, (_, i) => `crew-${String(i + 1).padStart(2, "0")}`);
let site: TestSite;
let permit: string;
let job: string;
let token: string;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
  await site.add(...TWENTY.map((signIn) => ({ signIn, roles: ["worker"] as const })));
  ({ permit, job } = await atWork(site, { place: "T", crew: ["hal", "wim", "will", ...TWENTY] }));
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  ({ token } = openSession(site.db, "hal", site.clock_ms));
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

/** From the screen at the box, where hal signed in. */
const at = async (type: string, input: object, pin?: string) => {
  const answer = await site.act("hal", type, input, { token, ...(pin === undefined ? {} : { pin }) });
  return answer.ok ? "done" : answer.sentence;
};
const begin = async () => {
  expect(await at("crew.begin", { permit })).toBe("done");
  return site.db
    .select()
    .from(sessions)
    .all()
    .find(({ crewRound }) => crewRound !== null)!.crewRound!;
};
const on = (crew: string, who: string, more: object = {}) =>
  at("crew.sign-on", { permit, crew, who, lock: `L-${who}`, whoPin: PIN, ...more });
const there = () => peopleOn(loadPermit(site.db, permit)!.life).map(({ person }) => person as string);

test("twenty come on and go off, each by their own hand and with a lock of their own; the record names who stood by", async () => {
  const crew = await begin();
  for (const who of TWENTY) expect(await on(crew, who)).toBe("done");
  expect(there()).toEqual(["hal", ...TWENTY]);
  const rows = site.db.select().from(ledger).where(eq(ledger.type, "crew.sign-on")).all();
  expect(rows.map(({ byPerson, body }) => [byPerson, /"who":"([^"]*)"/.exec(body)![1]])).toEqual(
    TWENTY.map((who) => ["hal", who]),
  );
  expect(rows.filter(({ body }) => body.includes(PIN))).toEqual([]);
  for (const who of TWENTY) expect(await at("crew.sign-off", { permit, crew, who, whoPin: PIN })).toBe("done");
  expect(there()).toEqual(["hal"]);
  expect(await at("crew.end", { crew })).toBe("done");
});

test("who leads or issued the work stands by, and nobody else", async () => {
  for (const who of ["cora", "wim", "hob"]) {
    expect(await site.refused(who, "crew.begin", { permit })).toMatch(/At the box of .* stands hal or isa/);
  }
  expect(await site.refused("isa", "crew.begin", { permit })).toBe("done");
  const crew = await begin();
  // A round is of one permit and one person.
  const input = { permit, crew, who: "wim", lock: "W-1", whoPin: PIN };
  expect(await site.refused("isa", "crew.sign-on", input)).toMatch(/is hal's/);
  site.step_ms = 1000;
  const other = await atWork(site, { place: "P", holder: "hob", crew: ["hob", "wim"] });
  expect(await on(crew, "wim", { permit: other.permit, answer: "P" })).toMatch(/is hal's, for/);
  await site.done("hob", "permit.sign-on", { permit: other.permit, lock: "B-1" });
  await site.done("wim", "permit.sign-on", { permit: other.permit, lock: "W-1" });
  // Who is at other work is told at the box, and comes only where they say that both know.
  expect(await on(crew, "wim", { lock: "W-2" })).toContain(other.permit);
  expect(await on(crew, "wim", { lock: "W-2", also: other.permit })).toBe("done");
});

test("nothing that is asked at a sign-on is asked less at the box", async () => {
  const crew = await begin();
  site.step_ms = 1000;
  const refused: readonly (readonly [object, RegExp])[] = [
    [{ who: "vera" }, /crew/],
    [{ answer: "V-1" }, /./],
    [{ briefed: false }, /briefing/],
    [{ lock: "" }, /number of the lock/],
    [{ lock: "H-1" }, /lock/i],
    [{ whoPin: "1111" }, /wim: The PIN is not right/],
    [{ whoPin: "" }, /PIN/],
    [{ who: "nobody" }, /no such person/],
    [{ crew: "C-0099" }, /C-0099/],
  ];
  for (const [more, sentence] of refused) {
    expect([more, await on(crew, "wim", more)]).toEqual([more, expect.stringMatching(sentence)]);
    expect(await on(crew, "wim", more)).not.toBe("done");
  }
  expect(there()).toEqual(["hal"]);
  await site.done("isa", "permit.stop", { permit, reason: "Smoke." });
  expect(await on(crew, "wim")).not.toBe("done");
});

test("wrong PINs count by whose they are: one who fumbles keeps nobody waiting, and nobody is shut out of their own device", async () => {
  const crew = await begin();
  for (let i = 0; i < 5; i++) expect(await on(crew, "wim", { whoPin: "1111" })).toMatch(/is not right/);
  expect(await on(crew, "wim")).toMatch(/Too many/);
  for (const who of TWENTY.slice(0, 12)) {
    expect(await on(crew, who, { whoPin: "1111" })).toMatch(/is not right/);
    expect(await on(crew, who)).toBe("done");
  }
  // What passers-by try in the leader's name at the box shuts nobody out of the leader's phone.
  for (let i = 0; i < 6; i++) await at("crew.end", { crew }, "1111");
  expect(await at("crew.end", { crew })).toMatch(/Too many/);
  for (const who of ["wim", "hal"]) {
    expect(await pinFault(site.db, { id: who as never }, PIN, site.clock_ms)).toBeNull();
  }
  // A coordinator lets somebody in again here as well.
  await site.done("cora", "person.let-in", { person: "wim" });
  expect(await on(crew, "wim")).toBe("done");
});

test("without anybody coming or going it is over after ten minutes, and then no PIN is even tried", async () => {
  const crew = await begin();
  site.clock_ms += CREW_IDLE_MS - 2 * site.step_ms;
  expect(await on(crew, "wim")).toBe("done");
  site.clock_ms += CREW_IDLE_MS - site.step_ms;
  for (const whoPin of [PIN, "1111"]) {
    expect(await on(crew, "will", { whoPin })).toMatch(/nobody came or went for ten minutes/);
  }
  expect(countedFor(site.db, "pin at a crew round will")).toBe(0);
  expect(there()).toEqual(["hal", "wim"]);
  // A clock that was set back makes no round younger than it is.
  const again = await begin();
  expect(again).not.toBe(crew);
  expect(await on(crew, "will")).toMatch(/nobody came or went/);
  expect(await on(again, "will")).toBe("done");
});

test("the screen at the box does nothing else until its round is ended; the leader's other devices do", async () => {
  const crew = await begin();
  for (const [type, input] of [
    ["permit.hand-back", { permit }],
    ["permit.sign-on", { permit, lock: "W-1" }],
    ["job.crew", { job, crew: [] }],
  ] as const) {
    expect(await at(type, input)).toMatch(/stands at the box for crew round/);
  }
  expect(await site.refused("hal", "permit.begin-break", { permit })).toBe("done");
  await site.done("hal", "permit.end-break", { permit });
  // Work stops from everywhere.
  expect(await at("permit.stop", { permit, reason: "Smoke." })).toBe("done");
  expect(await site.refused("wim", "crew.end", { crew })).toMatch(/is hal's/);
  expect(await at("crew.end", { crew })).toBe("done");
  expect(await at("permit.sign-off", { permit })).toBe("done");
});

test("the roll is called by name: who does not answer is missing until they do, or are off", async () => {
  const crew = await begin();
  for (const who of ["wim", "will", "crew-01"]) await on(crew, who);
  const missing = () => missingNow(loadPermit(site.db, permit)!.life)?.people ?? [];
  expect(missing()).toEqual([]);
  expect(await at("permit.call-roll", { permit, crew, seen: ["hal", "vera"] })).toMatch(/Vera is not on/);
  expect(await at("permit.call-roll", { permit, crew, seen: ["hal", "wim"] })).toBe("done");
  expect(missing()).toEqual(["will", "crew-01"]);
  await at("crew.sign-off", { permit, crew, who: "will", whoPin: PIN });
  expect(missing()).toEqual(["crew-01"]);
  expect(await site.refused("wim", "permit.call-roll", { permit, seen: ["wim"] })).toMatch(/may not call the roll/);
  await site.done("isa", "permit.call-roll", { permit, seen: ["hal", "wim", "crew-01"] });
  expect(missing()).toEqual([]);
});

test("who has not read how their lock was cut signs nothing, at the box or when the work is handed on", async () => {
  await site.done("wim", "permit.sign-on", { permit, lock: "W-1" });
  const { removal } = await site.done("cora", "removal.open", { permit, owner: "wim", reason: "Gone home." });
  await site.done("cora", "removal.looked-for", { removal, words: "Gate log, workshop." });
  for (const words of ["Called.", "Called again."]) await site.done("cora", "removal.tried", { removal, words });
  await site.done("ana", "removal.authorise", { removal, words: "May be cut." });
  await site.done("ines", "removal.cut", { removal });
  const crew = await begin();
  expect(await on(crew, "wim")).toMatch(/Wim: their lock W-1 .* was cut/);
  await site.done("will", "permit.sign-on", { permit, lock: "W-9" });
  const handOver = { permit, pairs: [{ from: "will", to: "wim", lock: "W-2", fromPin: PIN, toPin: PIN }] };
  expect(await site.refused("isa", "permit.hand-over", handOver)).toMatch(/Wim: their lock W-1/);
  await site.done("wim", "removal.read", { removal });
  expect(await on(crew, "wim", { lock: "W-3" })).toBe("done");
  await at("crew.sign-off", { permit, crew, who: "wim", whoPin: PIN });
  expect(await site.refused("isa", "permit.hand-over", handOver)).toBe("done");
});
