import { ledger } from "../../src/server/db/schema";
import { handoverItems } from "../../src/server/handover/handoverItems";
import { lastHandover } from "../../src/server/handover/handoverStore";
import { keyOf } from "../../src/core/handover/handover";
import { permitNow } from "../../src/server/permit/permitFacts";
import { expectReplay } from "../support/expectReplay";
import { TestSite } from "../support/testSite";
import { atWork, openTwoJobs } from "../support/twoJobs";
import { drafted, signedToIssue } from "../support/writePermit";

const PERMITS = 12;
const PIN = "2468";
let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const items = () => handoverItems(site.db, site.clock_ms, lastHandover(site.db)?.at_ms ?? 0);
const handing = (more: object = {}) => ({
  coming: "colin",
  comingPin: PIN,
  read: items().map(keyOf),
  asked: [],
  ...more,
});

/** One job with twelve permits, of which three are stopped. */
async function twelve(): Promise<string[]> {
  // Quick enough that the proofs stay fresh.
  site.step_ms = 5_000;
  const { job, permit } = await atWork(site, { place: "T" });
  const all = [permit];
  while (all.length < PERMITS) {
    const next = await drafted(site, { job });
    await signedToIssue(site, next);
    await site.done("hal", "permit.accept", { permit: next });
    all.push(next);
  }
  for (const [i, reason] of ["it smells", "the scaffold moves", "hail"].entries()) {
    await site.done("wim", "permit.stop", { permit: all[i]!, reason });
  }
  return all;
}

test("a shift of twelve permits, some stopped, is gone through item by item and signed by both; nothing is left out", async () => {
  const all = await twelve();
  const shown = items();
  for (const number of all) expect(shown.map(({ subject }) => subject)).toContain(number);
  const bold = shown.filter((one) => one.bold).map(keyOf);
  expect(bold.filter((key) => /: Stopped .*: (it smells|the scaffold moves|hail)\.$/.test(key))).toHaveLength(3);
  expect(bold.filter((key) => /, suspended, until/.test(key))).toHaveLength(3);

  const [first, ...rest] = shown.map(keyOf);
  expect(await site.refused("isa", "shift.hand-over", handing({ read: rest }))).toContain(
    `Not gone through yet, 1: ${first!.replace(/\.$/, "")}.`,
  );
  expect(await site.refused("wim", "shift.hand-over", handing())).toMatch(/You may not hand over a shift/);
  expect(await site.refused("isa", "shift.hand-over", handing({ coming: "wim" }))).toMatch(
    /Wim does not answer for a shift/,
  );
  expect(await site.refused("colin", "shift.hand-over", handing())).toMatch(/somebody else than who goes/);
  expect(await site.refused("isa", "shift.hand-over", handing({ comingPin: "0000" }))).toMatch(/The PIN is not right/);
  expect(lastHandover(site.db)).toBeNull();

  // What changed while they spoke is told.
  const before = handing();
  await site.done("wim", "permit.stop", { permit: all[5]!, reason: "fog" });
  expect(await site.refused("isa", "shift.hand-over", before)).toMatch(/Not gone through yet, 2: .*No longer so, 1: /);

  const asked = [{ item: keyOf(items()[0]!), words: "Who watches the drain?" }];
  const read = items().map(keyOf).slice(1);
  const done = await site.done("isa", "shift.hand-over", handing({ read, asked, remarks: "Wind from the west." }));
  expect(done.handover).toBe("H-0001");
  const made = lastHandover(site.db)!;
  expect(made).toMatchObject({ going: "isa", coming: "colin", remarks: "Wind from the west." });
  expect(made.items.map(keyOf)).toEqual([asked[0]!.item, ...read]);
  const row = site.db.select().from(ledger).all().at(-1)!;
  expect(row.body).not.toContain(PIN);
  await site.done("isa", "shift.answer", { handover: "H-0001", item: asked[0]!.item, words: "Yrsa, until ten." });
  expect(lastHandover(site.db)!.asked[0]!.answer).toMatchObject({ by: "isa", words: "Yrsa, until ten." });
  expect(
    await site.refused("isa", "shift.answer", { handover: "H-0001", item: asked[0]!.item, words: "again" }),
  ).toMatch(/no open question/i);
});

test("who comes revalidates in the same act, as an issuer and nobody else, all of it or nothing", async () => {
  const { permit } = await atWork(site, { place: "T" });
  const revalidate = [permit];
  expect(await site.refused("isa", "shift.hand-over", handing({ revalidate }))).toMatch(/You may not revalidate/);
  expect(lastHandover(site.db)).toBeNull();
  await site.done("colin", "shift.hand-over", handing({ coming: "isa", revalidate }));
  const { log } = permitNow(site.db, permit, site.clock_ms)!.now;
  expect(log.at(-1)).toMatchObject({ type: "signed", act: "revalidate", by: "isa" });
  await expectReplay(site);
});
