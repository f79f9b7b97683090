import { existsSync, mkdirSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import Database from "better-sqlite3";
import { drizzle, type BetterSQLite3Database } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { isReader } from "../runtime/reader";
import { migrationsFolder, migrationsOf } from "./migrations";
import * as schema from "./schema";
import { watchState } from "./stateRows";
import { keepStatements } from "./statements";

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };
/** The database, or a transaction on it. */
export type Tx = Pick<Db, "select" | "insert" | "update" | "delete" | "run" | "all">;

/** The site's database file; `LANTERN_DATA` names the folder. */
export function databasePath(): string {
  return join(dataFolder(), "heavy-lantern.db");
}

export function dataFolder(): string {
  return resolve(/*turbopackIgnore: true*/ process.env.LANTERN_DATA ?? "./data");
}

/**
 * Opens a site's database and brings its tables up to date. Every commit is on disk before it is answered:
 * synchronous=FULL, write-ahead log. `asked` is told of every statement that runs.
 */
export function openDatabase(path: string, asked?: (sql: string) => void): Db {
  // Nobody else of this machine reads it.
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
  const client = new Database(path, asked === undefined ? {} : { verbose: (sql) => asked(String(sql)) });
  client.pragma("journal_mode = WAL");
  client.pragma("synchronous = FULL");
  client.pragma("foreign_keys = ON");
  const db = withWhatWeAsk(client);
  backUpBeforeMigrating(client, path);
  migrate(db, { migrationsFolder: migrationsFolder() });
  watchState(client);
  return db;
}

function withWhatWeAsk(client: Database.Database): Db {
  client.pragma("busy_timeout = 5000");
  // Plans are large and every look passes over them: 64 MB of pages stay at hand.
  client.pragma("cache_size = -64000");
  // For searching: SQLite's own knows only the letters of English.
  client.function("folded", { deterministic: true }, (text) => String(text).toLowerCase());
  keepStatements(client);
  return drizzle(client, { schema });
}

/** Opens a site's database to look at it, as it is: nothing is migrated and nothing can be written. */
export function openToRead(path: string): Database.Database {
  return new Database(path, { readonly: true, fileMustExist: true });
}

/** A database that is about to get new tables is copied first, beside itself, named after the last migration it had. */
function backUpBeforeMigrating(client: Database.Database, path: string): void {
  const had = migrationsOf(client);
  if (had === null || had.applied >= had.all) return;
  const copy = `${path}.before-migration-${had.applied + 1}`;
  if (!existsSync(copy)) client.prepare("VACUUM INTO ?").run(copy);
}

const holder = globalThis as { heavyLanternDatabase?: Db };

/** The one connection of this process, opened at first use. */
export function database(): Db {
  // A reader finds it as the process that writes has opened it.
  holder.heavyLanternDatabase ??= isReader() ? withWhatWeAsk(openToRead(databasePath())) : openDatabase(databasePath());
  return holder.heavyLanternDatabase;
}

export function closeDatabase(): void {
  holder.heavyLanternDatabase?.$client.close();
  delete holder.heavyLanternDatabase;
}
