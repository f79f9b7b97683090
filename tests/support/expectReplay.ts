import { ledgerHead } from "../../src/server/ledger/append";
import { verifyLedger } from "../../src/server/ledger/verify";
import { replay, stateOf } from "./replay";
import { TestSite } from "./testSite";

/** The record is whole; and the ledger of a site, played again on an empty database, gives the same state and the same last hash. */
export async function expectReplay(site: TestSite): Promise<void> {
  const again = new TestSite("again.db");
  try {
    expect(verifyLedger(site.db.$client, site.headFile)).toMatchObject({ ok: true, stateKnown: true });
    expect(await replay(site.db, again.db)).toBe(ledgerHead(site.db).hash);
    expect(stateOf(again.db)).toEqual(stateOf(site.db));
  } finally {
    again.close();
  }
}
