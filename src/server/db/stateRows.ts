import { createHash } from "node:crypto";
import type Database from "better-sqlite3";
import { sql } from "drizzle-orm";
import type { BetterSQLite3Database } from "drizzle-orm/better-sqlite3";
import { z } from "zod";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import { parsed } from "./jsonColumn";

/**
 * What the ledger answers for: every row of these tables is as the last ledger row that wrote it says. Left out are tables
 * that hold no fact of the plant, or that are known by a hash of their own, and columns that change without an act.
 */
const NO_STATE: ReadonlySet<string> = new Set([
  "ledger",
  "sessions",
  "failed_attempts",
  "known_devices",
  // By their own hashes.
  "photos",
  "plant_texts",
  // Entered before a register names them, many at once; their ledger row has a hash over all of them.
  "items",
]);
const NO_STATE_COLUMNS: Readonly<Record<string, readonly string[]>> = {
  people: ["units"],
  // What it heard is kept with the next ledger row.
  detectors: ["last_at_ms", "last_reading_json"],
};

/** The database, or a transaction on it. */
type Tx = Pick<BetterSQLite3Database, "all" | "run">;

/** The hash of each row, by table and key; null for a row that is gone. */
export type RowHashes = Readonly<Record<string, Readonly<Record<string, string | null>>>>;

/** What an instrument had said by then. */
export type Heard = Readonly<{ id: string; at_ms: number | null; reading: string | null }>;

const tableSchema = z.object({ name: z.string(), keys: z.array(z.string()), columns: z.array(z.string()) });
type Table = Readonly<z.output<typeof tableSchema>>;
/** What names a row of a table, in the order of its keys. */
const keySchema = z.array(z.union([z.string(), z.number(), z.null()]));

/** The tables of state, with what names a row of each: its primary key, else its first unique index. */
export function stateTables(client: Database.Database): Table[] {
  const names = client
    .prepare(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\' ORDER BY name",
    )
    .pluck()
    .all() as string[];
  return names
    .filter((name) => !NO_STATE.has(name) && !name.startsWith("__"))
    .map((name) => {
      const info = client.prepare(`SELECT name, pk FROM pragma_table_info('${name}') ORDER BY cid`).all() as {
        name: string;
        pk: number;
      }[];
      const primary = info.filter(({ pk }) => pk > 0).map((column) => column.name);
      const left = NO_STATE_COLUMNS[name] ?? [];
      return {
        name,
        keys: primary.length > 0 ? primary : uniqueKey(client, name),
        columns: info.map((column) => column.name).filter((column) => !left.includes(column)),
      };
    });
}

function uniqueKey(client: Database.Database, table: string): string[] {
  const index = client
    .prepare(`SELECT name FROM pragma_index_list('${table}') WHERE "unique" = 1 AND partial = 0 ORDER BY name LIMIT 1`)
    .pluck()
    .get() as string | undefined;
  // No table of the program's own is without.
  if (index === undefined) return ["rowid"];
  return client.prepare(`SELECT name FROM pragma_index_info('${index}') ORDER BY seqno`).pluck().all() as string[];
}

const keyOf = (table: Table, row: string) => `json_array(${table.keys.map((key) => `${row}"${key}"`).join(", ")})`;

/** Makes a connection remember which rows of state it wrote, and which instruments it heard, until the ledger takes it up. */
export function watchState(client: Database.Database): void {
  client.pragma("temp_store = MEMORY");
  // What is replaced is deleted first, and that counts too.
  client.pragma("recursive_triggers = ON");
  client.exec(`
    CREATE TEMP TABLE IF NOT EXISTS state_tables (name TEXT PRIMARY KEY, said TEXT NOT NULL);
    DELETE FROM state_tables;
    CREATE TEMP TABLE IF NOT EXISTS written (tbl TEXT NOT NULL, key TEXT NOT NULL);
    CREATE TEMP TABLE IF NOT EXISTS heard (id TEXT NOT NULL);
    CREATE TEMP TRIGGER IF NOT EXISTS heard_detectors AFTER UPDATE OF last_at_ms, last_reading_json ON main.detectors
      BEGIN INSERT INTO heard VALUES (NEW.id); END;`);
  const say = client.prepare("INSERT INTO state_tables VALUES (?, ?)");
  for (const table of stateTables(client)) {
    const { name, columns } = table;
    // Pages and routes are bundled apart: what is known of the tables goes with the connection.
    say.run(name, JSON.stringify(table));
    const note = (row: "NEW" | "OLD") => `INSERT INTO written VALUES ('${name}', ${keyOf(table, `${row}.`)});`;
    const of = columns.map((column) => `"${column}"`).join(", ");
    client.exec(`
      CREATE TEMP TRIGGER IF NOT EXISTS "written_i_${name}" AFTER INSERT ON main."${name}" BEGIN ${note("NEW")} END;
      CREATE TEMP TRIGGER IF NOT EXISTS "written_u_${name}" AFTER UPDATE OF ${of} ON main."${name}"
        BEGIN ${note("OLD")} ${note("NEW")} END;
      CREATE TEMP TRIGGER IF NOT EXISTS "written_d_${name}" AFTER DELETE ON main."${name}" BEGIN ${note("OLD")} END;`);
  }
}

/** Short enough for a ledger row, long enough that nobody makes another row for it. */
function hashOf(table: Table, row: Readonly<Record<string, unknown>>): string {
  const known = table.columns.flatMap((column) => {
    const value = row[column];
    return value === null || value === undefined ? [] : [[column, value] as const];
  });
  return createHash("sha256")
    .update(canonicalJson(Object.fromEntries(known)))
    .digest("base64url")
    .slice(0, 22);
}

/** The tables that this connection watches. */
export function watchedTables(tx: Tx): Table[] {
  return tx
    .all<{ said: string }>(sql`SELECT said FROM temp.state_tables ORDER BY name`)
    .map(({ said }) => parsed("temp.state_tables", tableSchema, said));
}

/** The rows of state that were written since it was last asked, each with what it hashes to now. Cost: linear in them. */
export function takeWritten(tx: Tx): RowHashes | null {
  const written = tx.all<{ tbl: string; key: string; said: string }>(
    sql`SELECT DISTINCT tbl, key, said FROM temp.written JOIN temp.state_tables ON name = tbl ORDER BY tbl, key`,
  );
  if (written.length === 0) return null;
  tx.run(sql`DELETE FROM temp.written`);
  const found: Record<string, Record<string, string | null>> = {};
  for (const { tbl, key, said } of written) {
    const table = parsed("temp.state_tables", tableSchema, said);
    const where = sql.join(
      parsed("temp.written", keySchema, key).map((value, i) => sql`${sql.raw(`"${table.keys[i]}"`)} IS ${value}`),
      sql` AND `,
    );
    const [row] = tx.all<Record<string, unknown>>(sql`SELECT * FROM ${sql.raw(`"${tbl}"`)} WHERE ${where}`);
    (found[tbl] ??= {})[key] = row === undefined ? null : hashOf(table, row);
  }
  return found;
}

/** What instruments said since it was last asked. */
export function takeHeard(tx: Tx): readonly Heard[] | null {
  const heard = tx.all<Heard>(
    sql`SELECT id, last_at_ms AS at_ms, last_reading_json AS reading FROM detectors
        WHERE id IN (SELECT id FROM temp.heard) ORDER BY id`,
  );
  if (heard.length === 0) return null;
  tx.run(sql`DELETE FROM temp.heard`);
  return heard.map(({ id, at_ms, reading }) => ({ id, at_ms, reading }));
}

/** Every row of state as it is now, one after the other. */
export function* stateNow(
  client: Database.Database,
): Generator<Readonly<{ table: string; key: string; hash: string }>> {
  for (const table of stateTables(client)) {
    const rows = client.prepare(`SELECT *, ${keyOf(table, "")} AS "key of row" FROM "${table.name}"`).iterate();
    for (const row of rows as IterableIterator<Record<string, unknown>>) {
      yield { table: table.name, key: String(row["key of row"]), hash: hashOf(table, row) };
    }
  }
}
