import { expectReplay } from "../support/expectReplay";
import { onHappening, type Happening } from "../../src/server/runtime/events";
import { readHappening } from "../../src/ui/shell/happening";
import { TestSite } from "../support/testSite";
import { atWork, openTwoJobs } from "../support/twoJobs";

/** Work is stopped and nothing can be written any more, not even in the reserve: people are told all the same. */

let site: TestSite;
let heard: Happening[] = [];
let deafen: () => void;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
  heard = [];
  deafen = onHappening((happening) => heard.push(happening));
});
afterEach(async () => {
  deafen();
  await expectReplay(site);
  site.close();
});

const stop = (permit: string) => ({ permit, cause: "stop-work", reason: "Oil runs out of the flange." });

test("a stop that cannot be written is told to every screen, and whoever stopped it is told to shout", async () => {
  const { permit } = await atWork(site, { place: "P" });
  site.db.$client.pragma("query_only = ON");
  heard = [];
  const answer = await site.act("wim", "permit.stop", stop(permit));
  expect(answer).toMatchObject({ ok: false, status: 503, code: "told, not written" });
  expect(heard).toEqual([{ kind: "alarm", subject: permit, about: [permit] }]);
  // As a screen reads it from the line.
  expect(readHappening(JSON.stringify(heard[0]))).toEqual({ kind: "alarm", subject: permit });

  // With room again the same stop is written, and told once more by its row.
  site.db.$client.pragma("query_only = OFF");
  expect(await site.act("wim", "permit.stop", stop(permit))).toMatchObject({ ok: true });
});

test("all work stopped that cannot be written is told likewise, with where", async () => {
  site.db.$client.pragma("query_only = ON");
  for (const [area, subject] of [
    ["", "all work"],
    ["Yard", "all work at Yard"],
  ] as const) {
    heard = [];
    const answer = await site.act("wim", "site.stop", { area, reason: "gas alarm" });
    expect(answer).toMatchObject({ ok: false, status: 503, code: "told, not written" });
    expect(heard).toEqual([{ kind: "alarm", subject, about: [subject] }]);
  }
});

test("nothing else is told that was not written", async () => {
  const { permit } = await atWork(site, { place: "P" });
  site.db.$client.pragma("query_only = ON");
  heard = [];
  for (const [who, type, input] of [
    ["hal", "permit.sign-off", { permit }],
    ["isa", "permit.resume", { permit, words: "All is well." }],
  ] as const) {
    const answer = await site.act(who, type, input).catch((error: unknown) => error);
    // It fails, or is answered with why not: which of the two is the server's, and neither is told.
    expect(answer).not.toMatchObject({ ok: true });
  }
  expect(heard).toEqual([]);
});

test("a refused stop tells nobody: it was written, as a refusal", async () => {
  heard = [];
  expect(await site.act("wim", "permit.stop", stop("P-0999"))).toMatchObject({ ok: false, code: "unknown" });
  expect(heard.filter(({ kind }) => kind === "alarm")).toEqual([]);
});
