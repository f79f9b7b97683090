import { ledgerHead } from "../../src/server/ledger/append";
import { replay, stateOf } from "./replay";
import { TestSite } from "./testSite";
import { ITEMS, LINKS } from "./twoJobs";

/** The ledger of a site with the two jobs' plant, played again on an empty database, gives the same state and the same last hash. */
export async function expectReplay(site: TestSite): Promise<void> {
  const again = new TestSite("again.db");
  const files = [
    { name: "items.csv", text: ITEMS },
    { name: "links.csv", text: LINKS },
  ];
  try {
    expect(await replay(site.db, again.db, files)).toBe(ledgerHead(site.db).hash);
    expect(stateOf(again.db)).toEqual(stateOf(site.db));
  } finally {
    again.close();
  }
}
