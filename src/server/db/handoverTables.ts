import { index, integer, sqliteTable, text } from "drizzle-orm/sqlite-core";
import { askedSchema, itemsSchema } from "../../core/handover/handoverSchema";
import { json } from "./jsonColumn";
import { people } from "./siteTables";

/** One shift to the next: what was gone through, as it was at that moment, and what was asked. */
export const handovers = sqliteTable(
  "handovers",
  {
    id: text("id").primaryKey(),
    number: text("number").notNull().unique(),
    at: integer("at_ms").notNull(),
    goingId: text("going_id")
      .notNull()
      .references(() => people.id),
    comingId: text("coming_id")
      .notNull()
      .references(() => people.id),
    items: json("items_json", itemsSchema).notNull(),
    asked: json("asked_json", askedSchema).notNull(),
    remarks: text("remarks").notNull(),
  },
  (table) => [index("handovers_at").on(table.at)],
);
