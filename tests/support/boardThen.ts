import { and, eq, isNull } from "drizzle-orm";
import { pictureAt } from "../../src/core/board/pictureAt";
import type { Db } from "../../src/server/db/database";
import { holds, items, permitLog, permits, personalLocks } from "../../src/server/db/schema";
import { siteTracks } from "../../src/server/board/siteTracks";

/** What a board shows of a moment, as plain facts. */
export type Then = Readonly<{ permits: readonly string[]; locked: readonly string[] }>;

const OUT = ["issued", "live", "suspended", "run out", "watching"];

/** Read off the tables as they stand: for each permit that is out its state, who is on and who inside; what is locked. */
export function asRecorded(db: Db): Then {
  const rows = db.select().from(permits).all();
  const said = rows
    .filter(({ state }) => OUT.includes(state))
    .map(({ id, number, state }) => {
      const on = db
        .select({ person: personalLocks.personId })
        .from(personalLocks)
        .where(and(eq(personalLocks.permitId, id), isNull(personalLocks.offAt)))
        .all();
      const log = db.select().from(permitLog).where(eq(permitLog.permitId, id)).all();
      const inside = new Set<string>();
      for (const { entry } of log) {
        if (entry.type === "went in") inside.add(entry.person);
        if (entry.type === "came out") inside.delete(entry.person);
      }
      return `${number} ${state}, ${new Set(on.map(({ person }) => person)).size} on, ${inside.size} inside`;
    });
  const locked = db
    .select({ tag: items.tag })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .where(isNull(holds.liftedAt))
    .all()
    .map(({ tag }) => tag);
  return { permits: said.sort(), locked: [...new Set(locked)].sort() };
}

const STATES: Readonly<Record<string, string>> = {
  issued: "issued",
  active: "live",
  stopped: "suspended",
  expired: "run out",
  "after-watch": "watching",
};

/** The same, looked back at from a later day. */
export function lookedBackAt(db: Db, at_ms: number, now_ms: number): Then {
  const tracks = siteTracks({ from_ms: at_ms - 3_600_000, to_ms: at_ms + 3_600_000 }, now_ms, db);
  const { works, locked } = pictureAt(tracks, at_ms, now_ms);
  const said = works.flatMap(({ number, phase, on, inside, kind }) =>
    kind === null ? [] : [`${number} ${STATES[phase]}, ${on} on, ${inside} inside`],
  );
  return { permits: said.sort(), locked: locked.map(({ tag }) => tag).sort() };
}
