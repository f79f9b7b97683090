import { randomUUID } from "node:crypto";
import { ledger } from "../../src/server/db/schema";
import { ACTS } from "../../src/server/acts/acts";
import { runAct } from "../../src/server/acts/runAct";
import { verifyLedger } from "../../src/server/ledger/verify";
import { TestSite } from "../support/testSite";
import { approved, openTwoJobs } from "../support/twoJobs";

/** What somebody sends who means harm: it is refused at once, named, and leaves nothing behind but that it was refused. */

let site: TestSite;
const holder = globalThis as { heavyLanternDatabase?: unknown };
beforeAll(async () => {
  site = new TestSite();
  holder.heavyLanternDatabase = site.db;
  await openTwoJobs(site);
});
afterAll(() => {
  delete holder.heavyLanternDatabase;
  site.close();
});
const rows = () => site.db.select().from(ledger).all();
const whole = () => expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true });

test("of what somebody may not do nothing is read, and nothing of it is kept: there may be a PIN in it", async () => {
  const refused = [...ACTS.values()].filter(({ roles }) => roles.length > 0 && !roles.includes("worker"));
  expect(refused.length).toBeGreaterThan(40);
  const before = rows().length;
  for (const { type } of refused) {
    const answer = await site.act("wim", type, { pin: "secret-4711", comingPin: "secret-4711", pairs: [{}], lifts: 7 });
    expect({ type, code: answer.ok ? "done" : answer.code }).toEqual({ type, code: "not yours to do" });
    // A second is a minute here: no flood.
    site.clock_ms += 60_000;
  }
  const kept = rows().slice(before);
  expect(kept.map(({ outcome }) => outcome)).toEqual(refused.map(() => "refused"));
  expect(kept.filter(({ body }) => body.includes("secret-4711"))).toEqual([]);
  whole();
});

test("no text makes anybody wait: hostile fields are refused before they are looked through", async () => {
  const { job } = await approved(site, { place: "P" });
  const spaces = " ".repeat(120_000);
  const began = performance.now();
  for (const input of [
    { job, weather: "dry", tools: [], lifts: `a${spaces}b, 80${spaces}kg, 2, P` },
    { job, weather: spaces, tools: [], inspected: [] },
    { job, weather: "dry", tools: Array.from({ length: 50_000 }, () => "x"), inspected: [] },
  ]) {
    const answer = await site.act("cora", "hazard.conditions", input);
    expect(answer).toMatchObject({ ok: false, code: "bad input" });
  }
  expect(performance.now() - began).toBeLessThan(3000);
});

test("half a letter, a control character or a name out of nowhere breaks no chain", async () => {
  for (const number of ["L-\ud800", "L-\u0000", "\udfff"]) {
    const answer = await site.act("cora", "gear.enter", { kind: "lock", number });
    expect(answer).toMatchObject({ ok: false, code: "bad input", field: "number" });
  }
  const strange = JSON.parse('{"__proto__": {"roles": ["coordinator"]}, "kind": "lock", "number": "L-77"}') as unknown;
  await site.act("wim", "gear.enter", strange);
  await site.done("cora", "gear.enter", { kind: "lock", number: "L-78" });
  whole();
});

test("a thousand refusals in a minute are not a thousand rows, and an act of somebody else is done meanwhile", async () => {
  const before = rows().length;
  const person = {
    id: "wim",
    name: "wim",
    signIn: "wim",
    roles: ["worker"],
    competences: [],
    units: "metric",
    firm: "",
  } as never;
  for (let i = 0; i < 400; i++) {
    const envelope = { version: 1, actId: randomUUID(), type: "plant.import", input: {} };
    expect((await runAct(envelope, person, site.clock_ms, site.db, site.headFile)).ok).toBe(false);
  }
  expect(rows().length - before).toBeLessThanOrEqual(120);
  await site.done("cora", "gear.enter", { kind: "lock", number: "L-79" });
  whole();
});
