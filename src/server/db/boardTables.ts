import { index, integer, sqliteTable, text } from "drizzle-orm/sqlite-core";
import { people } from "./siteTables";

/** Where two jobs touch and somebody said that they may, and what is done so that they may. Never changed; the last counts. */
export const conflictDecisions = sqliteTable(
  "conflict_decisions",
  {
    id: text("id").primaryKey(),
    conflict: text("conflict").notNull(),
    from: integer("from_ms").notNull(),
    to: integer("to_ms").notNull(),
    reason: text("reason").notNull(),
    decidedBy: text("decided_by")
      .notNull()
      .references(() => people.id),
    decidedAt: integer("decided_at_ms").notNull(),
  },
  (table) => [index("conflict_decisions_to").on(table.to)],
);
