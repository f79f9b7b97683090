import { sql, type SQL } from "drizzle-orm";
import type { SQLiteColumn } from "drizzle-orm/sqlite-core";

/**
 * The column is one of these values. They travel as one parameter, so that a list of any length is one and the same
 * statement, prepared once; an empty list matches nothing. Indexes on the column are used.
 */
export function isAmong(column: SQLiteColumn, values: readonly string[]): SQL {
  return sql`${column} IN (SELECT value FROM json_each(${JSON.stringify(values)}))`;
}
