import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { verifySync } from "@node-rs/argon2";
import { eq } from "drizzle-orm";
import { openDatabase, type Db } from "../db/database";
import { people } from "../db/schema";
import { closeKey, keyFile, openKey } from "./secretKey";
import { hashPassword, hashPin, secretFits } from "./secrets";

let folder: string;
let db: Db;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "lantern-key-"));
  process.env.LANTERN_KEY_FILE = join(folder, "elsewhere.key");
  db = openDatabase(join(folder, "site.db"));
});
afterEach(() => {
  closeKey();
  delete process.env.LANTERN_KEY_FILE;
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

async function enter(signIn: string): Promise<void> {
  const [passwordHash, pinHash] = await Promise.all([hashPassword("long enough"), hashPin("4711")]);
  db.insert(people)
    .values({ id: signIn, name: signIn, signIn, roles: [], competences: [], passwordHash, pinHash })
    .run();
}
const pinOf = (signIn: string) => db.select().from(people).where(eq(people.signIn, signIn)).get()!.pinHash;

test("a copy of the database alone does not tell a PIN, however many are tried on it", async () => {
  expect(openKey(db)).toBeNull();
  expect(statSync(keyFile()).mode & 0o077).toBe(0);
  await enter("nell");
  expect(await secretFits(pinOf("nell"), "4711")).toBe(true);
  expect(await secretFits(pinOf("nell"), "4712")).toBe(false);
  // Whoever has the hash and knows how it is made, but not the key: the right PIN does not fit.
  const bare = pinOf("nell").replace(/^key\.\w+:/, "");
  expect(verifySync(bare, "4711")).toBe(false);
  expect(pinOf("nell")).not.toContain(readFileSync(keyFile(), "utf8").trim());
});

test("what was hashed before there was a key goes on, and is made with it when it is next changed", async () => {
  await enter("ann");
  expect(openKey(db)).toBeNull();
  expect(await secretFits(pinOf("ann"), "4711")).toBe(true);
  expect(await hashPin("4711")).toMatch(/^key\.[0-9a-f]{8}:\$argon2id\$/);
});

test("without its key, or with another site's, a site does not start and says what to do", async () => {
  openKey(db);
  await enter("nell");
  closeKey();
  rmSync(keyFile());
  expect(openKey(db)).toMatch(/is not at .+ Put it back/);
  expect(await secretFits(pinOf("nell"), "4711")).toBe(false);
  writeFileSync(keyFile(), "f".repeat(64));
  expect(openKey(db)).toMatch(/not the one/);
  writeFileSync(keyFile(), "no key");
  expect(openKey(db)).toMatch(/is not a key/);
});

test("a key that is lost for good is made anew for those whose secrets are, and opens nothing for the others", async () => {
  openKey(db);
  await enter("nell");
  await enter("ann");
  closeKey();
  rmSync(keyFile());
  expect(openKey(db, true)).toBeNull();
  db.update(people)
    .set({ pinHash: await hashPin("90125") })
    .where(eq(people.id, "ann"))
    .run();
  closeKey();
  expect(openKey(db)).toBeNull();
  expect(await secretFits(pinOf("ann"), "90125")).toBe(true);
  expect(await secretFits(pinOf("nell"), "4711")).toBe(false);
});
