import { join } from "node:path";
import { eq } from "drizzle-orm";
import type { PersonId } from "../../src/core/people/roles";
import { permitLog, permits } from "../../src/server/db/schema";
import { seedDemo } from "../../src/server/demo/seedDemo";
import { expectReplay } from "../support/expectReplay";
import { TestSite } from "../support/testSite";
import { lookedBackAt } from "../support/boardThen";

const NOW_MS = Date.UTC(2026, 10, 20, 12, 0);
const HOUR_MS = 3_600_000;

test("after every act of the demo's day the board was as it is looked back at now", async () => {
  const site = new TestSite();
  try {
    await seedDemo(site.db, join(__dirname, "../../demo"), site.headFile, NOW_MS);
    await expectReplay(site);
    const then = (hours: number) => lookedBackAt(site.db, NOW_MS - hours * HOUR_MS, NOW_MS + 1);
    // A day with something to see: nothing out in the morning, two permits and people on them at its end.
    expect(then(6)).toEqual({ permits: [], locked: [] });
    expect(then(0).permits).toEqual(["P-0001 live, 2 on, 0 inside", "P-0002 live, 1 on, 0 inside"]);
    goesIn(site, 40, 10);
    expect([0.8, 0.5, 0.1].map((hours) => then(hours).permits[0])).toEqual([
      "P-0001 live, 2 on, 0 inside",
      "P-0001 live, 2 on, 1 inside",
      "P-0001 live, 2 on, 0 inside",
    ]);
  } finally {
    site.close();
  }
});

/** As the log of a permit has it when somebody goes in and comes out, so many minutes before the end. */
function goesIn(site: TestSite, in_min: number, out_min: number): void {
  const permit = site.db.select({ id: permits.id }).from(permits).where(eq(permits.number, "P-0001")).get()!;
  const length = site.db.select().from(permitLog).where(eq(permitLog.permitId, permit.id)).all().length;
  const person = "tomas" as PersonId;
  [
    { type: "went in" as const, at_ms: NOW_MS - in_min * 60_000 },
    { type: "came out" as const, at_ms: NOW_MS - out_min * 60_000 },
  ].forEach(({ type, at_ms }, i) => {
    const entry = { type, person, by: person, at_ms };
    site.db
      .insert(permitLog)
      .values({ permitId: permit.id, position: length + i, at: at_ms, entry })
      .run();
  });
}
