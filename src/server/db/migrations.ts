import { readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import type Database from "better-sqlite3";

export function migrationsFolder(): string {
  return resolve(/*turbopackIgnore: true*/ process.env.LANTERN_HOME ?? ".", "drizzle");
}

/** How many migrations a database has had, and how many there are; null where it never had one. */
export function migrationsOf(client: Database.Database): Readonly<{ applied: number; all: number }> | null {
  const has = client.prepare("SELECT count(*) FROM sqlite_master WHERE name = '__drizzle_migrations'").pluck().get();
  if (has === 0) return null;
  const applied = client.prepare("SELECT count(*) FROM __drizzle_migrations").pluck().get() as number;
  const journal = JSON.parse(readFileSync(join(migrationsFolder(), "meta", "_journal.json"), "utf8")) as {
    entries: unknown[];
  };
  return { applied, all: journal.entries.length };
}
