import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { openToRead } from "../../src/server/db/database";
import { stateTables } from "../../src/server/db/stateRows";
import { people } from "../../src/server/db/schema";
import { DEMO_PIN } from "../../src/server/demo/demoPeople";
import { seedDemo } from "../../src/server/demo/seedDemo";
import { receive } from "../../src/server/permit/instruments";
import { storePhoto } from "../../src/server/photos/storePhoto";
import { verifyLedger } from "../../src/server/ledger/verify";
import { TestSite } from "../support/testSite";
import { withoutTriggers } from "../support/tampering";

/**
 * Whoever has the files changes something, with the triggers off: every such edit is found, and named by its table. The
 * edits are made from the tables themselves, so that a table of tomorrow is among them.
 */

const PIXEL = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
  "base64",
);

let site: TestSite;
let path: string;
let head: string;

beforeAll(async () => {
  site = new TestSite();
  await seedDemo(site.db, join(__dirname, "../../demo"), site.headFile, Date.UTC(2026, 10, 20, 10));
  const [anybody] = site.db.select().from(people).all();
  const maren = site.db
    .select()
    .from(people)
    .all()
    .find(({ signIn }) => signIn === "maren")!;
  const token = { name: "Screen in the shop", rights: ["own calendar"], acts: ["permit.stop"], days: 30 };
  expect(await site.act(maren.id, "access.make", token, { pin: DEMO_PIN })).toMatchObject({ ok: true });
  await storePhoto(site.db, PIXEL, anybody!.id, 0);
  site.db.$client.pragma("wal_checkpoint(TRUNCATE)");
  path = site.db.$client.name;
  head = readFileSync(site.headFile, "utf8");
});
afterAll(() => site.close());

/** What verification says of a copy on which an edit was made, and of its head file. */
function faultsAfter(edit: (client: Database.Database) => void, headText: string | null = head): readonly string[] {
  const folder = mkdtempSync(join(site.folder, "copy-"));
  const [copy, headFile] = [join(folder, "copy.db"), join(folder, "head.json")];
  copyFileSync(path, copy);
  if (headText !== null) writeFileSync(headFile, headText);
  const client = new Database(copy);
  try {
    client.pragma("foreign_keys = OFF");
    edit(client);
  } finally {
    client.close();
  }
  const reading = openToRead(copy);
  try {
    const found = verifyLedger(reading, headFile);
    return found.ok ? [] : found.faults;
  } finally {
    reading.close();
    rmSync(folder, { recursive: true });
  }
}

const sql = (text: string) => (client: Database.Database) => withoutTriggers(client, text);

test("a copy that nobody touched is whole", () => {
  expect(faultsAfter(() => undefined)).toEqual([]);
});

test("every table of state: a value changed, a row removed, a row put in", () => {
  const tables = stateTables(site.db.$client);
  let edits = 0;
  const missed: string[] = [];
  for (const { name, keys, columns } of tables) {
    if (site.db.$client.prepare(`SELECT count(*) FROM "${name}"`).pluck().get() === 0) continue;
    const first = `rowid = (SELECT min(rowid) FROM "${name}")`;
    const named = (text: string, faults: readonly string[]) => {
      edits++;
      if (!faults.some((fault) => fault.startsWith(`${name} `))) missed.push(`${name}: ${text}`);
    };
    for (const column of columns) {
      const changed = `"${column}" = coalesce(${other(column)}, 'x')`;
      named(column, faultsAfter(sql(`UPDATE "${name}" SET ${changed} WHERE ${first}`)));
    }
    named("removed", faultsAfter(sql(`DELETE FROM "${name}" WHERE ${first}`)));
    const others = columns.map((column) => (keys.includes(column) ? other(column) : unique(name, column)));
    const list = columns.map((column) => `"${column}"`).join(", ");
    named(
      "put in",
      faultsAfter(sql(`INSERT INTO "${name}" (${list}) SELECT ${others.join(", ")} FROM "${name}" WHERE ${first}`)),
    );
  }
  expect(missed).toEqual([]);
  expect(edits).toBeGreaterThan(100);
});

/** Another value where no two rows may have the same. */
function unique(table: string, column: string): string {
  const single = site.db.$client
    .prepare(
      `SELECT count(*) FROM pragma_index_list('${table}') l WHERE l."unique" = 1
       AND EXISTS (SELECT 1 FROM pragma_index_info(l.name) WHERE name = '${column}')`,
    )
    .pluck()
    .get();
  return Number(single) > 0 ? other(column) : `"${column}"`;
}

const other = (column: string) =>
  `CASE typeof("${column}") WHEN 'null' THEN NULL WHEN 'integer' THEN "${column}" + 9000 ELSE "${column}" || '9' END`;

test.each([
  ["a picture", sql("UPDATE photos SET jpeg = x'00'"), /^picture .* was changed/],
  ["a register", sql("UPDATE plant_texts SET text = replace(text, 'V-2060', 'V-2045')"), /register of revision 1/],
  ["two tags of the register", swapTags, /^items were changed/],
  [
    "a trigger taken away",
    (c: Database.Database) => c.exec("DROP TRIGGER ledger_no_delete"),
    /^trigger ledger_no_delete/,
  ],
  [
    "a trigger put in",
    (c: Database.Database) => c.exec("CREATE TRIGGER more AFTER INSERT ON holds BEGIN DELETE FROM holds; END"),
    /^trigger more is in the database/,
  ],
  ["a table put in", sql("CREATE TABLE more (x)"), /^table more is in the database/],
  ["an index taken away", sql("DROP INDEX holds_lock_hangs"), /^index holds_lock_hangs is missing/],
  ["a row of the ledger cut from its end", cut, /^the tail was cut/],
  ["all of the ledger", sql("DELETE FROM ledger"), /^the tail was cut/],
  [
    "a body of the ledger",
    sql("UPDATE ledger SET body = replace(body, '\"done\"', '\"refused\"') WHERE seq = 30"),
    /^row 30/,
  ],
] as const)("found: %s", (_, edit, fault) => {
  expect(faultsAfter(edit).join("\n")).toMatch(new RegExp(fault.source, "m"));
});

test("found, and said in few lines: a table filled from outside with more rows than a call takes arguments", () => {
  const said = faultsAfter((client) => {
    client.exec(`WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 200000)
      INSERT INTO stock (thing, size, count, counted_by, counted_at_ms) SELECT 'thing ' || i, '', 1, (SELECT id FROM people LIMIT 1), 0 FROM n`);
  });
  expect(said.length).toBeLessThan(1000);
  expect(said.at(-1)).toMatch(/^and \d{6} more$/);
});

test("found: the ledger emptied and its head file with it; the head file gone, damaged, or of another ledger", () => {
  const nothing = JSON.stringify({ seq: 0, hash: "0".repeat(64) });
  expect(faultsAfter(sql("DELETE FROM ledger"), nothing).length).toBeGreaterThan(50);
  expect(faultsAfter(sql("DELETE FROM ledger"), null).length).toBeGreaterThan(50);
  expect(faultsAfter(() => undefined, null)).toEqual(["the head file is missing"]);
  expect(faultsAfter(() => undefined, "{")).toEqual(["the head file is damaged"]);
  const other = JSON.stringify({ ...(JSON.parse(head) as object), hash: "1".repeat(64) });
  expect(faultsAfter(() => undefined, other).join()).toMatch(/is not the one that the head file knows/);
});

test("no fault: what changes without an act", () => {
  expect(
    faultsAfter((client) =>
      client.exec("UPDATE people SET units = 'us'; DELETE FROM sessions; UPDATE detectors SET last_at_ms = 5"),
    ),
  ).toEqual([]);
  expect(receive("no token", {}, 0, site.db, site.headFile).ok).toBe(false);
});

function cut(client: Database.Database): void {
  withoutTriggers(client, "DELETE FROM ledger WHERE seq = (SELECT max(seq) FROM ledger)");
}

function swapTags(client: Database.Database): void {
  const swap = `UPDATE items SET tag = 'swap' WHERE tag = 'V-2060'; UPDATE items SET tag = 'V-2060' WHERE tag = 'V-2043';
    UPDATE items SET tag = 'V-2043' WHERE tag = 'swap'`;
  withoutTriggers(client, swap);
}
