import { sql } from "drizzle-orm";
import type { Tx } from "./database";
import { watchedTables } from "./stateRows";

/** A column that says when something happened. */
export type HappenedColumn = Readonly<{
  laterThan: (now_ms: number) => readonly number[];
  /** Writes what `right` says in place of each time later than now. */
  set: (now_ms: number, right: (at_ms: number) => number) => void;
}>;

/** When something falls due, though it is named like the others; a log that is never changed, and is read rightly. */
const OTHERS: ReadonlySet<string> = new Set(["isolation_reviews.next_at_ms", "permit_log.at_ms"]);
/** Not of the state, for it changes without an act; yet silence is measured from it. */
const HEARD = { table: "detectors", column: "last_at_ms" };

/** Every column of state that says when something happened: by their names, so that those of tomorrow are among them. */
export function happenedColumns(tx: Tx): HappenedColumn[] {
  const named = watchedTables(tx).flatMap(({ name: table, columns }) =>
    columns
      .filter((column) => /(^|_)at_ms$/.test(column) && !OTHERS.has(`${table}.${column}`))
      .map((column) => ({ table, column })),
  );
  return [...named, HEARD].map((one) => {
    const [table, column] = [sql.identifier(one.table), sql.identifier(one.column)];
    const laterThan = (now_ms: number) =>
      tx
        .all<{ at_ms: number }>(sql`SELECT DISTINCT ${column} at_ms FROM ${table} WHERE ${column} > ${now_ms}`)
        .map(({ at_ms }) => at_ms);
    return {
      laterThan,
      set: (now_ms, right) => {
        for (const at_ms of laterThan(now_ms)) {
          tx.run(sql`UPDATE ${table} SET ${column} = ${right(at_ms)} WHERE ${column} = ${at_ms}`);
        }
      },
    };
  });
}
