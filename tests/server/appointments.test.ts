import { expectReplay } from "../support/expectReplay";
import { people } from "../../src/server/db/schema";
import { TestSite } from "../support/testSite";
import { approved, openTwoJobs } from "../support/twoJobs";
import { soundReport } from "../../src/core/isolation/soundReport";

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const HOUR_MS = 3_600_000;
const rights = { roles: ["isolator"], competences: ["electrical", "mechanical", "process"], firm: "" };

test("whose competence has run out does no step that needs it, and does again once somebody has given it anew", async () => {
  const { isolation } = await approved(site, { place: "P" });
  const until = site.clock_ms + HOUR_MS;
  const ends = { electricalUntil_ms: until, mechanicalUntil_ms: until, processUntil_ms: until };
  await site.done("cora", "person.change", { person: "ivo", ...rights, ...ends });
  const doIt = async () => {
    await site.walk(isolation, { first: "ivo", second: "vera", until: ({ competence }) => competence !== null });
    const next = site.open(isolation)[0]!;
    return site.act("ivo", "step.do", { isolation, step: next.id, ...soundReport(next, { lock: `L-${next.id}` }) });
  };
  expect(await doIt()).toMatchObject({ ok: true });
  site.clock_ms = until + 1;
  const refused = await doIt();
  expect(refused).toMatchObject({ ok: false, code: "not competent" });
  expect(!refused.ok && refused.sentence).toMatch(/or not any more/);
  // A day that is over gives nothing; the form changes nothing then.
  const over = await site.act("cora", "person.change", { person: "ivo", ...rights, electricalUntil_ms: site.clock_ms });
  expect(over).toMatchObject({ ok: false, code: "date over" });
  await site.done("cora", "person.change", { person: "ivo", ...rights });
  expect(await doIt()).toMatchObject({ ok: true });
  const { appointed } = site.db
    .select()
    .from(people)
    .all()
    .find(({ id }) => id === "ivo")!;
  expect(Object.values(appointed).map(({ by, until_ms }) => [by, until_ms])).toEqual([
    ["cora", null],
    ["cora", null],
    ["cora", null],
  ]);
});
