import { expectReplay } from "../support/expectReplay";
import { message, SCENARIOS } from "../../src/instruments/scenarios";
import { receive } from "../../src/server/permit/instruments";
import { detectorRows } from "../../src/server/permit/detectorStore";
import { verifyLedger } from "../../src/server/ledger/verify";
import { TestSite } from "../support/testSite";
import { peopleTwoJobs } from "../support/twoJobs";

/** Tokens of instruments are made, made anew and revoked on the screen, and told once. */

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await peopleTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const tokenOf = async (type: string, input: object): Promise<string> => {
  const answer = await site.act("cora", type, input);
  if (!answer.ok) throw new Error(answer.sentence);
  expect(JSON.stringify(answer.answer)).not.toContain(answer.once!.token);
  return answer.once!.token!;
};
const status = (token: string) => {
  const sent = receive(token, message(SCENARIOS.clean!, 0, site.clock_ms), site.clock_ms, site.db, site.headFile);
  return sent.ok ? 200 : sent.status;
};

test("an instrument is entered once by a coordinator, and sends by the token that was told once", async () => {
  const entered = { id: "GD-9", kind: "gas", gases: "Hydrogen sulphide, hydrogen sulphide; carbon monoxide" };
  expect(await site.refused("isa", "instrument.enter", entered)).toMatch(/coordinator/);
  const token = await tokenOf("instrument.enter", entered);
  expect(detectorRows(site.db)).toMatchObject([
    { id: "GD-9", reads: ["oxygen", "flammable", "hydrogen sulphide", "carbon monoxide"] },
  ]);
  expect(status(token)).toBe(200);
  expect(status(`${token}x`)).toBe(401);
  expect(await site.refused("cora", "instrument.enter", entered)).toMatch(/already/);
  expect(await site.refused("cora", "instrument.enter", { ...entered, id: "no number!" })).toMatch(/letters, figures/);
});

test("a new token ends the old one, and a revoked instrument is refused until it has another", async () => {
  const first = await tokenOf("instrument.enter", { id: "GD-9", kind: "gas" });
  const second = await tokenOf("instrument.new-token", { id: "GD-9" });
  expect([status(first), status(second)]).toEqual([401, 200]);
  expect(await site.refused("cora", "instrument.revoke", { id: "GD-9", words: "" })).toMatch(/write why/);
  expect(await site.refused("isa", "instrument.revoke", { id: "GD-9", words: "Lost." })).toMatch(/coordinator/);
  await site.done("cora", "instrument.revoke", { id: "GD-9", words: "Lost at the quay." });
  expect(status(second)).toBe(401);
  expect(await site.refused("cora", "instrument.revoke", { id: "GD-9", words: "Lost." })).toMatch(/already/);
  expect(status(await tokenOf("instrument.new-token", { id: "GD-9" }))).toBe(200);
  expect(await site.refused("cora", "instrument.new-token", { id: "GD-8" })).toMatch(/GD-8/);
  expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true, stateKnown: true });
  // No token is in the record.
  const bodies = site.db.$client.prepare("SELECT body FROM ledger").pluck().all().join();
  expect(bodies).not.toContain(second);
});
