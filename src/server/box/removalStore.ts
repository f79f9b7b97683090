import { and, count, desc, eq, ne, sql } from "drizzle-orm";
import { removalState, type ForcedRemoval } from "../../core/removal/forcedRemoval";
import type { Tx } from "../db/database";
import { forcedRemovals } from "../db/schema";
import { question } from "../db/question";

/** The one act that a person may do while a removal of their lock is unread. */
export const READ_REMOVAL = "removal.read";

export type StoredRemoval = Readonly<{ id: string; permitId: string; removal: ForcedRemoval }>;

type Row = typeof forcedRemovals.$inferSelect;
const fromRow = (row: Row): StoredRemoval => ({
  id: row.id,
  permitId: row.permitId,
  removal: row.removal,
});

export function loadRemoval(tx: Tx, id: string): StoredRemoval | null {
  const row = tx.select().from(forcedRemovals).where(eq(forcedRemovals.id, id)).get();
  return row ? fromRow(row) : null;
}

/** The next running number; none is ever taken out. Those of before are named otherwise, and keep their names. */
export function nextRemoval(tx: Tx): string {
  const { n } = tx.select({ n: count() }).from(forcedRemovals).get() ?? { n: 0 };
  return `R-${String(n + 1).padStart(4, "0")}`;
}

/** Writes a removal, new or changed. */
export function saveRemoval(tx: Tx, { id, permitId, removal }: StoredRemoval): void {
  const row = {
    id,
    permitId,
    ownerId: removal.owner,
    lock: removal.lock,
    state: removalState(removal),
    removal,
  };
  tx.insert(forcedRemovals).values(row).onConflictDoUpdate({ target: forcedRemovals.id, set: row }).run();
}

/** A lock of this person's that was cut, and that they have not read of yet. Cost: one indexed look-up. */
export function unreadRemoval(tx: Tx, person: string): StoredRemoval | null {
  const row = cutOf(tx).get({ person });
  return row ? fromRow(row) : null;
}

const cutOf = question((tx) =>
  tx
    .select()
    .from(forcedRemovals)
    .where(and(eq(forcedRemovals.ownerId, sql.placeholder("person")), eq(forcedRemovals.state, "cut")))
    .prepare(),
);

/** The removals of a permit's locks, the newest first, those called off left out. */
export function removalsOn(tx: Tx, permitId: string): StoredRemoval[] {
  return tx
    .select()
    .from(forcedRemovals)
    .where(and(eq(forcedRemovals.permitId, permitId), ne(forcedRemovals.state, "called off")))
    .orderBy(desc(forcedRemovals.id))
    .all()
    .map(fromRow)
    .sort((a, b) => b.removal.opened.at_ms - a.removal.opened.at_ms);
}
