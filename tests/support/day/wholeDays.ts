import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { openDatabase } from "../../../src/server/db/database";
import { ledgerHead } from "../../../src/server/ledger/append";
import { verifyLedger } from "../../../src/server/ledger/verify";
import { openDay, SLOTS } from "./place";
import { Player } from "./player";
import { OFTEN } from "./ripe";
import { playOne, STEPS, TROUBLES, USUAL } from "./trouble";
import { goOn } from "./usual";
import { replay, stateOf } from "../replay";
import { propertyRuns } from "../runs";
import { TestSite } from "../testSite";

/**
 * Eighteen people and six jobs that share points, on a real database, through the one door that every act comes in by: requests,
 * plans, walks, permits, registers that come while people work, swaps, tests, deviations, proofs that fail, drafts changed,
 * shifts handed over, clocks set. Sequences are short and many, and each begins where a day like it stood: nothing begun, the
 * morning, noon, the evening; what is played is played where there is something of the kind. After every act the promises are
 * asked (support/day/checked); at the end of a sequence the ledger, played again on a database that stood where it began, gives
 * the same state and the same last hash. Two halves, each a file of its own, so that two cores play at once; what is seldom refused
 * is looked for in both together.
 */
const { numRuns, seed } = propertyRuns(150);
const IS_LONG = numRuns >= 1500;
/** Five thousand in either half of the long run. */
const EACH = IS_LONG ? Math.round((numRuns * 10) / 3) : numRuns;
/** How often each kind of act is accepted in half of the long run. */
const OFTEN_ENOUGH = 50;
const LENGTH = 4;
const AGAIN = "again.db";
/** Each as often as the other: small numbers are nothing special here. */
const evenly = (below: number) => fc.noBias(fc.nat(below - 1));
const command = fc.record({
  what: fc.oneof(
    { weight: 30, arbitrary: fc.constant(USUAL) },
    { weight: 5, arbitrary: fc.constant(STEPS) },
    ...Object.keys(TROUBLES).map((what) => ({ weight: OFTEN[what] ?? 1, arbitrary: fc.constant(what) })),
  ),
  slot: evenly(SLOTS.length),
  who: evenly(12),
  n: evenly(12),
});

const COMMON = [
  "box.hang",
  "hazard.conditions",
  "hazard.decide",
  "isolation.approve",
  "isolation.check-locks",
  "job.ask",
  "job.change",
  "job.crew",
  "permit.accept",
  "permit.check",
  "permit.close",
  "permit.inspect",
  "permit.return-copy",
  "permit.sign-on",
  "permit.tick",
  "plant.import",
  "shift.hand-over",
  "step.do",
  "step.prove-again",
];
const RARE = [
  "box.take-off",
  "clock.settle",
  "deviation.accept",
  "deviation.renew",
  "isolation.re-plan",
  "isolation.rehang",
  "job.close",
  "job.withdraw",
  "permit.audit",
  "permit.authorise",
  "permit.cancel",
  "permit.change",
  "permit.draft",
  "permit.extend",
  "permit.hand-back",
  "permit.hand-over",
  "permit.issue",
  "permit.note-refusal",
  "permit.report-fire",
  "permit.resume",
  "permit.revalidate",
  "permit.send-back",
  "permit.sign-off",
  "permit.stop",
  "point.swap",
  "return.start",
  "step.begin",
  "step.can",
  "step.cannot",
  "step.cause",
  "step.entered-in-error",
  "test.agree",
  "test.ask",
  "test.call-off",
  "test.start",
];
const REFUSED = ["already done", "held by others", "not back", "not inspected", "not yours to do", "wrong state"];
const SELDOM = [
  "isolations open",
  "nothing stuck",
  "permits open",
  "own step first",
  "say what was found",
  "box locked",
  "cause first",
  "last off",
  "lead first",
  "lock in use",
  "lock of another",
  "not agreed",
  "not extended",
  "out of order",
  "people on",
  "prove again",
  "second person needed",
  "swap not proved",
];

/** How far the day is when a sequence begins, in rounds of what came next. */
const STANDS = [0, 9, 16, 22, 24, 30, 36, 48, 75, 77, 80, 90];
type Start = Readonly<{ folder: string; clock_ms: number }>;

/** What both halves of this run refused; null while the other is under way, or where it was not begun. */
function ofBoth(half: 1 | 2, refused: ReadonlyMap<string, number>): Map<string, number> | null {
  // Both are played by the same parent.
  const fileOf = (which: number) => join(tmpdir(), `lantern-day-${process.ppid}-${which}.json`);
  writeFileSync(fileOf(half), JSON.stringify([...refused]));
  const other = fileOf(half === 1 ? 2 : 1);
  if (!existsSync(other)) return null;
  const theirs = JSON.parse(readFileSync(other, "utf8")) as [string, number][];
  for (const which of [1, 2]) rmSync(fileOf(which), { force: true });
  const both = new Map(refused);
  for (const [name, count] of theirs) both.set(name, (both.get(name) ?? 0) + count);
  return both;
}

/** Plays one half, with a seed of its own. */
export function playWholeDays(half: 1 | 2): void {
  // The long run takes hours.
  jest.setTimeout(86_400_000);
  const starts: Start[] = [];

  beforeAll(async () => {
    const site = new TestSite();
    await openDay(site);
    site.step_ms = 5_000;
    const play = new Player(site, true);
    const again = openDatabase(join(site.folder, AGAIN));
    const stand = async () => {
      expect(await replay(site.db, again)).toBe(ledgerHead(site.db).hash);
      expect(stateOf(again)).toEqual(stateOf(site.db));
      for (const { $client } of [site.db, again]) $client.pragma("wal_checkpoint(TRUNCATE)");
      const folder = mkdtempSync(`${site.folder}-`);
      cpSync(site.folder, folder, { recursive: true });
      starts.push({ folder, clock_ms: site.clock_ms });
    };
    for (let i = 0; i < STANDS.at(-1)!; i++) {
      if (STANDS.includes(i)) await stand();
      for (const slot of SLOTS.keys()) {
        // Some further than others.
        if (i % (slot + 1) < 2) await goOn(play, { slot, who: i, n: i % 12 });
      }
    }
    await stand();
    again.$client.close();
    site.close();
  });
  afterAll(() => {
    for (const { folder } of starts) rmSync(folder, { recursive: true, force: true });
  });

  test("whatever a site does in whatever order, what the record says is so, and it gives the same state again", async () => {
    const done = new Map<string, number>();
    const refused = new Map<string, number>();
    const add = (to: Map<string, number>, from: ReadonlyMap<string, number>) => {
      for (const [name, count] of from) to.set(name, (to.get(name) ?? 0) + count);
    };
    await fc.assert(
      fc.asyncProperty(
        evenly(STANDS.length),
        fc.array(command, { minLength: LENGTH, maxLength: LENGTH }),
        async (start, commands) => {
          const { folder, clock_ms } = starts[start]!;
          const site = new TestSite("site.db", folder);
          try {
            Object.assign(site, { clock_ms, step_ms: 5_000 });
            const play = new Player(site);
            for (const { what, ...pick } of commands) await playOne(play, what, pick);
            add(done, play.done);
            add(refused, play.refused);
            expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true, stateKnown: true });
            const again = openDatabase(join(site.folder, AGAIN));
            expect(await replay(site.db, again)).toBe(ledgerHead(site.db).hash);
            expect(stateOf(again)).toEqual(stateOf(site.db));
            again.$client.close();
          } finally {
            site.close();
          }
        },
      ),
      { numRuns: EACH, seed: seed + half, endOnFailure: true },
    );
    if (IS_LONG || process.env.LANTERN_COUNTS) {
      const table = (of: ReadonlyMap<string, number>) =>
        [...of].sort((a, b) => a[1] - b[1]).map((each) => each.join(" "));
      process.stderr.write(`done: ${table(done).join("; ")}\nrefused: ${table(refused).join("; ")}\n`);
    }
    // Each kind of act and each refusal that is played for was met: in the long run often, in the usual one those that are common.
    const least = IS_LONG ? OFTEN_ENOUGH : 1;
    const tooSeldom = (of: ReadonlyMap<string, number>, names: readonly string[], times: number) =>
      names.filter((name) => (of.get(name) ?? 0) < times).map((name) => `${name}: ${of.get(name) ?? 0}`);
    expect(tooSeldom(done, IS_LONG ? [...COMMON, ...RARE] : COMMON, least)).toEqual([]);
    expect(tooSeldom(refused, REFUSED, 1)).toEqual([]);
    // What is seldom refused is met in the whole of the long run: whichever half is over last asks it of both.
    const both = IS_LONG ? ofBoth(half, refused) : null;
    if (both !== null) expect(tooSeldom(both, SELDOM, 1)).toEqual([]);
  });
}
