import { asc } from "drizzle-orm";
import { ledger } from "../../src/server/db/schema";
import { ledgerHead } from "../../src/server/ledger/append";
import { verifyLedger } from "../../src/server/ledger/verify";
import { asRecorded, lookedBackAt } from "./boardThen";
import { replay, stateOf } from "./replay";
import { TestSite } from "./testSite";

/**
 * The record is whole; and the ledger of a site, played again on an empty database, gives the same state and the same last
 * hash. On the way, after every row, the board of that moment is as it is looked back at from the end.
 */
export async function expectReplay(site: TestSite): Promise<void> {
  const again = new TestSite("again.db");
  // Nothing was done: an emptied ledger is nothing that a record may come from.
  if (site.db.select({ at: ledger.recordedAt }).from(ledger).all().length === 0) return again.close();
  try {
    expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true, stateKnown: true });
    const rows = site.db.select({ at: ledger.recordedAt }).from(ledger).orderBy(asc(ledger.seq)).all();
    const end_ms = rows.at(-1)!.at + 1;
    const hash = await replay(site.db, again.db, ({ seq, recordedAt }) => {
      // More may have been done at this very moment.
      if (rows[seq]?.at === recordedAt) return;
      expect({ seq, ...lookedBackAt(site.db, recordedAt, end_ms) }).toEqual({ seq, ...asRecorded(again.db) });
    });
    expect(hash).toBe(ledgerHead(site.db).hash);
    expect(stateOf(again.db)).toEqual(stateOf(site.db));
  } finally {
    again.close();
  }
}
