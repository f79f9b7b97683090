import { sql, type Placeholder, type SQL } from "drizzle-orm";
import type { SQLiteColumn } from "drizzle-orm/sqlite-core";

/**
 * The column is one of these values. They travel as one parameter, so that a list of any length is one and the same
 * statement, prepared once; an empty list matches nothing. Indexes on the column are used. A placeholder stands for what
 * `listed` makes of the values.
 */
export function isAmong(column: SQLiteColumn, values: readonly string[] | Placeholder): SQL {
  return sql`${column} IN (SELECT value FROM json_each(${Array.isArray(values) ? listed(values as readonly string[]) : values}))`;
}

export function listed(values: readonly string[]): string {
  return JSON.stringify(values);
}
