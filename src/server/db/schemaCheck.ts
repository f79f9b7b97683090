import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { drizzle } from "drizzle-orm/better-sqlite3";
import { z } from "zod";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { migrationsFolder } from "./migrations";

/** Every table, index and trigger of a database, by kind and name, with the text that makes it. */
export function schemaNow(client: Database.Database): Map<string, string> {
  const rows = client
    .prepare(
      "SELECT type, name, sql FROM main.sqlite_master WHERE sql IS NOT NULL AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\'",
    )
    .all() as { type: string; name: string; sql: string }[];
  return new Map(rows.map(({ type, name, sql }) => [`${type} ${name}`, sql]));
}

const madeBy = new Map<number, ReadonlyMap<string, string>>();

/** The list of migrations as their tool keeps it; what else it holds goes along. */
const journalSchema = z.looseObject({ entries: z.array(z.unknown()) });

/** What the migrations make that this database has had, on an empty one in memory. Cost: all of them, once. */
export function schemaOfMigrations(client: Database.Database): ReadonlyMap<string, string> {
  const applied = client.prepare("SELECT count(*) FROM __drizzle_migrations").pluck().get() as number;
  const known = madeBy.get(applied);
  if (known !== undefined) return known;
  const folder = mkdtempSync(join(tmpdir(), "lantern-schema-"));
  const empty = new Database(":memory:");
  try {
    cpSync(migrationsFolder(), folder, { recursive: true });
    const journalFile = join(folder, "meta", "_journal.json");
    const journal = journalSchema.parse(JSON.parse(readFileSync(journalFile, "utf8")));
    writeFileSync(journalFile, JSON.stringify({ ...journal, entries: journal.entries.slice(0, applied) }));
    migrate(drizzle(empty), { migrationsFolder: folder });
    const made = schemaNow(empty);
    madeBy.set(applied, made);
    return made;
  } finally {
    empty.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
