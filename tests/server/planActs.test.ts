import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { runAct } from "../../src/server/acts/runAct";
import type { ActAnswer } from "../../src/server/acts/answer";
import { addPerson } from "../../src/server/acts/addPerson";
import { openDatabase, type Db } from "../../src/server/db/database";
import { deviations, holds, isolationReviews, isolations, jobs, ledger, people } from "../../src/server/db/schema";
import { verifyLedger } from "../../src/server/ledger/verify";
import { BEGUN } from "../../src/core/isolation/held";
import { soundReport } from "../../src/core/isolation/soundReport";
import { toPerson } from "../../src/server/people/signIn";
import { loadIsolation } from "../../src/server/isolation/isolationStore";

/** S – V-1 – SP – V-2 – P, and S-2 – V-3 – SP: crude, no bleed, two ways in. */
const ITEMS = `tag,kind,contents,temperature_C,pressure_Pa,hazards,source,stops,credit,lockable,effort,stands
S,header,solvent,20,300000,flammable,fluid,,,,,
V-1,valve,,,,,,fluid,yes,yes,4,passing
SP,pipe,,,,,,,,,,
V-2,valve,,,,,,fluid,yes,yes,6,passing
V-5,valve,,,,,,fluid,yes,yes,9,passing
P,vessel,,,,,,,,,,
NR,check valve,,,,,,fluid,no,no,1,passing
`;
const LINKS = `from,to,carries,walked
S,V-1,fluid,2026-10-01
V-1,SP,fluid,2026-10-01
SP,V-2,fluid,2026-10-01
V-2,V-5,fluid,2026-10-01
V-5,NR,fluid,2026-10-01
NR,P,fluid,2026-10-01
`;

const folder = mkdtempSync(join(tmpdir(), "lantern-acts-"));
const headFile = join(folder, "ledger-head.json");
let db: Db;
const ids = new Map<string, string>();
let clock_ms = 1_790_000_000_000;

beforeAll(async () => {
  db = openDatabase(join(folder, "site.db"));
  const add = async (signIn: string, roles: string[], competences: string[] = []) =>
    ids.set(
      signIn,
      await addPerson(
        db,
        {
          name: signIn,
          signIn,
          roles: roles as never,
          competences: competences as never,
          password: "long enough",
          pin: "2468",
        },
        { headFile, now_ms: 0 },
      ),
    );
  await add("cora", ["coordinator"]);
  await add("ivo", ["isolator"], ["process", "mechanical"]);
  await add("vera", ["isolator"], ["process"]);
  await add("otto", ["operator"]);
  await add("ana", ["approver"]);
  await add("both", ["coordinator", "approver"]);
}, 60_000);
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

function act(signIn: string, type: string, input: unknown, pin: string | undefined = "2468", actId = randomUUID()) {
  const row = db
    .select()
    .from(people)
    .all()
    .find((one) => one.id === ids.get(signIn))!;
  clock_ms += 60_000;
  return runAct(
    { version: 1, actId, type, input, ...(pin ? { pin } : {}) },
    toPerson(row, clock_ms),
    clock_ms,
    db,
    headFile,
  );
}
async function done(signIn: string, type: string, input: unknown) {
  const answer = await act(signIn, type, input);
  if (!answer.ok) throw new Error(answer.sentence);
  return answer.answer;
}
const refusal = (answer: ActAnswer) => (answer.ok ? "done" : answer.sentence);
const importPlant = (links = LINKS) =>
  done("cora", "plant.import", {
    files: [
      { name: "items.csv", text: ITEMS },
      { name: "links.csv", text: links },
    ],
  });
const askFor = async (by: string) =>
  String(
    (
      await done(by, "job.ask", {
        title: "Open P",
        work: "Open it.",
        faces: [{ place: "P", how: ["open"] }],
        longerThanShift: false,
        windowFrom_ms: clock_ms,
        windowTo_ms: clock_ms + 3_600_000,
        holder: ids.get("ivo"),
        crew: [ids.get("ivo")],
      })
    ).job,
  );
const approve = (job: string, rest: object = {}) =>
  act("cora", "isolation.approve", { job, objective: "effort", school: "work", plantRevision: 1, ...rest });
const WAY = "S fluid P";
const accept = (by: string, job: string, rest: object = {}) =>
  act(by, "deviation.accept", {
    job,
    objective: "effort",
    school: "work",
    ways: [WAY],
    measures: ["watcher"],
    reason: "watched until blinded",
    ...rest,
  });

describe("a plan that falls short", () => {
  let job: string;
  beforeAll(async () => {
    await importPlant();
    job = await askFor("cora");
  });

  test("is not approved, and nothing is made", async () => {
    expect(refusal(await approve(job))).toMatch(/falls short at S fluid P\. An approver must accept each/);
    expect(db.select().from(isolations).all()).toEqual([]);
  });
  test("is not answered for by a coordinator, nor by the one who asked for the job", async () => {
    expect(refusal(await accept("cora", job))).toMatch(/may not accept a deviation/);
    const own = await askFor("both");
    expect(refusal(await accept("both", own))).toMatch(/somebody else must accept/);
    expect(db.select().from(deviations).all()).toEqual([]);
  });
  test("is answered for way by way, with measures and a reason, and the PIN", async () => {
    expect(refusal(await accept("ana", job, { ways: ["S fluid Q"] }))).toMatch(/does not fall short at S fluid Q/);
    expect(refusal(await accept("ana", job, { measures: [] }))).toMatch(/measures: choose at least one/);
    expect(refusal(await accept("ana", job, { reason: "" }))).toMatch(/reason: write the reason/);
    const noPin = await act(
      "ana",
      "deviation.accept",
      { job, objective: "effort", school: "work", ways: [WAY], measures: ["watcher"], reason: "because" },
      "",
    );
    expect(noPin).toMatchObject({ ok: false, status: 403, field: "pin" });
    expect((await accept("ana", job)).ok).toBe(true);
    expect(db.select().from(deviations).all()).toMatchObject([
      { way: WAY, requiredGrade: "proved double", acceptedBy: ids.get("ana") },
    ]);
  });
  test("a device pinned or struck out shows at once, and an unknown one is refused", async () => {
    const adjust = (device: string, to: string) => act("cora", "plan.adjust", { job, device, to, reason: "on site" });
    expect(refusal(await adjust("V-77", "pinned"))).toMatch(/Unknown tag V-77\. Nothing was changed/);
    expect(refusal(await adjust("SP", "struck"))).toMatch(/SP is not a device/);
    expect(await adjust("V-5", "pinned")).toMatchObject({ ok: true });
    expect(
      db
        .select()
        .from(jobs)
        .all()
        .find((row) => row.number === job)!.job,
    ).toMatchObject({
      pinned: ["V-5"],
      struck: [],
    });
    await adjust("V-5", "struck");
    expect(
      db
        .select()
        .from(jobs)
        .all()
        .find((row) => row.number === job)!.job,
    ).toMatchObject({
      pinned: [],
      struck: ["V-5"],
    });
    await adjust("V-5", "left to the engine");
  });
  test("is approved once accepted, pins what it was made with, and can then not be changed", async () => {
    const answer = await approve(job);
    expect(answer).toMatchObject({ ok: true });
    expect(db.select().from(isolations).all()).toMatchObject([{ ruleProfile: "strict", plantRevision: 1 }]);
    const late = await act("cora", "plan.adjust", { job, device: "V-5", to: "pinned", reason: "too late" });
    expect(refusal(late)).toMatch(/already done/);
  });
});

describe("two jobs behind the same valves", () => {
  test("each holds its own locks, and a point is swapped only for one as good, with a free lock and the right plate", async () => {
    // The second job stands on the same isolation points; both walk theirs to the end.
    const second = await askFor("cora");
    await accept("ana", second);
    expect((await approve(second)).ok).toBe(true);
    const numbers = db
      .select()
      .from(isolations)
      .all()
      .map((row) => row.number);
    let lock = 0;
    for (const isolation of numbers) {
      for (let round = 0; round < 20; round++) {
        const { life } = loadIsolation(db, isolation)!;
        const finished = new Set(life.steps.filter((step) => step.done).map((step) => step.id));
        const next = life.steps.find(
          (step) =>
            step.phase === "isolate" &&
            !step.done &&
            step.kind !== "prove" &&
            !BEGUN.has(step.kind) &&
            step.after.every((id) => finished.has(id)),
        );
        if (!next) break;
        const who = next.role === "operator" ? "otto" : next.kind === "verify" ? "vera" : "ivo";
        await done(who, "step.do", { isolation, step: next.id, ...soundReport(next, { lock: `L-${lock + 1}` }) });
        if (next.kind === "lock") lock++;
      }
    }
    expect(db.select().from(holds).all()).toHaveLength(4);

    const [first] = numbers as [string];
    // A swap for a device that does not hold the way is refused; one that does is done, with a free lock.
    const swap = { isolation: first, from: "V-1", to: "NR", plate: "NR", lock: "L-90", reason: "handle broken" };
    expect(refusal(await act("ivo", "point.swap", swap))).toMatch(/NR may not be counted as a barrier/);
    expect(refusal(await act("ivo", "point.swap", { ...swap, to: "V-5", plate: "V-5", lock: "L-1" }))).toMatch(
      /Lock L-1 is in use/,
    );
    expect(refusal(await act("ivo", "point.swap", { ...swap, to: "V-5", plate: "V-6" }))).toMatch(
      /not what the plate of this point says/,
    );
    expect((await act("ivo", "point.swap", { ...swap, to: "V-5", plate: "V-5" })).ok).toBe(true);
    const held = loadIsolation(db, first)!
      .life.steps.filter((step) => step.kind === "unlock" && step.phase === "restore")
      .map((step) => step.subject);
    expect(held.sort()).toEqual(["V-2", "V-5"]);
    expect(
      db
        .select()
        .from(holds)
        .all()
        .filter((row) => row.liftedAt === null),
    ).toHaveLength(4);
  }, 60_000);

  test("an isolation that stays is reviewed with a reason and a date, by a coordinator, within the profile's limit", async () => {
    const isolation = db.select().from(isolations).all()[0]!.number;
    const review = { isolation, reason: "waits for a gasket", next_h: 24 };
    expect(refusal(await act("ivo", "isolation.review", review))).toMatch(/coordinator/);
    expect(refusal(await act("cora", "isolation.review", { ...review, reason: " " }))).toMatch(/write why it stays/);
    expect(refusal(await act("cora", "isolation.review", { ...review, next_h: 1.5 }))).toMatch(/whole number of hours/);
    expect(refusal(await act("cora", "isolation.review", { ...review, next_h: 169 }))).toMatch(/168 at most/);
    expect(refusal(await act("cora", "isolation.review", { ...review, isolation: "S-9999" }))).toMatch(
      /no isolation S-9999/,
    );
    expect(db.select().from(isolationReviews).all()).toHaveLength(0);
    const answer = await done("cora", "isolation.review", review);
    expect(answer.next_ms).toBe(clock_ms + 24 * 3_600_000);
    expect(db.select().from(isolationReviews).all()).toMatchObject([
      { reason: "waits for a gasket", nextAt: answer.next_ms },
    ]);
  });

  test("everything refused and done is in a whole ledger", () => {
    expect(verifyLedger(db.$client, headFile)).toMatchObject({ ok: true });
    const rows = db.select().from(ledger).all();
    expect(rows.filter((row) => row.outcome === "refused").length).toBeGreaterThan(7);
    expect(rows.some((row) => row.type === "point.swap" && row.outcome === "done")).toBe(true);
  });
});
