import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { multiplySite } from "../support/bigSite";
import { openDatabase, type Db } from "../../src/server/db/database";
import { ledgerPage } from "../../src/server/ledger/ledgerPage";
import { unreadFor } from "../../src/server/box/removals";
import { boxesInUse, boxView, gearRegister, openJobNumbers } from "../../src/server/box/boxView";
import { seedDemo } from "../../src/server/demo/seedDemo";
import { storeLines } from "../../src/server/figures/dayView";
import { boardPage } from "../../src/server/board/boardPage";
import { stripPermits } from "../../src/server/job/board";
import { openJobsList, pastJobsList } from "../../src/server/job/jobsList";
import { jobView, peopleToChoose } from "../../src/server/job/jobView";
import { shiftState } from "../../src/server/job/shiftState";
import { openSession, personOfSession } from "../../src/server/people/signIn";
import { inOrder } from "../../src/core/listed";
import { bypasses, permitRegister, REGISTER_SORTS } from "../../src/server/permit/permitRegister";
import { permitView } from "../../src/server/permit/permitView";
import { settleAll } from "../../src/server/permit/settlePermits";
import { revisions, searchRegister } from "../../src/server/plant/register";

const MOST = 40;
const now_ms = Date.now();
const holder = globalThis as { heavyLanternDatabase?: Db };

let folder: string;
let db: Db;
let asked: string[] = [];
let token: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "lantern-queries-"));
  // Whether another program wrote is one number in memory, no question to the tables.
  const isQuestion = (sql: string) => sql !== "PRAGMA data_version";
  db = openDatabase(join(folder, "site.db"), (sql) => isQuestion(sql) && asked.push(sql));
  await seedDemo(db, resolve("demo"), join(folder, "head.json"), now_ms);
  holder.heavyLanternDatabase = db;
  const maren = db.$client.prepare("SELECT id FROM people WHERE sign_in = 'maren'").get() as { id: string };
  token = openSession(db, maren.id, now_ms).token;
});

afterAll(() => {
  delete holder.heavyLanternDatabase;
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

/** What every page has around it: who is signed in, what they have to read first, and the strip. */
function frame(): void {
  const person = personOfSession(db, token, Date.now())!;
  unreadFor(person.id);
  stripPermits(now_ms);
}

const PAGES: Readonly<Record<string, () => unknown>> = {
  board: () => [boardPage(personOfSession(db, token, Date.now())!, now_ms, now_ms), bypasses(now_ms)],
  jobs: () => openJobsList(now_ms),
  "jobs, closed": () => pastJobsList("closed", { find: "seal", sort: "number", down: true, page: 2 }),
  permits: () => [permitRegister({ kind: "", state: "open", find: "" }, 1, now_ms), bypasses(now_ms)],
  "permits, all": () => permitRegister({ kind: "", state: "", find: "seal" }, 3, now_ms),
  permit: () => permitView("P-0001", now_ms),
  "hot work permit": () => permitView("P-0002", now_ms),
  job: () => [jobView("J-0001", now_ms), peopleToChoose()],
  locks: () => boxesInUse(),
  box: () => boxView("B-0001"),
  "register of gear": () => [gearRegister(now_ms), openJobNumbers()],
  "register of plant": () => [searchRegister("pump", 1), revisions()],
  store: () => storeLines(),
  ledger: () => ledgerPage("", 1, null),
  handover: () => shiftState(now_ms),
  "a look of the clock": () => settleAll(now_ms, db, join(folder, "head.json")),
};

function count(page: string): number {
  // As after a change: nothing that was looked at before is good any more.
  db.$client.prepare("UPDATE stock SET count = count").run();
  asked = [];
  if (page !== "a look of the clock") frame();
  PAGES[page]!();
  return asked.length;
}

const counts = () => Object.fromEntries(Object.keys(PAGES).map((page) => [page, count(page)]));

test("a page asks the database a bounded number of questions, however large the site and its past", () => {
  // Settled first: what the clock moves on the copies is written once.
  multiplySite(db.$client, { open: 50, closed: 20, permits: 0 });
  settleAll(now_ms, db, join(folder, "head.json"));
  const small = counts();
  multiplySite(db.$client, { open: 450, closed: 480, permits: 4000 });
  settleAll(now_ms, db, join(folder, "head.json"));
  const large = counts();
  expect(large).toEqual(small);
  for (const [page, n] of Object.entries(large)) expect([page, n <= MOST, n]).toEqual([page, true, n]);
});

test("the jobs show the urgent first, a page at a time, and count them all", () => {
  const on = (page: number) => openJobsList(now_ms, { find: "", sort: "urgent", down: false, page });
  const first = on(1);
  expect(first.openCount).toBeGreaterThan(500);
  expect(first.rows).toHaveLength(100);
  const urgent = first.rows.map(({ next }) => next?.urgent === true);
  expect(urgent.indexOf(false) === -1 || !urgent.slice(urgent.indexOf(false)).includes(true)).toBe(true);
  const numbers = Array.from({ length: first.pages }, (_, i) => on(i + 1).rows.map(({ number }) => number)).flat();
  expect(new Set(numbers).size).toBe(first.openCount);
});

test("a job that is over is found by its number, its place and its holder, however many there are", () => {
  const asked = { find: "", sort: "number", down: true, page: 1 } as const;
  const all = pastJobsList("closed", asked);
  expect(all.found).toBeGreaterThan(400);
  expect(all.pages).toBe(Math.ceil(all.found / 100));
  const last = pastJobsList("closed", { ...asked, page: 9999 });
  expect(last.page).toBe(all.pages);
  const old = last.rows.at(-1)!;
  for (const find of [old.number.toLowerCase(), `${old.number} ${old.holder}`, `${old.places[0]!} ${old.number}`]) {
    expect(pastJobsList("closed", { ...asked, find }).rows.map(({ number }) => number)).toContain(old.number);
  }
  // What only stands in the file of a request is not what anybody looks for.
  expect(pastJobsList("closed", { ...asked, find: "heavy-lantern/job" }).found).toBe(0);
  expect(pastJobsList("withdrawn", { ...asked, find: old.number }).found).toBe(0);
});

test("the register is put in order by what was asked, over all its pages", () => {
  for (const sort of REGISTER_SORTS) {
    const pages = [1, 2].flatMap((page) =>
      permitRegister({ kind: "", state: "", find: "", sort, down: false }, page, now_ms).rows.map((row) =>
        sort === "from" ? row.validFrom_ms : sort === "until" ? row.validTo_ms : row[sort],
      ),
    );
    // Numbers as numbers, also those with a figure more; names as the database puts them.
    expect(pages).toEqual(sort === "holder" ? pages.toSorted() : inOrder(pages, (key) => key));
  }
});

test("the register finds what is over too, page by page, in every spelling", () => {
  const { found, rows } = permitRegister({ kind: "", state: "closed", find: "" }, 1, now_ms);
  expect(found).toBeGreaterThan(4000);
  expect(rows).toHaveLength(50);
  const second = permitRegister({ kind: "", state: "closed", find: "" }, 2, now_ms).rows;
  expect(second[0]!.number < rows.at(-1)!.number).toBe(true);
  const byNumber = permitRegister({ kind: "", state: "", find: "p-0001" }, 1, now_ms);
  expect(byNumber.rows.map(({ number }) => number)).toContain("P-0001");
  expect(permitRegister({ kind: "no such kind", state: "", find: "" }, 1, now_ms).found).toBe(0);
});
