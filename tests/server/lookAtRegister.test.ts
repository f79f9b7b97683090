import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { addPerson } from "../../src/server/acts/addPerson";
import { runAct } from "../../src/server/acts/runAct";
import { openDatabase, type Db } from "../../src/server/db/database";
import { ledger, people, plantRevisions } from "../../src/server/db/schema";
import { toPerson } from "../../src/server/people/signIn";
import { lookAtRegister } from "../../src/server/plant/lookAtRegister";
import { stage, Taken } from "../../src/server/plant/plantActs";

const ITEMS = `tag,kind,voltage_V,source,stops,credit,lockable,effort,stands
S,incomer,400,power,,,,,
Q-1,isolator,400,,power,yes,yes,4,passing
Q-2,isolator,400,,power,yes,yes,6,passing
M,motor,400,,,,,,
`;
const LINKS = `from,to,carries,walked
S,Q-1,power,2026-10-01
Q-1,Q-2,power,2026-10-01
Q-2,M,power,2026-10-01
`;
const NOW = 1_790_000_000_000;
const folder = mkdtempSync(join(tmpdir(), "lantern-look-"));
const headFile = join(folder, "ledger-head.json");
let db: Db;
let cora: string;
const files = (items = ITEMS, links = LINKS) => [
  { name: "items.csv", text: items },
  { name: "links.csv", text: links },
];

async function staged(items?: string, links?: string) {
  const read = await stage(db, files(items, links), NOW);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}
function act(type: string, input: unknown) {
  const row = db
    .select()
    .from(people)
    .all()
    .find(({ id }) => id === cora)!;
  return runAct({ version: 1, actId: randomUUID(), type, input, pin: "2468" }, toPerson(row, NOW), NOW, db, headFile);
}

beforeAll(async () => {
  db = openDatabase(join(folder, "site.db"));
  const who = {
    name: "Cora",
    signIn: "cora",
    roles: ["coordinator"],
    competences: [],
    password: "long enough",
    pin: "2468",
  };
  cora = await addPerson(db, who as never, { headFile, now_ms: 0 });
}, 60_000);
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

test("of a first register all of it is new; looking at it makes no revision and no row", async () => {
  const rows = db.select().from(ledger).all().length;
  const look = await lookAtRegister(db, await staged());
  expect(look).toMatchObject({ same: false, on: 0, work: [] });
  expect(look.counts).toMatchObject({ items: { added: 4, removed: 0, changed: 0 }, links: { added: 3 } });
  expect(db.select().from(plantRevisions).all()).toEqual([]);
  expect(db.select().from(ledger).all()).toHaveLength(rows);
});

test("what people count on is judged as the import will judge it, and both come to the same", async () => {
  expect(await act("plant.import", { files: files() })).toMatchObject({ ok: true });
  expect(await lookAtRegister(db, await staged())).toMatchObject({ same: true, on: 1, work: [] });
  const asked = await act("job.ask", {
    title: "Motor",
    work: "Look at it.",
    faces: [{ place: "M", how: ["touch"] }],
    longerThanShift: false,
    windowFrom_ms: NOW,
    windowTo_ms: NOW + 3_600_000,
    holder: cora,
    crew: [cora],
  });
  const job = asked.ok ? String(asked.answer.job) : "";
  const approved = await act("isolation.approve", { job, objective: "effort", school: "work", plantRevision: 1 });
  expect(approved.ok ? "" : approved.sentence).toBe("");

  const harmless = await lookAtRegister(db, await staged(`${ITEMS}X,pump,,,,,,,\n`));
  expect(harmless.work).toMatchObject([{ jobs: [{ number: job }], holds: true, why: "" }]);

  // A second supply straight to the motor.
  const joined = [`${ITEMS}S-2,incomer,400,power,,,,,\n`, `${LINKS}S-2,M,power,2026-10-01\n`] as const;
  const harmful = await lookAtRegister(db, await staged(...joined));
  expect(harmful.work).toMatchObject([{ holds: false, live: [] }]);
  expect(harmful.work[0]!.why).toContain("S-2 reaches M");
  expect(harmful.change.links.added).toEqual(["S-2 to M (power)"]);

  const imported = await act("plant.import", { files: [], taken: new Taken(await staged(...joined), 1) });
  expect(imported).toMatchObject({ ok: true, answer: { revision: 2 } });
  const fell = db.select().from(ledger).all().at(-1)!;
  expect(fell.body).toContain(harmful.work[0]!.isolation);
  expect(fell.body).toContain("S-2 reaches M");
});

test("a register that was looked at beside another revision is refused, and nothing comes in", async () => {
  const late = await act("plant.import", { files: [], taken: new Taken(await staged(), 1) });
  expect(late).toMatchObject({ ok: false, code: "register came in" });
  expect(db.select().from(plantRevisions).all()).toHaveLength(2);
});
