import { join } from "node:path";
import { isNull } from "drizzle-orm";
import { holds, jobs, people, permits, personalLocks, standingLocks } from "../../src/server/db/schema";
import { seedDemo } from "../../src/server/demo/seedDemo";
import { LISTS, listTable, mayTakeOut } from "../../src/server/lists/lists";
import { shiftChanges } from "../../src/server/runtime/siteTime";
import { readWorkbook, writeWorkbook } from "../../src/workers/workbook";
import { TestSite } from "../support/testSite";

const NOW_MS = shiftChanges(Date.UTC(2026, 10, 20), Date.UTC(2026, 10, 21))[0]! + 75 * 60_000;
const site = new TestSite();
beforeAll(() => seedDemo(site.db, join(__dirname, "../../demo"), site.headFile, NOW_MS), 120_000);
afterAll(() => site.close());

const rowsOf = (list: (typeof LISTS)[number]) => {
  const [head, ...rows] = listTable(site.db, list, NOW_MS);
  return rows.map((row) => Object.fromEntries(head!.map((heading, i) => [heading, row[i]])));
};

test.each(LISTS)("%s: every row is as wide as its headings, and nothing secret is among them", (list) => {
  const [head, ...rows] = listTable(site.db, list, NOW_MS);
  expect(rows.length).toBeGreaterThan(0);
  for (const row of rows) expect(row).toHaveLength(head!.length);
  const text = JSON.stringify(rows);
  for (const { passwordHash, pinHash } of site.db.select().from(people).all()) {
    expect(text).not.toContain(passwordHash);
    expect(text).not.toContain(pinHash);
  }
});

test("all of a register is in it, as it stands at the moment", () => {
  expect(rowsOf("permits").map((row) => `${String(row.permit)} ${String(row.state)}`)).toEqual([
    "P-0003 closed",
    "P-0002 live",
    "P-0001 live",
  ]);
  expect(rowsOf("permits")).toHaveLength(site.db.select().from(permits).all().length);
  expect(rowsOf("jobs")).toHaveLength(site.db.select().from(jobs).all().length);
  // When nobody looked, the clock has moved on all the same.
  const [, ...later] = listTable(site.db, "permits", NOW_MS + 30 * 24 * 3_600_000);
  expect(later.map((row) => row[2])).not.toContain("live");
  const hanging = [
    ...site.db.select().from(holds).where(isNull(holds.liftedAt)).all(),
    ...site.db.select().from(personalLocks).where(isNull(personalLocks.offAt)).all(),
    ...site.db.select().from(standingLocks).where(isNull(standingLocks.offAt)).all(),
  ];
  expect(rowsOf("locks")).toHaveLength(hanging.length);
});

test("the list of people is for coordinators; the others are for the site's own people", () => {
  expect(mayTakeOut("people", { roles: ["issuer"], firm: "" })).toBe(false);
  expect(mayTakeOut("people", { roles: ["coordinator"], firm: "" })).toBe(true);
  expect(LISTS.filter((list) => !mayTakeOut(list, { roles: [], firm: "" }))).toEqual(["people"]);
  expect(LISTS.filter((list) => mayTakeOut(list, { roles: ["coordinator"], firm: "Another firm" }))).toEqual([]);
});

test("as a workbook it is one that opens, with its words as words", async () => {
  const bytes = await writeWorkbook({ items: listTable(site.db, "gear", NOW_MS), links: [["a"], ["=1+1"]] });
  const read = await readWorkbook("gear.xlsx", bytes);
  expect(read.ok && read.files[1]!.text).toContain("=1+1");
});
