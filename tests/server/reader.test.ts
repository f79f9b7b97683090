import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { eq } from "drizzle-orm";
import { closeDatabase, database, openDatabase, type Db } from "../../src/server/db/database";
import { people, plantRevisions, sessions } from "../../src/server/db/schema";
import { revisionToday } from "../../src/server/isolation/verdictStore";
import { openSession, personOfSession } from "../../src/server/people/signIn";
import { toldSoFar } from "../../src/server/runtime/events";
import { isOnlyLookedAt } from "../../tools/serve/readers.mjs";

/** What a reader may do: look, at what is so now, and nothing else. */

const told = globalThis as { heavyLanternToldThere?: string };
let folder: string;
let writer: Db;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "lantern-reader-"));
  process.env.LANTERN_DATA = folder;
  writer = openDatabase(join(folder, "heavy-lantern.db"));
  writer
    .insert(people)
    .values({
      id: "una",
      name: "Una Kestle",
      signIn: "una",
      roles: ["coordinator"],
      competences: [],
      passwordHash: "",
      pinHash: "",
    })
    .run();
  process.env.LANTERN_READER = "1";
});

afterEach(() => {
  closeDatabase();
  writer.$client.close();
  delete process.env.LANTERN_DATA;
  delete process.env.LANTERN_READER;
  delete told.heavyLanternToldThere;
  rmSync(folder, { recursive: true, force: true });
});

test("a reader cannot write, whatever a page tries", () => {
  const db = database();
  for (const write of [
    () => db.delete(people).run(),
    () => db.update(people).set({ active: false }).run(),
    () => db.$client.exec("DROP TABLE people"),
    () => db.$client.pragma("user_version = 9"),
    () => db.transaction((tx) => tx.delete(sessions).run()),
  ]) {
    expect(write).toThrow(/readonly/);
  }
  expect(db.select({ id: people.id }).from(people).all()).toEqual([{ id: "una" }]);
});

test("it sees what another process wrote, also what it keeps at hand", () => {
  const db = database();
  expect(revisionToday(db)).toBe(0);
  writer
    .insert(plantRevisions)
    .values({
      revision: 1,
      importedAt: 1,
      importedBy: "una",
      fileNames: "",
      itemCount: 0,
      linkCount: 0,
      contentHash: "",
    })
    .run();
  expect(revisionToday(db)).toBe(1);
  writer.update(people).set({ name: "Una Kestle-Brand" }).where(eq(people.id, "una")).run();
  expect(db.select({ name: people.name }).from(people).get()).toEqual({ name: "Una Kestle-Brand" });
});

test("that a session was used it says to the process that writes", () => {
  const said: unknown[] = [];
  const send = process.send;
  process.send = (what: unknown) => (said.push(what), true);
  try {
    const begun_ms = 1_000_000_000;
    const { token } = openSession(writer, "una", begun_ms);
    expect(personOfSession(database(), token, begun_ms + 60_000)?.id).toBe("una");
    expect(said).toEqual([]);
    expect(personOfSession(database(), token, begun_ms + 10 * 60_000)?.id).toBe("una");
    const { tokenHash, seenAt } = writer.select().from(sessions).get()!;
    expect(said).toEqual([{ seen: tokenHash }]);
    expect(seenAt).toBe(begun_ms);
  } finally {
    process.send = send;
  }
});

test("its pages bear the mark of the process that tells, as it was handed over with the request", () => {
  told.heavyLanternToldThere = "17.4";
  expect(toldSoFar()).toBe("17.4");
});

test("only what is looked at goes to it; what acts, streams, uploads or sets a clock does not", () => {
  const looked = [
    ["GET", "/"],
    ["HEAD", "/permits/P-0001"],
    ["GET", "/jobs/J-0001/points?_rsc=1"],
    ["GET", "/permits/P-0001/paper"],
    ["GET", "/lists/jobs.csv"],
    ["GET", "/api/board/ways?id=1"],
    ["GET", "/_next/static/chunks/a.js"],
  ] as const;
  const done = [
    ["POST", "/"],
    ["POST", "/sign-in"],
    ["PUT", "/"],
    ["GET", "/api/events"],
    ["GET", "/api/alarms"],
    ["GET", "/api/health"],
    ["POST", "/api/acts"],
    ["POST", "/api/board/ways"],
    ["GET", "/api/photos/1"],
    [undefined, undefined],
  ] as const;
  expect(looked.filter(([method, url]) => !isOnlyLookedAt(method, url))).toEqual([]);
  expect(done.filter(([method, url]) => isOnlyLookedAt(method, url))).toEqual([]);
});
