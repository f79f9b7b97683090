import { index, integer, sqliteTable, text } from "drizzle-orm/sqlite-core";
import { z } from "zod";
import { READ_RIGHTS } from "../../core/access/access";
import { json } from "./jsonColumn";
import { people } from "./siteTables";

/** Tokens by which programs read or act for somebody. */
export const accessTokens = sqliteTable(
  "access_tokens",
  {
    number: text("number").primaryKey(),
    /** SHA-256 of the token: a copy of the database opens nothing. */
    tokenHash: text("token_hash").notNull().unique(),
    ownerId: text("owner_id")
      .notNull()
      .references(() => people.id),
    name: text("name").notNull(),
    rights: json("rights_json", z.array(z.enum(READ_RIGHTS))).notNull(),
    acts: json("acts_json", z.array(z.string())).notNull(),
    madeAt: integer("made_at_ms").notNull(),
    until: integer("until_ms").notNull(),
    revokedAt: integer("revoked_at_ms"),
  },
  (table) => [index("access_tokens_owner").on(table.ownerId)],
);
