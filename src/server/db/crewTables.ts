import { sql } from "drizzle-orm";
import { index, integer, sqliteTable, text } from "drizzle-orm/sqlite-core";
import { people, permits } from "./siteTables";

/** A crew signs on at one screen at the box, and who stood there with them. */
export const crewRounds = sqliteTable(
  "crew_rounds",
  {
    id: text("id").primaryKey(),
    number: text("number").notNull().unique(),
    permitId: text("permit_id")
      .notNull()
      .references(() => permits.id),
    leadId: text("lead_id")
      .notNull()
      .references(() => people.id),
    begunAt: integer("begun_at_ms").notNull(),
    /** When somebody last came, went, or was called. */
    lastAt: integer("last_at_ms").notNull(),
    endedAt: integer("ended_at_ms"),
  },
  (table) => [
    index("crew_rounds_open")
      .on(table.permitId)
      .where(sql`${table.endedAt} IS NULL`),
  ],
);
