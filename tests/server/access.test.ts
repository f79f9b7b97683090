import { personOfToken } from "../../src/server/access/accessStore";
import { expectReplay } from "../support/expectReplay";
import { TestSite } from "../support/testSite";
import { peopleTwoJobs } from "../support/twoJobs";

/** Tokens of programs are made, counted, revoked, end with their owner, and are told once. */

const DAY_MS = 86_400_000;
let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await peopleTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const asked = { name: "Screen in the shop", rights: ["own calendar"], acts: ["permit.stop"], days: 30 };
async function made(who: string, more: object = {}): Promise<Readonly<{ number: string; secret: string }>> {
  const answer = await site.act(who, "access.make", { ...asked, ...more });
  if (!answer.ok) throw new Error(answer.sentence);
  return { number: String(answer.answer.token), secret: answer.once!.secret! };
}
const opens = (secret: string, at_ms = site.clock_ms) => personOfToken(site.db, secret, at_ms)?.access ?? null;

test("it is told once, opens what it was made for, for its owner, until its day", async () => {
  const { number, secret } = await made("isa");
  const found = personOfToken(site.db, secret, site.clock_ms)!;
  expect(found.person.signIn).toBe("isa");
  expect(found.access).toMatchObject({ number, rights: ["own calendar"], acts: ["permit.stop"] });
  expect(opens(`${secret}x`)).toBeNull();
  expect(opens(secret.slice(0, -1))).toBeNull();
  expect(opens(secret, site.clock_ms + 29 * DAY_MS)).not.toBeNull();
  expect(opens(secret, site.clock_ms + 31 * DAY_MS)).toBeNull();
  const dump = ["ledger", "access_tokens"].map((table) =>
    JSON.stringify(site.db.$client.prepare(`SELECT * FROM ${table}`).all()),
  );
  for (const text of dump) expect(text).not.toContain(secret);
});

test("its PIN signs the making; what nobody is given, nobody's program is", async () => {
  expect(await site.act("isa", "access.make", asked, { pin: "0000" })).toMatchObject({ ok: false });
  expect(await site.refused("isa", "access.make", { ...asked, acts: ["plant.import"] })).toMatch(/coordinator/);
  expect(await site.refused("cora", "access.make", { ...asked, acts: ["person.enter"] })).toMatch(/No program/);
  expect(await site.refused("isa", "access.make", { ...asked, days: 401 })).toMatch(/400 days/);
  expect(await site.refused("isa", "access.make", { ...asked, days: "soon" })).toMatch(/how many days/);
  expect(await site.refused("isa", "access.make", { ...asked, name: "" })).toMatch(/What it is for/);
  expect(await site.refused("isa", "access.make", { ...asked, rights: [], acts: [] })).toMatch(/opens nothing/);
  expect(site.db.$client.prepare("SELECT count(*) FROM access_tokens").pluck().get()).toBe(0);
});

test("its owner or a coordinator revokes it; anybody else does not learn that it is there", async () => {
  const first = await made("isa");
  const second = await made("isa");
  expect(await site.refused("hal", "access.revoke", { token: first.number })).toMatch(/no token of yours/);
  expect(await site.refused("hal", "access.revoke", { token: "T-9999" })).toMatch(/no token of yours/);
  await site.done("isa", "access.revoke", { token: first.number });
  expect([opens(first.secret), opens(second.secret)].map((one) => one !== null)).toEqual([false, true]);
  expect(await site.refused("isa", "access.revoke", { token: first.number })).toMatch(/already/);
  await site.done("cora", "access.revoke", { token: second.number });
  expect(opens(second.secret)).toBeNull();
});

test("who has left leaves no door open, also when they come back", async () => {
  const { secret } = await made("hal");
  await site.done("cora", "person.leave", { person: "hal", words: "Went to another site" });
  expect(opens(secret)).toBeNull();
  await site.done("cora", "person.come-back", { person: "hal" });
  expect(opens(secret)).toBeNull();
});
