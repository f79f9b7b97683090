import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { eq } from "drizzle-orm";
import { drizzle } from "drizzle-orm/better-sqlite3";
import { integer, sqliteTable, text } from "drizzle-orm/sqlite-core";
import type { Db, Tx } from "./database";
import { isAmong } from "./isAmong";
import { keepStatements, writesOn } from "./statements";
import { whileUnchanged } from "./whileUnchanged";

const things = sqliteTable("things", { id: text("id").primaryKey(), n: integer("n").notNull() });

function site() {
  const prepared: string[] = [];
  const client = new Database(":memory:");
  client.exec("CREATE TABLE things (id TEXT PRIMARY KEY, n INTEGER NOT NULL)");
  const prepare = client.prepare.bind(client);
  client.prepare = ((sql: string) => {
    if (!sql.startsWith("PRAGMA")) prepared.push(sql);
    return prepare(sql);
  }) as typeof client.prepare;
  keepStatements(client);
  return { client, db: drizzle(client) as unknown as Db, prepared };
}

describe("statements of one connection", () => {
  test("the same question is prepared once, whatever its values and however long its list", () => {
    const { db, prepared } = site();
    for (const id of ["a", "b", "c"]) db.insert(things).values({ id, n: 1 }).run();
    for (const ids of [["a"], ["a", "c"], []]) {
      const found = db.select().from(things).where(isAmong(things.id, ids)).all();
      expect(found.map(({ id }) => id)).toEqual(ids);
    }
    expect(prepared).toHaveLength(2);
  });
  test("rows come as the asker wants them, as arrays or as objects, in any order of asking", () => {
    const { client, db } = site();
    db.insert(things).values({ id: "a", n: 7 }).run();
    const sql = db.select().from(things).where(eq(things.id, "a")).toSQL().sql;
    expect(client.prepare(sql).get("a")).toEqual({ id: "a", n: 7 });
    expect(db.select().from(things).where(eq(things.id, "a")).all()).toEqual([{ id: "a", n: 7 }]);
    expect(client.prepare(sql).get("a")).toEqual({ id: "a", n: 7 });
  });
  test("what was read is good until something is written, and inside a transaction it is read anew", () => {
    const { client, db } = site();
    let asked = 0;
    const sum = whileUnchanged((tx: Tx) => {
      asked++;
      return tx
        .select()
        .from(things)
        .all()
        .reduce((total, { n }) => total + n, 0);
    });
    expect([sum(db), sum(db), asked]).toEqual([0, 0, 1]);
    const before = writesOn(client);
    db.insert(things).values({ id: "a", n: 5 }).returning().get();
    expect(writesOn(client)).toBeGreaterThan(before);
    expect([sum(db), sum(db), asked]).toEqual([5, 5, 2]);
    expect(() =>
      db.transaction((tx) => {
        tx.insert(things).values({ id: "b", n: 5 }).run();
        expect(sum(tx)).toBe(10);
        expect(sum(db)).toBe(10);
        throw new Error("taken back");
      }),
    ).toThrow("taken back");
    expect(sum(db)).toBe(5);
  });
  test("every copy of this code counts alike: pages and routes are bundled apart", () => {
    const { client, db } = site();
    let copy: typeof import("./statements") | undefined;
    jest.isolateModules(() => {
      copy = jest.requireActual<typeof import("./statements")>("./statements");
    });
    expect(copy!.writesOn).not.toBe(writesOn);
    const before = copy!.writesOn(client);
    expect(copy!.writesOn(client)).toBe(before);
    db.insert(things).values({ id: "a", n: 1 }).run();
    expect(copy!.writesOn(client)).toBeGreaterThan(before);
    expect(copy!.writesOn(client)).toBe(writesOn(client));
  });
  test("what another program writes to the same file is counted too", () => {
    const file = join(mkdtempSync(join(tmpdir(), "lantern-")), "site.db");
    const [own, other] = [new Database(file), new Database(file)];
    other.exec("CREATE TABLE things (id TEXT PRIMARY KEY, n INTEGER NOT NULL)");
    keepStatements(own);
    const before = writesOn(own);
    expect(writesOn(own)).toBe(before);
    other.exec("INSERT INTO things VALUES ('a', 1)");
    expect(writesOn(own)).toBeGreaterThan(before);
  });
});
