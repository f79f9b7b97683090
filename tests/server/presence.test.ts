import { randomUUID } from "node:crypto";
import { siteTracks } from "../../src/server/board/siteTracks";
import { valueAt } from "../../src/core/board/tracks";
import { presence } from "../../src/server/board/presence";
import { LONG_MS } from "../../src/core/board/whoIsWhere";
import { DemoForAll } from "../support/demoSite";

/** Since when somebody is at work: over permits, by what they signed, until they have rested. */

const HOUR_MS = 3_600_000;
const demo = new DemoForAll();

test("the board counts the heads that are on the list of who is where, each once", () => {
  const { db, clock_ms: now_ms } = demo.site;
  const window = { from_ms: now_ms - 12 * HOUR_MS, to_ms: now_ms + 24 * HOUR_MS };
  const counted = () => valueAt(siteTracks(window, now_ms, db).heads, now_ms) ?? 0;
  const there = () => new Set(presence(now_ms).map(({ person }) => person)).size;
  expect(counted()).toBe(there());
  expect(counted()).toBeGreaterThan(0);
  // Somebody who is on goes on under a second permit as well: they are one head still.
  const [first, second] = [...new Set(presence(now_ms).map(({ permit }) => permit))];
  db.$client
    .prepare(
      `INSERT INTO personal_locks (id, box_id, permit_id, person_id, lock, point, on_at_ms, off_at_ms)
       SELECT ?, box_id, (SELECT id FROM permits WHERE number = ?), person_id, 'X-2', point, ?, NULL
       FROM personal_locks WHERE off_at_ms IS NULL AND permit_id = (SELECT id FROM permits WHERE number = ?) LIMIT 1`,
    )
    .run(randomUUID(), second, now_ms - 60_000, first);
  expect(presence(now_ms).length).toBeGreaterThan(there());
  expect(counted()).toBe(there());
});

test("who goes on under another permit has not begun anew; who rested has", () => {
  const { db, clock_ms: now_ms } = demo.site;
  const { $client: client } = db;
  const [one] = presence(now_ms).filter(({ what }) => what === "on");
  const { person, atWorkSince_ms } = one!;
  const since = () => presence(now_ms).find((row) => row.person === person)!.atWorkSince_ms;
  expect(now_ms - atWorkSince_ms).toBeLessThan(LONG_MS);
  expect(atWorkSince_ms).toBeLessThanOrEqual(one!.since_ms);

  const before = (from_ms: number, to_ms: number) =>
    client
      .prepare(
        `INSERT INTO personal_locks (id, box_id, permit_id, person_id, lock, point, on_at_ms, off_at_ms)
         SELECT ?, box_id, permit_id, person_id, 'X-1', point, ?, ? FROM personal_locks WHERE person_id = ? LIMIT 1`,
      )
      .run(randomUUID(), from_ms, to_ms, person);
  before(atWorkSince_ms - 30 * HOUR_MS, atWorkSince_ms - 22 * HOUR_MS);
  expect(since()).toBe(atWorkSince_ms);
  const earlier_ms = atWorkSince_ms - 13 * HOUR_MS;
  before(earlier_ms, atWorkSince_ms - 2 * HOUR_MS);
  expect(since()).toBe(earlier_ms);
  expect(now_ms - since()).toBeGreaterThan(LONG_MS);
});
