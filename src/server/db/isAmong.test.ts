import fc from "fast-check";
import BetterSqlite3 from "better-sqlite3";
import { notInArray } from "drizzle-orm";
import { drizzle } from "drizzle-orm/better-sqlite3";
import { index, sqliteTable, text } from "drizzle-orm/sqlite-core";
import { isNoneOf } from "./isAmong";

const table = sqliteTable("works", { state: text("state").notNull() }, (of) => [index("works_state").on(of.state)]);

const client = new BetterSqlite3(":memory:");
client.exec("CREATE TABLE works (state TEXT NOT NULL); CREATE INDEX works_state ON works (state)");
const db = drizzle(client);
afterAll(() => client.close());

const word = fc.oneof(
  fc.constantFrom("closed", "cancelled", "Closed", "", "live"),
  fc.string({ unit: "binary" }).filter((one) => !one.includes("\0")),
);

test("none of these values: the same rows as NOT IN, whatever the words", () => {
  fc.assert(
    fc.property(fc.array(word, { maxLength: 12 }), fc.array(word, { minLength: 1, maxLength: 5 }), (rows, without) => {
      db.delete(table).run();
      if (rows.length > 0)
        db.insert(table)
          .values(rows.map((state) => ({ state })))
          .run();
      const found = (where: ReturnType<typeof isNoneOf>) =>
        db
          .select()
          .from(table)
          .where(where)
          .all()
          .map(({ state }) => state)
          .sort();
      const values = without as [string, ...string[]];
      expect(found(isNoneOf(table.state, values))).toEqual(found(notInArray(table.state, values)));
    }),
  );
});

test("it asks the index, and looks at no row that is left out", () => {
  const { sql, params } = db
    .select()
    .from(table)
    .where(isNoneOf(table.state, ["closed", "cancelled"]))
    .toSQL();
  const steps = client.prepare(`EXPLAIN QUERY PLAN ${sql}`).all(...params) as { detail: string }[];
  const details = steps.map(({ detail }) => detail);
  expect(details.filter((detail) => detail.startsWith("SCAN"))).toEqual([]);
  expect(details.filter((detail) => detail.startsWith("SEARCH"))).toHaveLength(3);
});
