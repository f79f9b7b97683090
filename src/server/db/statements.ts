import type Database from "better-sqlite3";

/** Enough for every question that the code asks; lists of different lengths are different texts. */
const KEPT = 1000;

/** The count goes with the connection: pages and routes are bundled apart, each with its own copy of this file. */
const WRITES = Symbol.for("heavy-lantern.writes");
type Count = { count: number; version: unknown; readonly otherWriters: Database.Statement };
type Counted = Database.Database & { [WRITES]?: Count };

/**
 * How many statements that write have run on a connection, those of other programs on the same file counted once a look.
 * While it stays, what was read stays true. Cost: one look at the file's own count of changes.
 */
export function writesOn(client: Database.Database): number {
  const counted = (client as Counted)[WRITES];
  if (counted === undefined) throw new Error("keepStatements was never called for this connection");
  const version = counted.otherWriters.get();
  if (version !== counted.version) counted.count++;
  counted.version = version;
  return counted.count;
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
  const counted: Count = { count: 0, version: null, otherWriters: prepare("PRAGMA data_version").pluck() };
  (client as Counted)[WRITES] = counted;
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
