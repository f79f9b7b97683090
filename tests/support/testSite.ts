import type { PersonId } from "../../src/core/people/roles";
import type { Induction } from "../../src/core/accounts/induction";
import { randomUUID } from "node:crypto";
import { cpSync, existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { hash } from "@node-rs/argon2";
import { eq } from "drizzle-orm";
import type { RoundKind } from "../../src/core/rounds/rounds";
import type { Competence, Role } from "../../src/core/people/roles";
import { runAct } from "../../src/server/acts/runAct";
import type { ActAnswer } from "../../src/server/acts/answer";
import { openDatabase, type Db } from "../../src/server/db/database";
import { jobs, people, permits } from "../../src/server/db/schema";
import { soundBegin, soundReport } from "../../src/core/isolation/soundReport";
import { personOfSession, toPerson } from "../../src/server/people/signIn";
import { BEGUN, overAt_ms, WATCHED } from "../../src/core/isolation/held";
import { waitOf } from "../../src/server/isolation/stepWaits";
import { loadIsolation } from "../../src/server/isolation/isolationStore";

export const PIN = "2468";
const DAY_MS = 86_400_000;

const SHOWN: Induction = { by: "cora" as PersonId, at_ms: 0, until_ms: 8e15 };
export type TestPerson = Readonly<{
  signIn: string;
  roles: readonly Role[];
  competences?: readonly Competence[];
  firm?: string;
  /** Who is of a firm was shown the site, for as long as any test lasts, unless this says otherwise. */
  induction?: Induction | null;
}>;

/** A site on a real database file of its own, whose clock moves by a minute with every act. */
/** In memory where there is such a place, and where a test of small disks says. */
const sitesIn = () => process.env.LANTERN_TEST_SITES ?? (existsSync("/dev/shm") ? "/dev/shm" : tmpdir());

export class TestSite {
  /** On a memory disk where there is one: every act is forced to disk, and a test of thousands would wait for that only. */
  readonly folder = mkdtempSync(join(sitesIn(), "lantern-site-"));
  readonly headFile = join(this.folder, "ledger-head.json");
  readonly db: Db;
  clock_ms = 1_790_000_000_000;
  step_ms = 60_000;
  #locks = 0;

  constructor(
    file = "site.db",
    /** A folder whose database and head this site begins as a copy of. */
    like?: string,
  ) {
    if (like !== undefined) cpSync(like, this.folder, { recursive: true });
    this.db = openDatabase(join(this.folder, file));
  }

  /** People with a PIN whose hash is cheap to check: the hash says itself how dear it is. Ids are their sign-in names. */
  async add(...all: TestPerson[]): Promise<void> {
    const pinHash = await hash(PIN, { memoryCost: 8, timeCost: 1, parallelism: 1 });
    for (const { signIn, roles, competences = [], firm = "", induction = SHOWN } of all) {
      this.db
        .insert(people)
        .values({
          id: signIn,
          name: signIn,
          signIn,
          roles,
          competences,
          passwordHash: pinHash,
          pinHash,
          firm,
          induction: firm === "" ? null : induction,
        })
        .run();
    }
  }

  act(
    signIn: string,
    type: string,
    input: unknown,
    /** `token`: from the screen of this session. */
    more: { pin?: string; actId?: string; doneAt_ms?: number; token?: string } = {},
  ): Promise<ActAnswer> {
    const row = this.db.select().from(people).where(eq(people.id, signIn)).get();
    if (row === undefined) throw new Error(`nobody is called ${signIn}`);
    this.clock_ms += this.step_ms;
    const { pin = PIN, actId = randomUUID(), token, ...rest } = more;
    const briefed = type === "permit.sign-on" || type === "crew.sign-on";
    const asked = type === "job.ask" || type === "job.change";
    const said = briefed
      ? { ...this.#briefed(input), ...(input as object) }
      : // Most tests' work is over within a shift; the others say so.
        asked && typeof input === "object"
        ? { longerThanShift: false, ...input }
        : input;
    const envelope = { version: 1, actId, type, input: said, ...(pin ? { pin } : {}), ...rest };
    const asks = token === undefined ? null : personOfSession(this.db, token, this.clock_ms);
    return runAct(envelope, asks ?? toPerson(row, this.clock_ms), this.clock_ms, this.db, this.headFile);
  }

  /** Signs on as somebody who was briefed and knows where the work is, unless the test says otherwise. */
  #briefed(input: unknown): object {
    const { permit } = input as { permit: string };
    const job = this.db
      .select({ job: jobs.job })
      .from(permits)
      .innerJoin(jobs, eq(jobs.id, permits.jobId))
      .where(eq(permits.number, permit))
      .get();
    return { briefed: true, answer: job?.job.faces[0]?.place ?? "nowhere" };
  }

  /** Acts under one signature; `from` names the answer of an earlier one. */
  round(
    signIn: string,
    round: RoundKind,
    entries: readonly Readonly<{ type: string; input: object; actId?: string; from?: object }>[],
    pin: string | null = PIN,
  ): Promise<ActAnswer> {
    const row = this.db.select().from(people).where(eq(people.signIn, signIn)).get()!;
    this.clock_ms += this.step_ms;
    const sent = entries.map(({ actId = randomUUID(), type, input, from }) => ({
      actId,
      type,
      input: type === "permit.sign-on" ? { ...this.#briefed(input), ...input } : input,
      ...(from ? { from } : {}),
    }));
    const envelope = { version: 1, round, entries: sent, ...(pin ? { pin } : {}) };
    return runAct(envelope, toPerson(row, this.clock_ms), this.clock_ms, this.db, this.headFile);
  }

  async done(signIn: string, type: string, input: unknown): Promise<Record<string, string | number | null>> {
    const answer = await this.act(signIn, type, input);
    if (!answer.ok) throw new Error(`${type}: ${answer.sentence}`);
    return { ...answer.answer };
  }

  /** The sentence of a refusal, or "done". */
  async refused(signIn: string, type: string, input: unknown): Promise<string> {
    const answer = await this.act(signIn, type, input);
    return answer.ok ? "done" : answer.sentence;
  }

  /** The instruments that soundReport names, in date. */
  async stockGear(by: string): Promise<void> {
    const until = this.clock_ms + 100 * DAY_MS;
    for (const [kind, number, rating_V, error] of [
      ["voltage tester", "VT-02", 24_000, null],
      ["proving unit", "PU-02", null, null],
      ["insulating gloves", "GL-11", 36_000, null],
      ["pressure gauge", "PG-04", null, 0.02],
      ["thermometer", "TH-02", null, 1],
      ["survey meter", "SM-01", null, 0.1],
      ["portable earth", "PE-01", null, null],
    ] as const) {
      await this.done(by, "gear.enter", { kind, number, rating_V, error, inDateUntil_ms: until });
    }
  }

  /** Steps that may be done now. */
  open(isolation: string) {
    const { life } = loadIsolation(this.db, isolation)!;
    const finished = new Set(life.steps.filter((step) => step.done).map(({ id }) => id));
    const phase = { isolating: "isolate", testing: "test", restoring: "restore" }[life.state as "isolating"];
    return life.steps.filter(
      (step) => step.phase === phase && !step.done && step.after.every((id) => finished.has(id)),
    );
  }

  /** Somebody who runs the plant; made where the test has nobody. */
  async operator(): Promise<string> {
    const known = this.db.select().from(people).all();
    const found = known.find(({ roles }) => roles.includes("operator"));
    if (found) return found.id;
    await this.add({ signIn: "orla", roles: ["operator"] });
    return "orla";
  }

  /** Somebody who watches and does nothing else; made when first wanted. Answers their id. */
  async watcher(): Promise<string> {
    const find = () => this.db.select().from(people).where(eq(people.signIn, "wenke")).get()?.id;
    if (find() === undefined) await this.add({ signIn: "wenke", roles: ["operator"] });
    return find()!;
  }

  /** Does every step that may be done, by `first`; what a second person does, by `second`. Stops where `until` says. */
  async walk(
    isolation: string,
    p: Readonly<{
      first: string;
      second: string;
      people?: number;
      locks?: number;
      until?: (step: ReturnType<TestSite["open"]>[number]) => boolean;
    }>,
  ): Promise<void> {
    for (;;) {
      const next = this.open(isolation)[0];
      if (next === undefined || p.until?.(next)) return;
      const who =
        next.role === "operator"
          ? await this.operator()
          : next.secondPerson || next.kind === "prove" || next.kind === "verify"
            ? p.second
            : p.first;
      const { row } = loadIsolation(this.db, isolation)!;
      if (BEGUN.has(next.kind)) {
        const beside = soundBegin(next, WATCHED.has(next.kind) ? await this.watcher() : "");
        await this.done(who, "step.begin", { isolation, step: next.id, ...beside });
      }
      const began = loadIsolation(this.db, isolation)!.life;
      const over_ms = overAt_ms(
        began,
        began.steps.find(({ id }) => id === next.id)!,
        waitOf(this.db, row)(next),
      );
      // They wait for as long as it takes.
      if (over_ms !== null) this.clock_ms = Math.max(this.clock_ms, over_ms);
      const report = soundReport(next, { lock: `L-${++this.#locks}`, people: p.people, locks: p.locks });
      await this.done(who, "step.do", { isolation, step: next.id, ...report });
    }
  }

  close(): void {
    this.db.$client.close();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
