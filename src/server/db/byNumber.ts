import { sql, type AnyColumn, type SQL } from "drizzle-orm";

/**
 * The count in a number like J-0012, for an order: written with four figures, J-10000 comes after J-9999, which as text it does not.
 * Cost: no index helps.
 */
export const byNumber = (column: AnyColumn): SQL<string> =>
  sql<string>`printf('%012d', substr(${column}, instr(${column}, '-') + 1))`;
