import { integer, sqliteTable, text, uniqueIndex } from "drizzle-orm/sqlite-core";
import { contentSchema, inspectionsSchema, signaturesSchema, VERSION_STATES } from "../../core/library/procedure";
import { json } from "./jsonColumn";
import { people } from "./siteTables";

/** Isolation procedures: how a piece of equipment is isolated for a kind of work, again and again. */
export const procedures = sqliteTable("procedures", {
  id: text("id").primaryKey(),
  number: text("number").notNull().unique(),
  title: text("title").notNull(),
  /** The tag at whose machine its placard hangs. */
  equipment: text("equipment").notNull(),
});

export const procedureVersions = sqliteTable(
  "procedure_versions",
  {
    id: text("id").primaryKey(),
    procedureId: text("procedure_id")
      .notNull()
      .references(() => procedures.id),
    version: integer("version").notNull(),
    state: text("state", { enum: VERSION_STATES }).notNull(),
    content: json("content_json", contentSchema).notNull(),
    /** The job that it was taken from. */
    job: text("job_number").notNull(),
    writtenBy: text("written_by")
      .notNull()
      .references(() => people.id),
    writtenAt: integer("written_at_ms").notNull(),
    signatures: json("signatures_json", signaturesSchema).notNull(),
    inspections: json("inspections_json", inspectionsSchema).notNull(),
  },
  (table) => [uniqueIndex("procedure_versions_number").on(table.procedureId, table.version)],
);
