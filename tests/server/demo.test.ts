import { join } from "node:path";
import { permits } from "../../src/server/db/schema";
import { seedDemo } from "../../src/server/demo/seedDemo";
import { approvedVersion } from "../../src/server/library/procedureStore";
import { shiftChanges } from "../../src/server/runtime/siteTime";
import { permitsNow } from "../../src/server/permit/permitFacts";
import { TestSite } from "../support/testSite";

const MINUTE_MS = 60_000;
const [change_ms] = shiftChanges(Date.UTC(2026, 10, 20), Date.UTC(2026, 10, 21)) as [number];

// The demo's day is made backwards from now: a shift change falls before its permits, among them, or not into it.
test.each([20, 22, 23, 30, 40, 75, 240])(
  "the demo's two permits are live %s minutes after a shift change",
  async (minutes) => {
    const site = new TestSite();
    const now_ms = change_ms + minutes * MINUTE_MS;
    try {
      await seedDemo(site.db, join(__dirname, "../../demo"), site.headFile, now_ms);
      const numbers = site.db
        .select({ number: permits.number })
        .from(permits)
        .all()
        .map(({ number }) => number);
      const states = permitsNow(site.db, numbers, now_ms).map(({ now }) => `${now.number} ${now.state}`);
      expect(states).toEqual(["P-0001 live", "P-0002 live", "P-0003 closed"]);
      expect(approvedVersion(site.db, "IP-0001")).not.toBeNull();
    } finally {
      site.close();
    }
  },
);
