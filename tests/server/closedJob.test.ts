import { ACTS } from "../../src/server/acts/acts";
import { jobHazards } from "../../src/server/hazard/hazardStore";
import { TestSite } from "../support/testSite";
import { openTwoJobs } from "../support/twoJobs";

const EVERYTHING = ["coordinator", "issuer", "holder", "approver", "operator", "isolator"] as const;

/** What each act that names a job is asked with; the type's list below must be the table's. */
const ASKED: Readonly<Record<string, (made: Readonly<{ job: string; hazard: string; question: string }>) => object>> = {
  "hazard.decide": ({ job, hazard }) => ({ job, hazard, verdict: "kept" }),
  "hazard.add": ({ job }) => ({ job, hazard: "Wasps", controls: ["look first"], owner: "holder" }),
  "hazard.ask": ({ job }) => ({ job, words: "Where do the rags go?" }),
  "hazard.answer": ({ job, question }) => ({ job, question, words: "Into the drum." }),
  "hazard.conditions": ({ job }) => ({ job, weather: "Dry", tools: ["spanner"], inspected: ["spanner"] }),
};

test("nothing that was thought of before the work is changed once the job is over", async () => {
  const site = new TestSite();
  try {
    await openTwoJobs(site);
    const asked = await site.done("cora", "job.ask", {
      title: "Work on P",
      work: "Open it.",
      faces: [{ place: "P", how: ["open"] }],
      windowFrom_ms: site.clock_ms,
      windowTo_ms: site.clock_ms + 8 * 3_600_000,
      holder: "hal",
      crew: [],
    });
    const job = String(asked.job);
    const made = async () => {
      const hazards = jobHazards(site.db, job)!;
      return { job, hazard: hazards.proposed[0]!.id, question: hazards.hazards.questions[0]?.id ?? "" };
    };
    await site.done("cora", "hazard.ask", { job, words: "Who opens the gate?" });
    const inputs = await made();
    // Each is done while the job is open: what is refused below is refused for that alone.
    for (const [type, of] of Object.entries(ASKED)) await site.done("cora", type, of(inputs));
    await site.done("cora", "job.withdraw", { job, words: "Not needed any more." });
    const before = JSON.stringify(jobHazards(site.db, job)!.hazards);
    for (const [type, of] of Object.entries(ASKED)) {
      expect([type, await site.refused("cora", type, of(inputs))]).toEqual([
        type,
        expect.stringMatching(/only while it is open/),
      ]);
    }
    expect(JSON.stringify(jobHazards(site.db, job)!.hazards)).toBe(before);
  } finally {
    site.close();
  }
});

test("every act on a job's hazards is among them", () => {
  const known = [...ACTS.keys()].filter((type) => type.startsWith("hazard."));
  expect(Object.keys(ASKED).sort()).toEqual(known.sort());
});

test("what was withdrawn comes back by somebody else, with what was done to it and a date that can be", async () => {
  const site = new TestSite();
  try {
    await site.add({ signIn: "cora", roles: EVERYTHING }, { signIn: "olga", roles: ["operator"] });
    const kind = "gas instrument";
    const day = 86_400_000;
    const inDateUntil_ms = site.clock_ms + 100 * day;
    const entered = { kind, number: "GI-7", inDateUntil_ms };
    await site.done("cora", "gear.enter", entered);
    await site.done("olga", "gear.bump", { number: "GI-7", gas: "methane", verdict: "did not alarm" });
    const back = { ...entered, words: "New cell fitted and calibrated." };
    expect(await site.refused("cora", "gear.enter", entered)).toMatch(/was withdrawn/);
    expect(await site.refused("cora", "gear.enter", { ...entered, number: "gi-7" })).toMatch(/was withdrawn/);
    expect(await site.refused("olga", "gear.return", back)).toMatch(/Somebody else looks at it/);
    expect(await site.refused("cora", "gear.return", { ...back, inDateUntil_ms: null })).toMatch(/out of date/);
    expect(await site.refused("cora", "gear.return", { ...back, inDateUntil_ms: site.clock_ms - day })).toMatch(
      /out of date/,
    );
    const never = Date.UTC(9999, 11, 31);
    expect(await site.refused("cora", "gear.return", { ...back, inDateUntil_ms: never })).toMatch(/more than 5 years/);
    expect(await site.refused("cora", "gear.enter", { ...entered, number: "GI-8", inDateUntil_ms: never })).toMatch(
      /more than 5 years/,
    );
    await site.done("cora", "gear.return", back);
    // Back in use, it alarms again before anybody reads from it.
    await site.done("cora", "gear.bump", { number: "GI-7", gas: "methane", verdict: "alarmed" });
    expect(await site.refused("cora", "gear.return", back)).toMatch(/only while it is withdrawn/);
  } finally {
    site.close();
  }
});
