import type Database from "better-sqlite3";

/** Enough for every question that the code asks; lists of different lengths are different texts. */
const KEPT = 1000;

const writes = new WeakMap<Database.Database, { count: number }>();

/** How many statements that write have run on a connection. While it stays, what was read stays true. */
export function writesOn(client: Database.Database): number {
  return writes.get(client)?.count ?? NaN;
}

/**
 * Prepares each statement once for a connection: asked again, the same text is not parsed anew. Counts those that write.
 *
 * A statement remembers whether its rows come as arrays or as objects. Drizzle says so just before it runs one, so one that
 * is handed out again begins as a new one would.
 */
export function keepStatements(client: Database.Database): void {
  const prepare = client.prepare.bind(client);
  const kept = new Map<string, Database.Statement>();
  const counted = { count: 0 };
  writes.set(client, counted);
  client.prepare = ((text: string) => {
    const known = kept.get(text);
    // One in the middle of its rows is not touched.
    if (known && !known.busy) {
      kept.delete(text);
      kept.set(text, known);
      return known.reader ? known.raw(false) : known;
    }
    const made = prepare(text);
    if (!made.readonly) countRuns(made, counted);
    kept.set(text, made);
    if (kept.size > KEPT) kept.delete(kept.keys().next().value!);
    return made;
  }) as typeof client.prepare;
}

/** Whichever way it is run: one that gives rows back may write too. */
function countRuns(statement: Database.Statement, counted: { count: number }): void {
  for (const way of ["run", "get", "all"] as const) {
    const run = statement[way].bind(statement) as (...values: unknown[]) => never;
    statement[way] = (...values: unknown[]) => {
      counted.count++;
      return run(...values);
    };
  }
}
