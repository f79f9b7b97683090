import { randomUUID } from "node:crypto";
import { asc } from "drizzle-orm";
import type { RoundKind } from "../../src/core/rounds/rounds";
import type { Db } from "../../src/server/db/database";
import { ledger } from "../../src/server/db/schema";
import { jobHazards } from "../../src/server/hazard/hazardStore";
import { expectReplay } from "../support/expectReplay";
import { HOUR } from "../support/permits";
import { stateOf } from "../support/replay";
import { TestSite } from "../support/testSite";
import { openTwoJobs } from "../support/twoJobs";
import { decideHazards, detailsFor, drafted, toTick } from "../support/writePermit";

/** Acts under one signature: each is what it would be alone, all are done or none. */

let site: TestSite;
const holder = globalThis as { heavyLanternDatabase?: Db };
beforeEach(async () => {
  site = new TestSite();
  holder.heavyLanternDatabase = site.db;
  await openTwoJobs(site);
});
afterEach(async () => {
  delete holder.heavyLanternDatabase;
  await expectReplay(site);
  site.close();
});

type Entry = Parameters<TestSite["round"]>[2][number];
/** One signature: a round, or an act by itself. */
type Signed = Readonly<{ by: string; kind: RoundKind | null; entries: readonly Entry[] }>;

const rows = () => site.db.select().from(ledger).orderBy(asc(ledger.seq)).all();
const one = (by: string, type: string, input: object): Signed => ({ by, kind: null, entries: [{ type, input }] });
const round = (by: string, kind: RoundKind, ...entries: Entry[]): Signed => ({ by, kind, entries });

/** The numbers given so far. */
let named: { job: string; isolation: string; box: string; permit: string };
beforeEach(() => {
  named = { job: "", isolation: "", box: "", permit: "" };
});

/** One lock, two workers, from the request to back in service, each signature when its turn comes. */
function* oneLock(): Generator<Signed> {
  yield one("cora", "job.ask", {
    title: "Change the motor",
    work: "Off its feet and another on.",
    faces: [{ place: "M", how: ["touch"] }],
    windowFrom_ms: site.clock_ms,
    windowTo_ms: site.clock_ms + 8 * HOUR,
    holder: "hal",
    crew: ["hal", "wim"],
  });
  const { job } = named;
  yield round(
    "cora",
    "hazards decided",
    ...jobHazards(site.db, job)!.proposed.map(({ id }) => ({
      type: "hazard.decide",
      input: { job, hazard: id, verdict: "kept" },
    })),
    { type: "hazard.conditions", input: { job, weather: "dry", tools: [] } },
  );
  const kinds = jobHazards(site.db, job)!.required.map(({ kind }) => kind);
  expect(kinds).toEqual(["electrical work"]);
  const [kind] = kinds;
  const draft = {
    job,
    words: "Change the motor.",
    hazards: "Weight.",
    precautions: "Hoist.",
    validFrom_ms: site.clock_ms,
    validTo_ms: site.clock_ms + 8 * HOUR,
    details: detailsFor(kind!),
  };
  yield round(
    "cora",
    "plan and permits",
    { type: "isolation.approve", input: { job, objective: "effort", school: "work", plantRevision: 1 } },
    { type: "permit.draft", input: draft },
    { type: "permit.check", input: {}, from: { entry: 1, field: "permit" } },
  );
}

/** The rest of it, once the isolation is proven. */
function* atWork(): Generator<Signed> {
  const { isolation, box, permit } = named;
  yield one("cora", "box.hang", { box, role: "coordinator", lock: "C-1" });
  const asks = toTick(site, permit).filter((id) => !id.startsWith("stand-in"));
  yield round(
    "isa",
    "issued on the spot",
    { type: "permit.authorise", input: { permit } },
    ...(asks.length > 0 ? [{ type: "permit.tick", input: { permit, asks, words: "seen" } }] : []),
    { type: "permit.issue", input: { permit, copies: ["at the motor"] } },
  );
  yield round(
    "hal",
    "accepted and on",
    { type: "permit.accept", input: { permit } },
    { type: "permit.sign-on", input: { permit, lock: "H-1" } },
  );
  yield one("wim", "permit.sign-on", { permit, lock: "W-1" });
  yield one("wim", "permit.sign-off", { permit });
  yield round(
    "hal",
    "off and handed back",
    { type: "permit.sign-off", input: { permit } },
    { type: "permit.hand-back", input: { permit } },
    { type: "permit.return-copy", input: { permit, copy: 1 } },
  );
  yield round(
    "isa",
    "inspected and closed",
    { type: "permit.inspect", input: { permit, words: "Clean." } },
    { type: "permit.close", input: { permit } },
  );
  yield round(
    "cora",
    "restoring begun",
    { type: "box.take-off", input: { box, lock: "C-1" } },
    { type: "return.start", input: { isolation } },
  );
}

async function signed({ by, kind, entries }: Signed) {
  const [first] = entries;
  const answer = await (kind === null ? site.act(by, first!.type, first!.input) : site.round(by, kind, entries));
  if (answer.ok) named = { ...named, ...(answer.answer as Partial<typeof named>) };
  return answer;
}

/** The whole day; `before` looks at each signature before it is given. */
async function day(before: (next: Signed) => Promise<void> = async () => {}): Promise<number> {
  let signatures = 0;
  for (const part of [oneLock, null, atWork]) {
    if (part === null) {
      await site.walk(named.isolation, { first: "ivo", second: "vera" });
      continue;
    }
    for (const next of part()) {
      await before(next);
      const answer = await signed(next);
      expect({ kind: next.kind ?? next.entries[0]!.type, said: answer.ok ? "" : answer.sentence }).toMatchObject({
        said: "",
      });
      signatures++;
    }
  }
  await site.walk(named.isolation, { first: "ivo", second: "vera", people: 2 });
  await site.done("cora", "job.close", { job: named.job });
  return signatures + 1;
}

test("a whole job by rounds: a row for each thing signed, and the ledger plays again", async () => {
  expect(await day()).toBe(12);
  const types = rows()
    .filter(({ outcome }) => outcome === "done")
    .map(({ type }) => type);
  for (const type of [
    "hazard.decide",
    "isolation.approve",
    "permit.draft",
    "permit.check",
    "permit.authorise",
    "permit.issue",
    "permit.accept",
    "permit.sign-on",
    "permit.sign-off",
    "permit.return-copy",
    "permit.hand-back",
    "permit.inspect",
    "permit.close",
    "box.take-off",
    "return.start",
  ]) {
    expect(types).toContain(type);
  }
  expect(rows().filter(({ outcome }) => outcome === "refused")).toEqual([]);
  await expectReplay(site);
});

test("one by one the same acts leave the same rows", async () => {
  const together = await played(false);
  expect(await played(true)).toEqual(together);

  async function played(apart: boolean) {
    const own = site;
    site = new TestSite(apart ? "apart.db" : "together.db");
    holder.heavyLanternDatabase = site.db;
    await openTwoJobs(site);
    try {
      // Times differ by the minutes between: what is compared is what was done, by whom, of what.
      for (const part of [oneLock, null, atWork]) {
        if (part === null) await site.walk(named.isolation, { first: "ivo", second: "vera" });
        else for (const next of part()) await (apart ? alone(next) : signed(next));
      }
      return rows().map(({ type, outcome, byPerson, subject }) => ({ type, outcome, byPerson, subject }));
    } finally {
      site.close();
      site = own;
    }
  }
  async function alone({ by, entries }: Signed) {
    const answers: Record<string, string | number | null>[] = [];
    for (const { type, input, from } of entries) {
      const at = from as { entry: number; field: string } | undefined;
      const whole = at ? { ...input, [at.field]: answers[at.entry]![at.field] } : input;
      answers.push(await site.done(by, type, whole));
      named = { ...named, ...(answers.at(-1) as Partial<typeof named>) };
    }
  }
});

test("whichever act of it is refused, nothing of the round is done, and the refusal is on record", async () => {
  let tried = 0;
  await day(async (next) => {
    if (next.kind === null) return;
    for (let at = 0; at < next.entries.length; at++) {
      const spoilt = next.entries.map((entry, i) => (i === at ? spoil(entry) : entry));
      const before = stateOf(site.db);
      const count = rows().length;
      const answer = await site.round(next.by, next.kind, spoilt);
      expect(answer).toMatchObject({ ok: false });
      expect(stateOf(site.db)).toEqual(before);
      const since = rows().slice(count);
      // What could not be read at all leaves no row; what was refused leaves its own and no other.
      if (answer.ok || answer.status === 400) expect(since).toEqual([]);
      else expect(since.map(({ type, outcome }) => [type, outcome])).toEqual([[next.entries[at]!.type, "refused"]]);
      if (!answer.ok && answer.status !== 400) expect(answer.entry).toBe(at);
      tried++;
    }
  });
  expect(tried).toBeGreaterThan(15);
});

/** The same act of something that is not there; of the same permit where the round would not be one any more. */
function spoil(entry: Entry): Entry {
  const { type, input, from } = entry;
  if (type === "permit.sign-on") return { ...entry, input: { ...input, lock: "H-1", answer: "elsewhere" } };
  if (type === "permit.accept") return { ...entry, type: "permit.accept", input: { permit: "P-99" } };
  const gone = { permit: "P-99", job: "J-99", isolation: "S-99", box: "B-99" };
  const spoilt = Object.fromEntries(
    Object.entries(input).map(([key, value]) => [key, key in gone ? gone[key as keyof typeof gone] : value]),
  );
  return from ? { type, input: { permit: "P-99" } } : { ...entry, input: spoilt };
}

describe("the signature", () => {
  const plan = async (): Promise<Signed> => {
    for (const next of oneLockUpToPlan()) expect(await signed(next)).toMatchObject({ ok: true });
    return [...oneLock()].at(-1)!;
  };
  function* oneLockUpToPlan(): Generator<Signed> {
    let n = 0;
    for (const next of oneLock()) {
      if (++n > 2) return;
      yield next;
    }
  }

  test("is asked once where anything of it is signed, and without it nothing is done or recorded", async () => {
    const { by, kind, entries } = await plan();
    const before = stateOf(site.db);
    const count = rows().length;
    expect(await site.round(by, kind!, entries, null)).toMatchObject({ ok: false, status: 403, field: "pin" });
    expect(await site.round(by, kind!, entries, "1111")).toMatchObject({ ok: false, status: 403, field: "pin" });
    expect(stateOf(site.db).filter((row) => !row.startsWith("failed"))).toEqual(before);
    expect(rows()).toHaveLength(count);
    expect(await site.round(by, kind!, entries)).toMatchObject({ ok: true, answer: { permit: "P-0001" } });
  });

  test("the same ids get the same answers, and nothing is done twice", async () => {
    const { by, kind, entries } = await plan();
    const kept = entries.map((entry) => ({ ...entry, actId: randomUUID() }));
    const first = await site.round(by, kind!, kept);
    const count = rows().length;
    expect(await site.round(by, kind!, kept)).toEqual(first);
    expect(rows()).toHaveLength(count);
    // A part of it done before, and the rest not: somebody mixed two things up.
    const mixed = [{ ...kept[0]!, actId: randomUUID() }, ...kept.slice(1)];
    expect(await site.round(by, kind!, mixed)).toMatchObject({ ok: false, status: 409 });
    expect(rows().filter(({ type, outcome }) => type === "permit.draft" && outcome === "done")).toHaveLength(1);
  });

  test("joins only what one person does at one place: anything else is no round", async () => {
    const { by, entries } = await plan();
    const no = { ok: false, status: 400 };
    const [approve, draft, check] = entries;
    expect(await site.round(by, "plan and permits", [draft!, approve!])).toMatchObject(no);
    expect(await site.round(by, "permits checked", entries)).toMatchObject(no);
    expect(await site.round(by, "no such round" as RoundKind, entries)).toMatchObject(no);
    const later = { ...check!, from: { entry: 5, field: "permit" } };
    expect(await site.round(by, "plan and permits", [approve!, draft!, later])).toMatchObject(no);
    const twice = randomUUID();
    const same = entries.map((entry) => ({ ...entry, actId: twice }));
    expect(await site.round(by, "plan and permits", same)).toMatchObject(no);
    expect(await site.round("wim", "plan and permits", entries)).toMatchObject({ ok: false, status: 403, entry: 0 });
  });

  test("on the spot is not enough to authorise what the desk looks at apart", async () => {
    const { job } = await site.done("cora", "job.ask", {
      title: "Change the seal",
      work: "Open it.",
      faces: [{ place: "P", how: ["open"] }],
      windowFrom_ms: site.clock_ms,
      windowTo_ms: site.clock_ms + 8 * HOUR,
      holder: "hal",
      crew: ["hal"],
    });
    const made = await site.done("cora", "isolation.approve", { job, school: "work", plantRevision: 1 });
    await decideHazards(site, String(job));
    const number = await drafted(site, { job: String(job), kind: "line break" });
    await site.done("cora", "permit.check", { permit: number });
    await site.walk(String(made.isolation), { first: "ivo", second: "vera" });
    const onTheSpot = [
      { type: "permit.authorise", input: { permit: number } },
      { type: "permit.issue", input: { permit: number, copies: ["at the work"] } },
    ];
    const answer = await site.round("isa", "issued on the spot", onTheSpot);
    expect(answer).toMatchObject({ ok: false, code: "authorised apart", entry: 0 });
    expect(answer.ok ? "" : answer.sentence).toContain("line break");
    await site.done("isa", "permit.authorise", { permit: number });
  });
});
