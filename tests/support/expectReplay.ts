import { ledgerHead } from "../../src/server/ledger/append";
import { replay, stateOf } from "./replay";
import { TestSite } from "./testSite";
import { ITEMS, LINKS } from "./twoJobs";

const TWO_JOBS = [
  { name: "items.csv", text: ITEMS },
  { name: "links.csv", text: LINKS },
];

/** The ledger of a site with the two jobs' plant, played again on an empty database, gives the same state and the same last hash. */
export async function expectReplay(site: TestSite, files: unknown = TWO_JOBS): Promise<void> {
  const again = new TestSite("again.db");
  try {
    expect(await replay(site.db, again.db, files)).toBe(ledgerHead(site.db).hash);
    expect(stateOf(again.db)).toEqual(stateOf(site.db));
  } finally {
    again.close();
  }
}
