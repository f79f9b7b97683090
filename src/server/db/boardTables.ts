import { index, integer, sqliteTable, text } from "drizzle-orm/sqlite-core";
import { musterPeopleSchema, seenSchema } from "../../core/muster/musterSchema";
import { json } from "./jsonColumn";
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

/** All work in an area or on the site stopped by one act, and who was looked for. */
export const musters = sqliteTable(
  "musters",
  {
    id: text("id").primaryKey(),
    number: text("number").notNull().unique(),
    /** Empty for the whole site. */
    area: text("area").notNull(),
    reason: text("reason").notNull(),
    openedBy: text("opened_by")
      .notNull()
      .references(() => people.id),
    openedAt: integer("opened_at_ms").notNull(),
    people: json("people_json", musterPeopleSchema).notNull(),
    seen: json("seen_json", seenSchema).notNull(),
    closedBy: text("closed_by").references(() => people.id),
    closedAt: integer("closed_at_ms"),
  },
  (table) => [index("musters_closed").on(table.closedAt)],
);
