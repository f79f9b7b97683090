import { and, asc, gt, lte } from "drizzle-orm";
import type { Db } from "../db/database";
import { ledger } from "../db/schema";
import { ledgerHead } from "./append";

/** Rows looked up at once. */
const AT_ONCE = 500;

/**
 * The ledger as lines of JSON, for whoever keeps it or looks at it without this program: first what it is, how many rows, and the
 * hash of the last; then each row with its hash and the one before. A row's body is text, for its hash is of these very letters. What
 * is written meanwhile is not in it. Cost: linear, a query for every 500 rows, a step between.
 */
export function* ledgerLines(db: Db, takenAt_ms: number): Generator<string, void> {
  const head = ledgerHead(db);
  const first = { format: "heavy-lantern/ledger", version: 1, takenAt_ms, rows: head.seq, head: head.hash };
  yield `${JSON.stringify(first)}\n`;
  for (let from = 0; from < head.seq; from += AT_ONCE) {
    const rows = db
      .select({ seq: ledger.seq, previous: ledger.previousHash, hash: ledger.hash, body: ledger.body })
      .from(ledger)
      .where(and(gt(ledger.seq, from), lte(ledger.seq, Math.min(from + AT_ONCE, head.seq))))
      .orderBy(asc(ledger.seq))
      .all();
    yield rows.map((row) => `${JSON.stringify(row)}\n`).join("");
  }
}
