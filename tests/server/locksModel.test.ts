import { eq } from "drizzle-orm";
import fc from "fast-check";
import { soundReport } from "../../src/core/isolation/soundReport";
import { openDatabase } from "../../src/server/db/database";
import { handoverItems } from "../../src/server/handover/handoverItems";
import { lastHandover } from "../../src/server/handover/handoverStore";
import { keyOf } from "../../src/core/handover/handover";
import { jobs, permits } from "../../src/server/db/schema";
import { ledgerHead } from "../../src/server/ledger/append";
import { verifyLedger } from "../../src/server/ledger/verify";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { expectPromises, Watched, withoutClock } from "../support/promises";
import { replay, stateOf } from "../support/replay";
import { propertyRuns } from "../support/runs";
import { heldNow, jobIdOf, locksOnBox, peopleEver, peopleOnNow } from "../support/siteRows";
import { TestSite } from "../support/testSite";
import { decideHazards, detailsFor, kindsRequired, toTick } from "../support/writePermit";
import { approved, atWork, openTwoJobs } from "../support/twoJobs";

jest.setTimeout(900_000);

/**
 * Random commands of many people on a real database, through the one door that every act comes in by. After each that
 * was done the promises of the lock box are asked of the tables themselves and of the engine, not of the code that made
 * them; at the end the ledger is played again on an empty database and must give the same state and the same last hash.
 */
const WALKERS = ["ivo", "ines", "vera"] as const;
const WORKERS = ["hal", "wim", "will", "hob"] as const;
const RUNS_USUAL = 4;
const RUNS = propertyRuns(RUNS_USUAL).numRuns;
/**
 * From so many sequences on each of the rare acts is surely done at least once. Locks are read then only: what was found missing
 * is proved again before anybody goes on, and in a few short sequences nobody would.
 */
const MANY = 30;
const command = fc.record({
  what: fc.oneof(
    { weight: 60, arbitrary: fc.constant("step") },
    { weight: 8, arbitrary: fc.constant("careless step") },
    { weight: 24, arbitrary: fc.constant("sign on") },
    { weight: 12, arbitrary: fc.constant("sign off") },
    { weight: 10, arbitrary: fc.constant("hang") },
    { weight: 16, arbitrary: fc.constant("permit") },
    ...[
      "take off",
      "hand over",
      "hand over",
      "hand over",
      "hand back",
      "start return",
      "start return",
      "start return",
      "test",
      "cannot",
      "swap",
      "prove again",
      "wait",
    ].map((what) => ({ weight: 2, arbitrary: fc.constant(what) })),
    ...["fail", "change one's mind", "shift", "clock", ...(RUNS < MANY ? [] : ["read locks"])].map((what) => ({
      weight: 1,
      arbitrary: fc.constant(what),
    })),
  ),
  job: fc.nat(2),
  who: fc.nat(11),
  n: fc.nat(11),
});
const RARE = [
  "step.cause",
  "step.entered-in-error",
  "permit.send-back",
  "permit.change",
  "job.change",
  "shift.hand-over",
  "clock.settle",
  "isolation.check-locks",
  "isolation.rehang",
];
type Command = { what: string; job: number; who: number; n: number };

class Model {
  readonly done = new Map<string, number>();
  readonly refused = new Map<string, number>();
  readonly #watched: Watched;
  constructor(
    readonly site: TestSite,
    readonly made: readonly { job: string; isolation: string; box: string }[],
  ) {
    this.#watched = new Watched(site);
  }

  async act(who: string, type: string, input: unknown): Promise<boolean> {
    const before = heldNow(this.site);
    const was = stateOf(this.site.db);
    const answer = await this.site.act(who, type, input);
    // A refused act changes nothing; what the clock ends is its own.
    if (!answer.ok) expect(withoutClock(stateOf(this.site.db))).toEqual(withoutClock(was));
    const count = answer.ok ? this.done : this.refused;
    const name = answer.ok ? type : answer.code;
    count.set(name, (count.get(name) ?? 0) + 1);
    if (answer.ok) expectPromises(this.site, before, this.#watched.changed());
    return answer.ok;
  }

  permitOf(job: number): string | undefined {
    const { isolation } = this.made[job]!;
    const own = this.site.db
      .select()
      .from(permits)
      .all()
      .filter(({ state }) => state !== "closed" && state !== "cancelled");
    return own.find(({ jobId }) => jobId === jobIdOf(this.site, isolation))?.number;
  }

  /** What a job asks for, with a little of it other. */
  asked(job: string, n: number): object {
    const row = this.site.db.select().from(jobs).where(eq(jobs.number, job)).get()!;
    const { windowFrom, windowTo, holderId } = row;
    const window = { windowFrom_ms: windowFrom, windowTo_ms: windowTo + n * 60_000 };
    return { job, title: row.title, work: row.work, faces: row.job.faces, ...window, holder: holderId };
  }

  async run({ what, job, who, n }: Command): Promise<unknown> {
    const { isolation, box, job: number } = this.made[job]!;
    const walker = WALKERS[who % WALKERS.length]!;
    const worker = WORKERS[who % WORKERS.length]!;
    const other = WORKERS[(who + 1 + (n % 3)) % WORKERS.length]!;
    const life = loadIsolation(this.site.db, isolation)!.life;
    const permit = this.permitOf(job);
    switch (what) {
      case "step":
      case "careless step": {
        const steps = what === "step" ? this.site.open(isolation) : life.steps;
        const step = steps[n % Math.max(1, steps.length)];
        if (!step) return null;
        const second = step.kind === "prove" || step.kind === "verify";
        const rightly = step.role === "operator" ? "orla" : second ? "vera" : WALKERS[who % 2]!;
        const by = what === "step" ? rightly : walker;
        const report = soundReport(step, {
          lock: `L-${(who * 12 + n) % 40}`,
          people: peopleEver(this.site, isolation),
          locks: locksOnBox(this.site, box),
        });
        return this.act(by, "step.do", { isolation, step: step.id, ...report });
      }
      case "permit": {
        if (!permit) {
          return this.act("hal", "permit.draft", {
            job: number,
            words: "Open it.",
            hazards: "Residue.",
            precautions: "Gloves.",
            validFrom_ms: this.site.clock_ms - 1000,
            validTo_ms: this.site.clock_ms + 8 * 3_600_000,
            details: detailsFor(kindsRequired(this.site, number)[0]!),
          });
        }
        await this.act("cora", "permit.check", { permit });
        await this.act("isa", "permit.authorise", { permit });
        const asks = toTick(this.site, permit);
        if (asks.length > 0) await this.act("cora", "permit.tick", { permit, asks, words: "seen" });
        await this.act("isa", "permit.issue", { permit, copies: ["at the work"] });
        await this.act("isa", "permit.resume", { permit, words: "Looked at." });
        return this.act("hal", "permit.accept", { permit });
      }
      case "sign on":
        return (
          permit && this.act(worker, "permit.sign-on", { permit, lock: n === 0 ? "H-STRAY" : `W-${worker}-${n % 2}` })
        );
      case "sign off":
        return permit && this.act(worker, "permit.sign-off", { permit });
      case "hang":
        return this.act(n % 2 ? "cora" : "colin", "box.hang", {
          box,
          role: n % 5 === 0 ? "department" : "coordinator",
          lock: n % 5 === 0 ? "D-1" : `C-${n % 2}-${job}`,
        });
      case "take off":
        return this.act(n % 2 ? "cora" : "colin", "box.take-off", {
          box,
          lock: n % 5 === 0 ? "D-1" : `C-${n % 2}-${job}`,
        });
      case "hand over": {
        // Mostly of somebody who is on, for nothing else is ever accepted.
        const on = peopleOnNow(this.site, isolation);
        const from = n % 4 && on.length > 0 ? on[n % on.length]! : worker;
        const free = WORKERS.filter((one) => !on.includes(one));
        const to = n % 3 && free.length > 0 ? free[who % free.length]! : other;
        const pair = { from, to, lock: `W-${to}-${n % 2}`, fromPin: "2468", toPin: "2468" };
        return permit && this.act("hal", "permit.hand-over", { permit, pairs: [pair] });
      }
      case "hand back":
        return (
          permit &&
          (await this.act(worker, "permit.hand-back", {
            permit,
            ...(n % 3 === 0 ? { work: "part", left: "The gland is out." } : { work: "done" }),
          })) &&
          (await this.act("isa", "permit.inspect", { permit, words: "Clean." })) &&
          (await this.act("hal", "permit.return-copy", { permit, copy: 1 })) &&
          this.act("isa", "permit.close", { permit })
        );
      case "start return":
        // A permit that nobody accepted is cancelled first, as people would.
        if (permit && n % 2) await this.act("isa", "permit.cancel", { permit });
        return (
          (await this.act("cora", "return.start", { isolation })) ||
          (n % 4 === 0 && this.act("cora", "return.start", { isolation, leftSafe: "The gland is back, hand tight." }))
        );
      case "read locks": {
        // Read by one and then by another; now and then the first is wrong, and another lock is hung there.
        const held = heldNow(this.site).filter((hold) => hold.isolation === isolation);
        const wrong = n % 3 === 0 ? held[n % Math.max(1, held.length)] : undefined;
        const first = held.map((one) => ({ point: one.tag, lock: one === wrong ? "L-STRAY" : one.lock }));
        await this.act(walker, "isolation.check-locks", { isolation, found: first });
        const hangs = wrong !== undefined && n % 2 === 1;
        if (hangs) {
          const lock = `R-${this.site.clock_ms % 97}`;
          await this.act("ivo", "isolation.rehang", { isolation, point: wrong.tag, lock });
        }
        const hung = heldNow(this.site).filter((hold) => hold.isolation === isolation);
        const found = hung.map(({ tag, lock }) => ({ point: tag, lock }));
        const reader = WALKERS.find((one) => one !== walker && !(hangs && one === "ivo"))!;
        return this.act(reader, "isolation.check-locks", { isolation, found });
      }
      case "cannot": {
        const [step] = this.site.open(isolation);
        if (!step) return null;
        await this.act(walker, "step.cannot", { isolation, step: step.id, why: "broken", words: "does not move" });
        return n % 2
          ? this.act("vera", "step.can", { isolation, step: step.id, words: "mended" })
          : this.act("cora", "isolation.re-plan", { isolation, plantRevision: 1 });
      }
      case "swap": {
        const from = heldNow(this.site).find((hold) => hold.isolation === isolation)?.tag ?? "V-1";
        const to = ["V-1", "V-2", "V-5", "Q"][n % 4]!;
        return this.act(walker, "point.swap", { isolation, from, to, plate: to, lock: `X-${n}`, reason: "as asked" });
      }
      case "prove again": {
        const proofs = life.steps.filter((step) => step.kind === "prove" && step.done);
        const proof = proofs[n % Math.max(1, proofs.length)];
        return proof && this.act("vera", "step.prove-again", { isolation, step: proof.id, ...soundReport(proof) });
      }
      case "test": {
        const held = heldNow(this.site).filter((hold) => hold.isolation === isolation);
        const lift = held
          .slice(n % Math.max(1, held.length))
          .slice(0, 1)
          .map(({ tag }) => tag);
        if (lift.length === 0) return null;
        await this.act("hal", "test.ask", { isolation, lift, purpose: "turn it once" });
        const { c: asked } = this.site.db.$client.prepare("SELECT count(*) c FROM temporary_restores").get() as {
          c: number;
        };
        const test = `T-${String(asked).padStart(4, "0")}`;
        for (const { job: each } of this.made) await this.act("hal", "test.agree", { test, job: each });
        return (await this.act("cora", "test.start", { test })) || this.act("cora", "test.call-off", { test });
      }
      case "fail": {
        // A proof that fails, its cause, and another's eyes; or a look at the instrument that takes it back.
        const proof = life.steps.find((step) => step.kind === "prove" && step.done && step.limit !== null);
        if (!proof) return null;
        const step = { isolation, step: proof.id };
        const bad = { ...soundReport(proof), reading: 9e9, readings: { [proof.pairs?.[0] ?? ""]: 230 } };
        await this.act("vera", "step.prove-again", { ...step, ...bad });
        if (n % 2) return this.act("ines", "step.entered-in-error", { ...step, words: "The gauge was upside down." });
        await this.act("cora", "step.cause", { ...step, words: "A bleed was plugged; rodded clear." });
        return this.act("ines", "step.do", { ...step, ...soundReport(proof) });
      }
      case "change one's mind": {
        if (!permit) return this.act("hal", "job.change", this.asked(number, n));
        const said = { permit, words: "The release is on the walkway." };
        if (n === 0) return this.act("hal", "permit.cancel", { permit });
        if (n % 3 === 1) return this.act("isa", "permit.send-back", said);
        await this.act("hal", "permit.return-copy", { permit, copy: 1 });
        const row = this.site.db.select().from(permits).where(eq(permits.number, permit)).get()!;
        const { hazards, precautions, details, validFrom, validTo } = row;
        const draft = { hazards, precautions, details, validFrom_ms: validFrom, validTo_ms: validTo };
        return this.act("hal", "permit.change", { permit, words: `Open it, ${n}.`, ...draft });
      }
      case "shift": {
        // Acts move the clock by seconds: what is so then is so now, but for what runs out meanwhile.
        const items = handoverItems(this.site.db, this.site.clock_ms, lastHandover(this.site.db)?.at_ms ?? 0);
        const read = items.map(keyOf).slice(n === 0 ? 1 : 0);
        return this.act("colin", "shift.hand-over", { coming: "isa", comingPin: "2468", read, asked: [] });
      }
      case "clock": {
        // Ahead by some minutes for one act, and set back; mostly somebody says that it is right.
        const ahead_ms = (n + 1) * 120_000;
        this.site.clock_ms += ahead_ms;
        await this.act("cora", "box.hang", { box, role: "coordinator", lock: `C-${n % 2}-${job}` });
        this.site.clock_ms -= ahead_ms;
        return n % 4 ? this.act("cora", "clock.settle", { words: "the radio" }) : null;
      }
      default:
        this.site.clock_ms += n * 600_000;
        return null;
    }
  }
}

test("whatever people do in whatever order, the promises of the lock box hold, and the ledger gives the same state again", async () => {
  const reached = new Map<string, number>();
  await fc.assert(
    fc.asyncProperty(fc.array(command, { minLength: 240, maxLength: 240 }), async (commands) => {
      const site = new TestSite();
      try {
        await openTwoJobs(site);
        // Two jobs on one line share valves; the third stands apart.
        const crew = [...WORKERS];
        const made = [
          await approved(site, { place: "P", how: ["open"], crew }),
          await approved(site, { place: "C", how: ["open"], crew }),
          await atWork(site, { place: "T", how: ["open"], crew }),
        ];
        for (const { job } of made.slice(0, 2)) await decideHazards(site, job);
        // Quick enough that proofs last for many acts; a wait now and then lets them go stale.
        site.step_ms = 5_000;
        const model = new Model(site, made);
        for (const one of commands) await model.run(one);
        for (const [name, count] of model.done) reached.set(name, (reached.get(name) ?? 0) + count);
        for (const [name, count] of model.refused)
          reached.set(`no: ${name}`, (reached.get(`no: ${name}`) ?? 0) + count);

        const again = openDatabase(`${site.folder}/again.db`);
        expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true, stateKnown: true });
        const last = await replay(site.db, again);
        expect(stateOf(again)).toEqual(stateOf(site.db));
        expect(last).toBe(ledgerHead(site.db).hash);
        again.$client.close();
      } finally {
        site.close();
      }
    }),
    { ...propertyRuns(RUNS_USUAL), endOnFailure: true },
  );
  // The walk through the acts got to where it matters.
  for (const type of [
    "step.do",
    "permit.sign-on",
    "permit.sign-off",
    "box.hang",
    "permit.hand-over",
    "test.start",
    "return.start",
    "step.cannot",
    ...(RUNS < MANY ? [] : RARE),
  ]) {
    expect([type, (reached.get(type) ?? 0) > 0, Object.fromEntries(reached)]).toEqual([type, true, expect.anything()]);
  }
  for (const code of ["people on", "lock in use", "out of order", ...(RUNS < MANY ? [] : ["last off"])]) {
    expect([code, (reached.get(`no: ${code}`) ?? 0) > 0]).toEqual([code, true]);
  }
});
