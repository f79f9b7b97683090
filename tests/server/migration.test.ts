import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import Database from "better-sqlite3";
import { openDatabase, type Db } from "../../src/server/db/database";
import { openJobsList } from "../../src/server/job/jobsList";
import { jobView } from "../../src/server/job/jobView";
import { takeOver } from "../../src/server/ledger/byTheServer";
import { verifyLedger } from "../../src/server/ledger/verify";
import { permitView } from "../../src/server/permit/permitView";
import { plantAt } from "../../src/server/plant/plantStore";
import { itemSheet, searchRegister } from "../../src/server/plant/register";
import { bundled } from "../support/bundled";
import { withoutTriggers } from "../support/tampering";

/**
 * The demo's day as an earlier version left it, after migration 0008, with its ledger. It is opened as it is found on a
 * site: everything in it must still be there.
 */
const STORED = join(__dirname, "../fixtures/database-0008.db.gz");
const holder = globalThis as { heavyLanternDatabase?: Db };

let folder: string;
let was: Database.Database;
let db: Db;

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "lantern-migration-"));
  const bytes = gunzipSync(readFileSync(STORED));
  writeFileSync(join(folder, "was.db"), bytes);
  writeFileSync(join(folder, "heavy-lantern.db"), bytes);
  was = new Database(join(folder, "was.db"), { readonly: true });
  db = openDatabase(join(folder, "heavy-lantern.db"));
  holder.heavyLanternDatabase = db;
});

afterAll(() => {
  delete holder.heavyLanternDatabase;
  was.close();
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

const rows = (from: Database.Database, sql: string) => from.prepare(sql).all() as Record<string, unknown>[];
const TABLES =
  "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE '\\_\\_%' ESCAPE '\\'";

test("every row of every table is still there, with every column that still is", () => {
  const tables = rows(was, TABLES).map(({ name }) => String(name));
  expect(tables.length).toBeGreaterThan(20);
  let compared = 0;
  for (const table of tables) {
    const columns = (from: Database.Database) =>
      (from.pragma(`table_info(${table})`) as { name: string }[]).map(({ name }) => name);
    const kept = columns(was).filter((name) => columns(db.$client).includes(name));
    const sql = `SELECT ${kept.join(", ")} FROM ${table} ORDER BY rowid`;
    expect(rows(db.$client, sql)).toEqual(rows(was, sql));
    compared += rows(was, sql).length;
  }
  expect(compared).toBeGreaterThan(600);
});

test("what an item is, and that it is there, is found though its row keeps only its id and tag", () => {
  const before = rows(was, "SELECT id, tag, name, kind, area, part, present FROM items ORDER BY tag");
  expect(before.length).toBeGreaterThan(200);
  for (const { id, tag, name, kind, area, part, present } of before) {
    const sheet = itemSheet(String(tag))!;
    expect({ id: sheet.id, present: Number(sheet.present) }).toEqual({ id, present });
    const found = searchRegister(String(tag), 1).rows.find((row) => row.tag === tag);
    expect(found).toEqual({ tag, name, kind, area, part });
  }
});

test("every register of before is still there, word for word", () => {
  const before = rows(was, "SELECT revision, plant_json FROM plant_revisions ORDER BY revision");
  expect(before.length).toBeGreaterThan(0);
  for (const { revision, plant_json } of before) {
    expect(plantAt(db, Number(revision)).plant).toEqual(JSON.parse(String(plant_json)));
  }
});

test("its pages open, its ledger is whole, and a copy of it as it was lies beside it", () => {
  const now_ms = Number(rows(was, "SELECT max(recorded_at_ms) AS at FROM ledger")[0]!.at);
  const shown = openJobsList(now_ms);
  expect(shown.openCount).toBe(rows(was, "SELECT number FROM jobs WHERE state = 'open'").length);
  const asIs = rows(was, "SELECT number, state FROM permits ORDER BY number").map(
    ({ number, state }) => `${number} ${state}`,
  );
  // What is asked now and was not then, as the hazards of a general permit, stops it until somebody has looked: nothing is
  // taken as seen.
  const asked = asIs.map((one) => one.replace(" live", " suspended"));
  expect(shown.rows.flatMap(({ permits }) => permits.map(({ number, state }) => `${number} ${state}`)).sort()).toEqual(
    asked,
  );
  const stop = permitView("P-0002", now_ms)!.stop;
  expect(stop?.type === "stopped" && stop.reason).toMatch(/nobody has looked yet/);
  expect(jobView("J-0001", now_ms)!.held.length).toBeGreaterThan(0);
  expect(permitView("P-0001", now_ms)!.signOns).toHaveLength(2);
  const headFile = join(folder, "head-0008.json");
  writeFileSync(headFile, readFileSync(join(__dirname, "../fixtures/ledger-head-0008.json")));
  expect(verifyLedger(db.$client, headFile)).toMatchObject({ ok: true, stateKnown: false });
  // From here on the record answers for the state, as it was found.
  expect(takeOver(db, "an upgrade", { headFile, now_ms })).toBe(true);
  expect(verifyLedger(db.$client, headFile)).toMatchObject({ ok: true, stateKnown: true });
  const proof = "(SELECT rowid FROM steps WHERE done_by IS NOT NULL LIMIT 1)";
  withoutTriggers(db.$client, `UPDATE steps SET reading = '0.5' WHERE rowid = ${proof}`);
  expect(verifyLedger(db.$client, headFile)).toMatchObject({
    ok: false,
    faults: [expect.stringMatching(/^steps .* was changed: it is not as the ledger wrote it last$/)],
  });
  const copy = new Database(join(folder, "heavy-lantern.db.before-migration-10"), { readonly: true });
  expect(rows(copy, "SELECT count(*) AS n FROM ledger")).toEqual(rows(was, "SELECT count(*) AS n FROM ledger"));
  copy.close();
});

describe("a site's server of before is upgraded by its next start", () => {
  const HOME = join(__dirname, "../..");
  const program = join(HOME, ".lantern", "admin-under-test.mjs");
  beforeAll(() => void bundled("src/cli/admin.ts", "admin-under-test.mjs"));
  function site() {
    const data = mkdtempSync(join(folder, "site-"));
    writeFileSync(join(data, "heavy-lantern.db"), gunzipSync(readFileSync(STORED)));
    writeFileSync(join(data, "ledger-head.json"), readFileSync(join(__dirname, "../fixtures/ledger-head-0008.json")));
    const lantern = (...args: string[]) => {
      const env = { ...process.env, LANTERN_DATA: data, LANTERN_HOME: HOME };
      const done = spawnSync("node", [program, ...args], { cwd: HOME, env, encoding: "utf8" });
      return { status: done.status, said: done.stdout + done.stderr };
    };
    return { data, lantern };
  }

  test("as it is found it is verified, upgraded, and from then on its state is part of the record", () => {
    const { data, lantern } = site();
    const before = lantern("verify");
    expect(before).toMatchObject({
      status: 0,
      said: expect.stringMatching(/Of the state nothing is known yet/) as string,
    });
    expect(lantern("prepare")).toEqual({ status: 0, said: "" });
    expect(lantern("verify")).toMatchObject({
      status: 0,
      said: expect.stringMatching(/The state is as the ledger/) as string,
    });
    const rowsOf = () => {
      const client = new Database(join(data, "heavy-lantern.db"), { readonly: true });
      const types = rows(client, "SELECT type FROM ledger ORDER BY seq DESC LIMIT 2").map(({ type }) => type);
      client.close();
      return types;
    };
    expect(rowsOf()[0]).toBe("state.taken-over");
    // The next start has nothing to take over.
    expect(lantern("prepare")).toEqual({ status: 0, said: "" });
    expect(rowsOf()[1]).not.toBe("state.taken-over");
  });

  test("killed before its head was written, one row behind, it is upgraded like any other; two rows behind it is not", () => {
    for (const behind of [1, 2]) {
      const { data, lantern } = site();
      const client = new Database(join(data, "heavy-lantern.db"), { readonly: true });
      const head = rows(client, `SELECT seq, hash FROM ledger ORDER BY seq DESC LIMIT 1 OFFSET ${behind}`)[0];
      client.close();
      writeFileSync(join(data, "ledger-head.json"), JSON.stringify(head));
      expect(lantern("prepare").status).toBe(behind === 1 ? 0 : 1);
      expect(lantern("verify").status).toBe(behind === 1 ? 0 : 1);
    }
  });

  test("where its record is not whole nothing is upgraded, and it says what differs", () => {
    const { data, lantern } = site();
    const touched = new Database(join(data, "heavy-lantern.db"));
    withoutTriggers(touched, "UPDATE ledger SET by_person = 'x' WHERE seq = 5");
    touched.close();
    expect(lantern("prepare")).toMatchObject({
      status: 1,
      said: expect.stringMatching(/not whole.*\n.*row 5/) as string,
    });
    const client = new Database(join(data, "heavy-lantern.db"), { readonly: true });
    expect(rows(client, "SELECT count(*) AS n FROM __drizzle_migrations")).toEqual([{ n: 9 }]);
    client.close();
  });
});

test("two locks that turn out to have one number are both seen, and no third can be hung", () => {
  const path = join(folder, "clash.db");
  writeFileSync(path, gunzipSync(readFileSync(STORED)));
  const old = new Database(path);
  const [one, other] = old
    .prepare("SELECT id, lock FROM holds WHERE lifted_at_ms IS NULL ORDER BY rowid LIMIT 2")
    .all() as { id: string; lock: string }[];
  old.prepare("UPDATE holds SET lock = ? WHERE id = ?").run(` ${one!.lock.toLowerCase()} `, other!.id);
  old.close();
  const opened = openDatabase(path);
  const locks = opened.$client
    .prepare("SELECT lock FROM holds WHERE id IN (?, ?) ORDER BY rowid")
    .pluck()
    .all(one!.id, other!.id);
  expect(locks).toEqual([one!.lock, `${one!.lock} (TWICE ${other!.id.slice(0, 4)})`]);
  opened.$client.close();
});
