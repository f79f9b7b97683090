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

/**
 * The column is none of these values. Written as what lies before, between and after them, so that an index on the column
 * finds the few that are left; NOT IN looks at every row there ever was. Null is neither.
 */
export function isNoneOf(column: SQLiteColumn, values: readonly [string, ...string[]]): SQL {
  const sorted = [...new Set(values)].sort((a, b) => Buffer.compare(Buffer.from(a), Buffer.from(b)));
  const gaps = sorted.slice(1).map((value, i) => sql`(${column} > ${sorted[i]} AND ${column} < ${value})`);
  const ranges = [sql`${column} < ${sorted[0]}`, ...gaps, sql`${column} > ${sorted.at(-1)}`];
  return sql`(${sql.join(ranges, sql` OR `)})`;
}

export function listed(values: readonly string[]): string {
  return JSON.stringify(values);
}
