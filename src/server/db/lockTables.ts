import { isNull } from "drizzle-orm";
import { z } from "zod";
import { affectedSchema } from "../../core/isolation/keptSchemas";
import { gasSheetSchema } from "../../core/gear/gasSheet";
import { removalSchema } from "../../core/removal/removalSchema";
import { json } from "./jsonColumn";
import { blob, index, integer, real, sqliteTable, text, uniqueIndex } from "drizzle-orm/sqlite-core";
import { isolations, items, jobs, people, permits } from "./siteTables";

/** What hangs, stands and is handed out in the field. Times are UTC in milliseconds. */

/** Which isolation holds which device, and with which lock: two isolations may hold one device. */
export const holds = sqliteTable(
  "holds",
  {
    id: text("id").primaryKey(),
    isolationId: text("isolation_id")
      .notNull()
      .references(() => isolations.id),
    itemId: text("item_id")
      .notNull()
      .references(() => items.id),
    lock: text("lock").notNull(),
    lockedBy: text("locked_by")
      .notNull()
      .references(() => people.id),
    lockedAt: integer("locked_at_ms").notNull(),
    liftedBy: text("lifted_by").references(() => people.id),
    liftedAt: integer("lifted_at_ms"),
    /** Its key: in the hand of somebody, in the box, or gone with the lifted lock. One column, so never in two places. */
    keyAt: text("key_at", { enum: ["hand", "box", "gone"] })
      .notNull()
      .default("hand"),
    keyBy: text("key_by").references(() => people.id),
  },
  (table) => [
    index("holds_lock").on(table.lock),
    index("holds_isolation").on(table.isolationId),
    // One lock, one place.
    uniqueIndex("holds_lock_hangs").on(table.lock).where(isNull(table.liftedAt)),
  ],
);

export const lockBoxes = sqliteTable("lock_boxes", {
  id: text("id").primaryKey(),
  number: text("number").notNull().unique(),
  state: text("state", { enum: ["open", "closed", "returned"] }).notNull(),
});

export const boxIsolations = sqliteTable(
  "box_isolations",
  {
    boxId: text("box_id")
      .notNull()
      .references(() => lockBoxes.id),
    isolationId: text("isolation_id")
      .notNull()
      .references(() => isolations.id),
  },
  (table) => [uniqueIndex("box_isolations_pair").on(table.boxId, table.isolationId)],
);

export const personalLocks = sqliteTable(
  "personal_locks",
  {
    id: text("id").primaryKey(),
    boxId: text("box_id")
      .notNull()
      .references(() => lockBoxes.id),
    permitId: text("permit_id")
      .notNull()
      .references(() => permits.id),
    personId: text("person_id")
      .notNull()
      .references(() => people.id),
    lock: text("lock").notNull(),
    /** The point it hangs on, where locks hang on every point; empty for the box. */
    point: text("point").notNull().default(""),
    onAt: integer("on_at_ms").notNull(),
    offAt: integer("off_at_ms"),
  },
  (table) => [
    index("personal_locks_box").on(table.boxId),
    index("personal_locks_lock").on(table.lock),
    // The same lock stands for its person on the box of each isolation of their permit.
    uniqueIndex("personal_locks_hangs").on(table.lock, table.boxId, table.point).where(isNull(table.offAt)),
  ],
);

/** Locks that hang on a box over everybody else's: the coordinator's, or the department's with a name on it. */
export const standingLocks = sqliteTable(
  "standing_locks",
  {
    id: text("id").primaryKey(),
    boxId: text("box_id")
      .notNull()
      .references(() => lockBoxes.id),
    role: text("role", { enum: ["coordinator", "department"] }).notNull(),
    personId: text("person_id")
      .notNull()
      .references(() => people.id),
    lock: text("lock").notNull(),
    onAt: integer("on_at_ms").notNull(),
    offAt: integer("off_at_ms"),
  },
  (table) => [
    index("standing_locks_box").on(table.boxId),
    index("standing_locks_lock").on(table.lock),
    uniqueIndex("standing_locks_hangs").on(table.lock).where(isNull(table.offAt)),
  ],
);

/** The register of numbered things: locks, testers, earths and the rest. */
export const gear = sqliteTable(
  "gear",
  {
    id: text("id").primaryKey(),
    kind: text("kind").notNull(),
    number: text("number").notNull(),
    ownerId: text("owner_id").references(() => people.id),
    key: text("key"),
    inDateUntil: integer("in_date_until_ms"),
    ratingV: real("rating_v"),
    error: real("error"),
    withdrawn: integer("withdrawn", { mode: "boolean" }).notNull().default(false),
    withdrawnBy: text("withdrawn_by").references(() => people.id),
    bumpedAt: integer("bumped_at_ms"),
    /** Gas instruments: when it was last zeroed in fresh air. */
    zeroedAt: integer("zeroed_at_ms"),
    /** Gas instruments: what it reads, how far it may be off, its hose and pump; null where nobody wrote it down. */
    sheet: json("sheet_json", gasSheetSchema),
    withJob: text("with_job"),
  },
  (table) => [uniqueIndex("gear_number").on(table.kind, table.number)],
);

/** Portable earths that stand somewhere. */
export const earthsOn = sqliteTable(
  "earths_on",
  {
    id: text("id").primaryKey(),
    isolationId: text("isolation_id")
      .notNull()
      .references(() => isolations.id),
    number: text("number").notNull(),
    face: text("face").notNull(),
    place: text("place").notNull(),
    onAt: integer("on_at_ms").notNull(),
    offAt: integer("off_at_ms"),
  },
  (table) => [index("earths_on_number").on(table.number), index("earths_on_isolation").on(table.isolationId)],
);

/** Pictures that people took at a step, made again from their pixels so that nothing else is in them. */
export const photos = sqliteTable(
  "photos",
  {
    id: text("id").primaryKey(),
    takenBy: text("taken_by")
      .notNull()
      .references(() => people.id),
    storedAt: integer("stored_at_ms").notNull(),
    sha256: text("sha256").notNull(),
    width: integer("width").notNull(),
    height: integer("height").notNull(),
    jpeg: blob("jpeg", { mode: "buffer" }).notNull(),
  },
  (table) => [index("photos_hash").on(table.sha256)],
);

/** Procedures exchanged with a contractor's lead before their first lock on a job. */
export const exchanges = sqliteTable(
  "exchanges",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    firm: text("firm").notNull(),
    ours: text("ours").notNull(),
    theirs: text("theirs").notNull(),
    leadId: text("lead_id")
      .notNull()
      .references(() => people.id),
    by: text("by_person")
      .notNull()
      .references(() => people.id),
    at: integer("at_ms").notNull(),
  },
  (table) => [index("exchanges_job").on(table.jobId)],
);

/** Points lifted for a while, for a test: what the engine said it would light, and who agreed. */
export const temporaryRestores = sqliteTable(
  "temporary_restores",
  {
    id: text("id").primaryKey(),
    number: text("number").notNull().unique(),
    isolationId: text("isolation_id")
      .notNull()
      .references(() => isolations.id),
    state: text("state", { enum: ["asked", "running", "ended", "called off"] }).notNull(),
    purpose: text("purpose").notNull(),
    lift: json("lift_json", z.array(z.string()).readonly()).notNull(),
    /** Jobs whose faces would be lit or lose a barrier: each with who agreed, and when. */
    affected: json("affected_json", affectedSchema).notNull(),
    askedBy: text("asked_by")
      .notNull()
      .references(() => people.id),
    askedAt: integer("asked_at_ms").notNull(),
    startedAt: integer("started_at_ms"),
    endedAt: integer("ended_at_ms"),
  },
  (table) => [index("temporary_restores_isolation").on(table.isolationId)],
);

/** Looks at isolations that stay: why each stays, and when it is looked at again. */
export const isolationReviews = sqliteTable(
  "isolation_reviews",
  {
    id: text("id").primaryKey(),
    isolationId: text("isolation_id")
      .notNull()
      .references(() => isolations.id),
    reason: text("reason").notNull(),
    reviewedBy: text("reviewed_by")
      .notNull()
      .references(() => people.id),
    reviewedAt: integer("reviewed_at_ms").notNull(),
    nextAt: integer("next_at_ms").notNull(),
  },
  (table) => [index("isolation_reviews_isolation").on(table.isolationId)],
);

/** Locks of people who left them on, and how each was dealt with. The life is in `removal`; the rest is for looking up. */
export const forcedRemovals = sqliteTable(
  "forced_removals",
  {
    id: text("id").primaryKey(),
    permitId: text("permit_id")
      .notNull()
      .references(() => permits.id),
    ownerId: text("owner_id")
      .notNull()
      .references(() => people.id),
    lock: text("lock").notNull(),
    state: text("state", { enum: ["opened", "missing", "authorised", "cut", "told", "called off"] }).notNull(),
    removal: json("removal_json", removalSchema).notNull(),
  },
  (table) => [
    index("forced_removals_owner").on(table.ownerId, table.state),
    index("forced_removals_permit").on(table.permitId),
  ],
);

/** What the store has of each thing and size, as last counted. */
export const stock = sqliteTable(
  "stock",
  {
    thing: text("thing").notNull(),
    size: text("size").notNull(),
    count: integer("count").notNull(),
    countedBy: text("counted_by")
      .notNull()
      .references(() => people.id),
    countedAt: integer("counted_at_ms").notNull(),
  },
  (table) => [uniqueIndex("stock_thing_size").on(table.thing, table.size)],
);
