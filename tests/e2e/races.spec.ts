import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { soundReport } from "../../src/core/isolation/soundReport";
import { openDatabase } from "../../src/server/db/database";
import { ledgerHead } from "../../src/server/ledger/append";
import { replay, stateOf } from "../support/replay";
import { seededRandom } from "../support/seededRandom";
import { expect, openSite, PIN, SITE_TIMEOUT_MS, perWorker as shared, type Site } from "./site";
import { approvedJob, done, read, stepsOf, walkByPost, workAt } from "./work";

/** Said by whoever was briefed. */
/** Petra is on at the tipper as well. */
const KNOWS = { answer: "M-204A", briefed: true, also: "P-0001" };

/** 50 in the usual run, seeded, so that it says the same everywhere; `npm run test:long` runs ten times as many. */
const RACES = 50 * Number(process.env.LANTERN_RUNS ?? 1);
const MOST_CLIENTS = 50;

/** A site of its own, so that its whole ledger is known and can be played again. */
const test = shared.extend<object, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4300 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],
});

type Answer = { ok: boolean; code?: string; sentence?: string };
type Runner = Readonly<{ cookie: string; type: string; input: unknown; actId?: string }>;

/** All at once, each over a connection of its own. */
function race(site: Site, runners: readonly Runner[]): Promise<Answer[]> {
  return Promise.all(
    runners.map(async ({ cookie, type, input, actId = randomUUID() }) => {
      const response = await fetch(`${site.url}/api/acts`, {
        method: "POST",
        headers: { "content-type": "application/json", cookie },
        body: JSON.stringify({ version: 1, actId, type, input, pin: PIN }),
      });
      return (await response.json()) as Answer;
    }),
  );
}

const cookieOf = async (page: Page) =>
  (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join("; ");

/** Exactly one wins; every other is told why, in a sentence. */
function expectOneWinner(answers: readonly Answer[], codes: readonly string[]): void {
  const lost = answers.filter(({ ok }) => !ok);
  expect(answers.length - lost.length, JSON.stringify(lost.slice(0, 3))).toBe(1);
  for (const { code, sentence } of lost) {
    expect(codes).toContain(code);
    expect(sentence).toMatch(/^[A-Z].*\.$/s);
  }
}

/** Asked of the tables after every race: nothing hangs twice, nobody is on over a lifted point. */
function expectSound(site: Site): void {
  expect(
    read(
      site,
      `SELECT lock FROM (SELECT lock FROM holds WHERE lifted_at_ms IS NULL
         UNION ALL SELECT lock FROM personal_locks WHERE off_at_ms IS NULL
         UNION ALL SELECT lock FROM standing_locks WHERE off_at_ms IS NULL) GROUP BY lock HAVING count(*) > 1`,
    ),
  ).toEqual([]);
  expect(
    read(
      site,
      `SELECT i.number FROM isolations i JOIN box_isolations b ON b.isolation_id = i.id
       JOIN personal_locks l ON l.box_id = b.box_id AND l.off_at_ms IS NULL WHERE i.state <> 'proven'`,
    ),
  ).toEqual([]);
}

test("many clients at once over HTTP: exactly one wins each race, the others are told why, and the ledger gives the state", async ({
  as,
  site,
}) => {
  test.setTimeout(3_000_000);
  const random = seededRandom(2026);
  const whole = (most: number) => random.below(most);
  const size = (nth: number) => (nth % 10 === 0 ? MOST_CLIENTS : 2 + whole(8));
  const cookie = {
    jonas: await cookieOf(await as("Jonas Ekeberg")),
    odalys: await cookieOf(await as("Odalys Brenn")),
    petra: await cookieOf(await as("Petra Quillon")),
    maren: await cookieOf(await as("Maren Tolve")),
  };
  const petra = await as("Petra Quillon");
  const maren = await as("Maren Tolve");
  const { isolation, job, permit, box } = await workAt(as, site, {
    title: "Look at the blower's motor",
    face: { place: "M-204A", how: ["touch"], carriers: ["power", "control"], reason: "the pump stays closed" },
    lead: "Petra Quillon",
    crew: ["Petra Quillon"],
  });
  const kinds = new Map<string, number>();
  let [signOnWins, testWins] = [0, 0];
  let points: { isolation: string; step: ReturnType<typeof stepsOf>[number] }[] = [];
  for (let nth = 0; nth < RACES; nth++) {
    const clients = size(nth);
    const kind = ["one point", "sign on or lift", "one act", "one point", "one sign-on"][nth % 5]!;
    kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
    if (kind === "one point") {
      // Two isolators at one point, each with a lock of their own in hand, several times over.
      if (points.length === 0) points = await freshPoints();
      const { isolation: where, step } = points.shift()!;
      const answers = await race(
        site,
        Array.from({ length: clients }, (_, i) => ({
          cookie: i % 2 ? cookie.jonas : cookie.odalys,
          type: "step.do",
          input: { isolation: where, step: step.id, ...soundReport(step, { lock: `R-${nth}-${i}` }) },
        })),
      );
      expectOneWinner(answers, ["already done"]);
    } else if (kind === "one act") {
      // The same act sent again and again, as by a phone that got no answer.
      const actId = randomUUID();
      const input = { permit, lock: "P-RACE", ...KNOWS };
      const same = Array.from({ length: clients }, () => ({
        cookie: cookie.petra,
        type: "permit.sign-on",
        input,
        actId,
      }));
      const answers = await race(site, same);
      expect(answers[0]).toMatchObject({ ok: true });
      for (const answer of answers) expect(answer).toEqual(answers[0]);
      expect(read(site, "SELECT 1 FROM ledger WHERE act_id = ?", actId)).toHaveLength(1);
      await done(petra, "permit.sign-off", { permit });
    } else if (kind === "one sign-on") {
      const answers = await race(
        site,
        Array.from({ length: clients }, (_, i) => ({
          cookie: cookie.petra,
          type: "permit.sign-on",
          input: { permit, lock: `P-RACE-${i % 3}`, ...KNOWS },
        })),
      );
      expectOneWinner(answers, ["already signed on", "lock in use"]);
      await done(petra, "permit.sign-off", { permit });
    } else {
      // A sign-on races the lifting of the points for a test: one kind of them gets through, never both.
      const { test: lift } = await done(petra, "test.ask", {
        isolation,
        lift: ["Q-207"],
        purpose: "which way it turns",
      });
      await done(petra, "test.agree", { test: lift, job });
      const answers = await race(
        site,
        Array.from({ length: clients }, (_, i) =>
          i % 2
            ? { cookie: cookie.petra, type: "permit.sign-on", input: { permit, lock: "P-RACE", ...KNOWS } }
            : { cookie: cookie.maren, type: "test.start", input: { test: lift } },
        ),
      );
      expectOneWinner(answers, [
        "already signed on",
        "people on",
        "wrong state",
        "work stopped",
        "isolation not proven",
        "under test",
        "lock in use",
      ]);
      const signedOn =
        read(site, "SELECT 1 FROM personal_locks WHERE off_at_ms IS NULL AND lock = 'P-RACE'").length > 0;
      if (signedOn) {
        signOnWins++;
        await done(petra, "permit.sign-off", { permit });
        await done(maren, "test.call-off", { test: lift });
      } else {
        testWins++;
        expectSound(site);
        await done(maren, "box.take-off", { box, lock: `C-${box}` });
        await walkByPost(as, site, isolation, "test");
        await done(maren, "box.hang", { box, role: "coordinator", lock: `C-${box}` });
        await done(await as("Idris Halloway"), "permit.resume", { permit, words: "The test is over." });
      }
    }
    expectSound(site);
  }
  expect([...kinds.values()].every((count) => count >= RACES / 5)).toBe(true);
  expect(signOnWins + testWins).toBe(RACES / 5);

  // State equals ledger: its chain is whole, and played again on an empty database it gives the same.
  expect(site.lantern("verify").out).toContain("The ledger is whole");
  const folder = mkdtempSync(join(tmpdir(), "lantern-replay-"));
  const [was, again] = [openDatabase(join(site.data, "heavy-lantern.db")), openDatabase(join(folder, "again.db"))];
  expect(await replay(was, again)).toBe(ledgerHead(was).hash);
  expect(stateOf(again)).toEqual(stateOf(was));
  was.$client.close();
  again.$client.close();
  rmSync(folder, { recursive: true, force: true });

  /** Lock steps that may be done now, of a job made for it. */
  async function freshPoints() {
    const made = await approvedJob(as, site, {
      title: "Look at the terminals of a starter",
      face: { place: "K-334", how: ["touch"], carriers: ["power", "control"], reason: "the motor stays coupled" },
      lead: "Petra Quillon",
      crew: ["Petra Quillon"],
    });
    for (const kind of ["tell", "accept losses", "stop"]) {
      const step = stepsOf(site, made.isolation).find((one) => one.kind === kind);
      if (step === undefined) continue;
      await done(await as(step.role === "operator" ? "Ruth Amberley" : "Jonas Ekeberg"), "step.do", {
        isolation: made.isolation,
        step: step.id,
        ...soundReport(step),
      });
    }
    const locks = stepsOf(site, made.isolation).filter(
      (step) => step.kind === "lock" && step.competence === "electrical",
    );
    return locks.map((step) => ({ isolation: made.isolation, step }));
  }
});
