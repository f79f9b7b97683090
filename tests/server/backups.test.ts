import { existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { recover } from "../../src/cli/recover";
import { addPerson } from "../../src/server/acts/addPerson";
import { closeDatabase, database, databasePath, openToRead } from "../../src/server/db/database";
import { headFilePath } from "../../src/server/ledger/headFile";
import { verifyLedger } from "../../src/server/ledger/verify";
import { backUp, backupAge_h, backupsIn } from "../../src/server/runtime/backups";

const HOUR_MS = 3_600_000;
const NOW_MS = Date.UTC(2026, 10, 20, 9);
const was = process.env.LANTERN_DATA;
let folder: string;
let elsewhere: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "lantern-backups-"));
  elsewhere = mkdtempSync(join(tmpdir(), "lantern-standby-"));
  process.env.LANTERN_DATA = folder;
});
afterEach(() => {
  closeDatabase();
  for (const one of [folder, elsewhere]) rmSync(one, { recursive: true, force: true });
  process.env.LANTERN_DATA = was;
});

const person = (signIn: string) =>
  addPerson(database(), { name: signIn, signIn, roles: ["worker"], competences: [], password: "x", pin: "1" });

test("a standby goes on from the newest backup: whole, to the last row that was in it", async () => {
  await person("ann");
  await backUp(database(), elsewhere, NOW_MS);
  await person("bea");
  const newest = await backUp(database(), elsewhere, NOW_MS + HOUR_MS);
  await person("cid");
  // The machine is lost, its folder with it; another one has the backups only.
  closeDatabase();
  process.env.LANTERN_DATA = join(elsewhere, "standby");
  database();
  closeDatabase();
  const done = recover(newest, databasePath(), headFilePath());
  expect(done).toMatchObject({ ok: true });
  const names = () => database().$client.prepare("SELECT sign_in FROM people ORDER BY sign_in").pluck().all();
  expect(names()).toEqual(["ann", "bea"]);
  await person("dot");
  closeDatabase();
  const client = openToRead(databasePath());
  expect(verifyLedger(client, headFilePath())).toMatchObject({ ok: true });
  client.close();
});

test("a backup that is made while acts come in is whole", async () => {
  for (let at = 0; at < 40; at++) await person(`before-${at}`);
  const making = backUp(database(), elsewhere, NOW_MS);
  for (let at = 0; at < 20; at++) await person(`during-${at}`);
  const client = openToRead(await making);
  const last = client.prepare("SELECT seq, hash FROM ledger ORDER BY seq DESC LIMIT 1").get();
  writeFileSync(join(elsewhere, "head.json"), JSON.stringify(last));
  expect(verifyLedger(client, join(elsewhere, "head.json"))).toMatchObject({ ok: true, stateKnown: true });
  client.close();
});

test("what is not kept is thrown away, what was not made here is left alone, and its age is known", async () => {
  writeFileSync(join(elsewhere, "notes.txt"), "ours");
  writeFileSync(join(elsewhere, "heavy-lantern-copy.db"), "somebody's copy");
  database();
  for (let hour = 0; hour < 60; hour++) await backUp(database(), elsewhere, NOW_MS + hour * HOUR_MS);
  // 48 of the last two days, and the first of each of three days before or among them.
  expect(backupsIn(elsewhere).length).toBeGreaterThanOrEqual(48);
  expect(backupsIn(elsewhere).length).toBeLessThanOrEqual(51);
  expect(readdirSync(elsewhere)).toEqual(expect.arrayContaining(["notes.txt", "heavy-lantern-copy.db"]));
  expect(readdirSync(elsewhere).filter((name) => name.endsWith(".part"))).toEqual([]);
  expect(backupAge_h(NOW_MS + 61 * HOUR_MS, elsewhere)).toBe(2);
  expect(backupAge_h(NOW_MS, undefined)).toBeNull();
  expect(backupAge_h(NOW_MS, join(elsewhere, "not-there"))).toBe(Infinity);
});

test("a half-made backup of before has no name, and is written over", async () => {
  writeFileSync(join(elsewhere, `heavy-lantern-${NOW_MS}.db.part`), "half");
  await person("ann");
  const path = await backUp(database(), elsewhere, NOW_MS);
  expect(existsSync(`${path}.part`)).toBe(false);
  const client = openToRead(path);
  expect(client.prepare("SELECT count(*) FROM people").pluck().get()).toBe(1);
  client.close();
});
