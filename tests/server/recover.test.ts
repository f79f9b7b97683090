import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { recover } from "../../src/cli/recover";
import { addPerson } from "../../src/server/acts/addPerson";
import { closeDatabase, database, databasePath, openToRead } from "../../src/server/db/database";
import { headFilePath } from "../../src/server/ledger/headFile";
import { verifyLedger } from "../../src/server/ledger/verify";
import { holdFolder, letFolderGo } from "../../src/server/runtime/folderLock";
import { withoutTriggers } from "../support/tampering";

/** A drill: the database is lost or was touched, and the site goes on from a backup that is shown to be whole. */

const was = process.env.LANTERN_DATA;
let folder: string;
let backup: string;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "lantern-recover-"));
  process.env.LANTERN_DATA = folder;
  await person("ann");
  await person("bea");
  backup = join(folder, "backup.db");
  await database().$client.backup(backup);
  await person("cid");
});
afterEach(() => {
  closeDatabase();
  letFolderGo();
  rmSync(folder, { recursive: true, force: true });
  process.env.LANTERN_DATA = was;
});

const person = (signIn: string) =>
  addPerson(database(), { name: signIn, signIn, roles: ["worker"], competences: [], password: "x", pin: "1" });
const names = () => database().$client.prepare("SELECT sign_in FROM people ORDER BY sign_in").pluck().all();
const found = () => {
  const client = openToRead(databasePath());
  const said = verifyLedger(client, headFilePath());
  client.close();
  return said;
};

test("goes on from the backup, says what is not in it, keeps what was there, and is whole", async () => {
  closeDatabase();
  // A log of the old database beside it would undo the backup.
  writeFileSync(`${databasePath()}-wal`, "left over");
  const done = recover(backup, databasePath());
  expect(done).toMatchObject({
    ok: true,
    said: [expect.stringMatching(/ends at row 2; 1 row that came after it is/), expect.anything(), expect.anything()],
  });
  expect(found()).toMatchObject({ ok: true, rows: 3, stateKnown: true });
  expect(names()).toEqual(["ann", "bea"]);
  await person("dot");
  expect(found()).toMatchObject({ ok: true, rows: 4 });
  expect(readdirSync(folder).filter((name) => name.includes(".replaced-")).length).toBeGreaterThanOrEqual(3);
});

test("without a head file it says that nobody knows what is lost; a backup that was touched is refused, and nothing changes", () => {
  closeDatabase();
  const before = readFileSync(databasePath());
  const touched = new Database(backup);
  withoutTriggers(touched, "UPDATE people SET roles_json = '[\"coordinator\"]' WHERE sign_in = 'ann'");
  touched.close();
  expect(recover(backup, databasePath())).toMatchObject({
    ok: false,
    faults: [expect.stringMatching(/^people .* was changed/)],
  });
  expect(readFileSync(databasePath()).equals(before)).toBe(true);
  const again = new Database(backup);
  withoutTriggers(again, "UPDATE people SET roles_json = '[\"worker\"]' WHERE sign_in = 'ann'");
  again.close();
  rmSync(headFilePath());
  const done = recover(backup, databasePath());
  expect(done.ok && done.said[0]).toMatch(/is not known: there was no head file/);
});

test("one folder has one server, and is free again when that one ends, however it ends", () => {
  closeDatabase();
  const program = (then: string) => `
    const Database = require("better-sqlite3");
    const client = new Database(process.argv[1], { timeout: 0 });
    try { client.exec("BEGIN EXCLUSIVE"); console.log("held"); } catch (error) { console.log(error.code); }
    ${then}`;
  const other = (then = "") =>
    spawnSync("node", ["-e", program(then), join(folder, "in-use.lock")], { encoding: "utf8" }).stdout.trim();
  expect(holdFolder(folder)).toBe(true);
  expect(holdFolder(folder)).toBe(true);
  expect(other()).toBe("SQLITE_BUSY");
  letFolderGo();
  expect(other('process.kill(process.pid, "SIGKILL")')).toBe("held");
  expect(holdFolder(folder)).toBe(true);
  expect(existsSync(join(folder, "in-use.lock"))).toBe(true);
});
