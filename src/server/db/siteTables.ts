import { sql } from "drizzle-orm";
import { PERMIT_KINDS } from "../../core/permit/kinds/kinds";
import { PERMIT_STATES } from "../../core/permit/record/permitTypes";
import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from "drizzle-orm/sqlite-core";

import { z } from "zod";
import { calculationSchema } from "../../core/calc/calculationSchema";
import {
  begunSchema,
  evidenceSchema,
  failuresSchema,
  stuckSchema,
  verdictSchema,
} from "../../core/isolation/keptSchemas";
import { personIdSchema } from "../../core/people/personIdSchema";
import { COMPETENCES, ROLES } from "../../core/people/roles";
import { INSTRUMENT_KINDS } from "../../core/gear/instrumentKinds";
import { sentSchema } from "../../core/permit/air/instruments";
import { detailsSchema } from "../../core/permit/kinds/details";
import { lockCheckSchema } from "../../core/isolation/lockCheck";
import { logEntrySchema } from "../../core/permit/record/logSchema";
import { planSchema } from "../../core/plan/planSchema";
import { plannedStepSchema } from "../../core/procedure/stepSchema";
import { appointedSchema } from "../../core/accounts/appointments";
import { appointedForSchema, EVERYWHERE } from "../../core/accounts/appointedFor";
import { inductionSchema } from "../../core/accounts/induction";
import { JOB_STATES } from "../../core/job/jobLife";
import { jobSchema } from "../../core/request/jobFile";
import { setupSchema } from "../../core/schedule/setupSchema";
import { json } from "./jsonColumn";

/** Times are UTC in milliseconds. JSON columns are parsed by a schema when read back. */

export const people = sqliteTable("people", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  signIn: text("sign_in").notNull().unique(),
  roles: json("roles_json", z.array(z.enum(ROLES)).readonly()).notNull(),
  competences: json("competences_json", z.array(z.enum(COMPETENCES)).readonly()).notNull(),
  /** Who gave each competence, when, and until when it counts. */
  appointed: json("appointed_json", appointedSchema).notNull().default({}),
  passwordHash: text("password_hash").notNull(),
  pinHash: text("pin_hash").notNull(),
  /** Which units this person reads and types. */
  units: text("units", { enum: ["metric", "us"] })
    .notNull()
    .default("metric"),
  /** A contractor's firm; empty for the site's own people. */
  firm: text("firm").notNull().default(""),
  /** Of somebody of another firm: who showed them the site, when, and until when it counts. */
  induction: json("induction_json", inductionSchema),
  /** For which areas and shifts they issue and approve. */
  appointedFor: json("appointed_for_json", appointedForSchema).notNull().default(EVERYWHERE),
  active: integer("active", { mode: "boolean" }).notNull().default(true),
});

export const sessions = sqliteTable(
  "sessions",
  {
    /** SHA-256 of the cookie's token: a copy of the database signs nobody in. */
    tokenHash: text("token_hash").primaryKey(),
    personId: text("person_id")
      .notNull()
      .references(() => people.id),
    createdAt: integer("created_at_ms").notNull(),
    expiresAt: integer("expires_at_ms").notNull(),
    /** When something was last asked in it, to within a few minutes. */
    seenAt: integer("seen_at_ms").notNull().default(0),
    /** The crew round for which this screen stands at the box, by its number: until it is ended there is nothing else on it. */
    crewRound: text("crew_round"),
  },
  (table) => [index("sessions_person").on(table.personId)],
);

/** Wrong passwords and PINs, to slow down guessing. */
export const failedAttempts = sqliteTable(
  "failed_attempts",
  {
    id: integer("id").primaryKey({ autoIncrement: true }),
    subject: text("subject").notNull(),
    at: integer("at_ms").notNull(),
  },
  (table) => [index("failed_attempts_subject").on(table.subject, table.at)],
);

/** Devices that somebody has signed in from, so that strangers' wrong tries shut nobody out of their own. */
export const knownDevices = sqliteTable("known_devices", {
  /** SHA-256 of the cookie's token. */
  tokenHash: text("token_hash").primaryKey(),
  personId: text("person_id")
    .notNull()
    .references(() => people.id),
  at: integer("at_ms").notNull(),
});

export const plantRevisions = sqliteTable("plant_revisions", {
  revision: integer("revision").primaryKey(),
  importedAt: integer("imported_at_ms").notNull(),
  importedBy: text("imported_by")
    .notNull()
    .references(() => people.id),
  fileNames: text("file_names").notNull(),
  itemCount: integer("item_count").notNull(),
  linkCount: integer("link_count").notNull(),
  contentHash: text("content_hash").notNull(),
});

/**
 * The registers themselves, by their hash, in parts: each a register of its own, together the whole. They come in part by
 * part before a revision names them, so that nothing waits for all of a large one.
 */
export const plantTexts = sqliteTable(
  "plant_texts",
  {
    hash: text("hash").notNull(),
    part: integer("part").notNull(),
    text: text("text").notNull(),
    storedAt: integer("stored_at_ms").notNull(),
  },
  (table) => [primaryKey({ columns: [table.hash, table.part] })],
);

/**
 * A lasting id for every tag that any revision of the register has named: locks hang on ids. What an item is stands in the
 * revisions.
 */
export const items = sqliteTable("items", {
  id: text("id").primaryKey(),
  tag: text("tag").notNull().unique(),
});

export const jobs = sqliteTable("jobs", {
  id: text("id").primaryKey(),
  number: text("number").notNull().unique(),
  title: text("title").notNull(),
  work: text("work").notNull(),
  job: json("job_json", jobSchema).notNull(),
  /** What it is carried out with: blower, hose, crews. Times only; the plan does not depend on it. */
  setup: json("setup_json", setupSchema).notNull().default({}),
  /** Its hazards as people decided them; empty before anybody began. See core/hazards. */
  hazards: text("hazards_json").notNull().default(""),
  windowFrom: integer("window_from_ms").notNull(),
  windowTo: integer("window_to_ms").notNull(),
  crew: json("crew_json", z.array(personIdSchema).readonly()).notNull(),
  holderId: text("holder_id")
    .notNull()
    .references(() => people.id),
  askedBy: text("asked_by")
    .notNull()
    .references(() => people.id),
  askedAt: integer("asked_at_ms").notNull(),
  state: text("state", { enum: JOB_STATES }).notNull(),
  /** The number of the job that this one was asked for like; null where it was written afresh. */
  like: text("like_number"),
  /** The isolation procedure by which it was asked for, and its version; null where by none. */
  procedure: text("procedure_number"),
  procedureVersion: integer("procedure_version"),
});

export const isolations = sqliteTable("isolations", {
  id: text("id").primaryKey(),
  number: text("number").notNull().unique(),
  state: text("state", { enum: ["isolating", "proven", "testing", "restoring", "restored"] }).notNull(),
  plan: json("plan_json", planSchema).notNull(),
  /** What the plan was made with, so that it can be made again. */
  plantRevision: integer("plant_revision").notNull(),
  ruleProfile: text("rule_profile").notNull(),
  engineVersion: text("engine_version").notNull(),
  inputs: json("inputs_json", jobSchema).notNull(),
  approvedBy: text("approved_by")
    .notNull()
    .references(() => people.id),
  approvedAt: integer("approved_at_ms").notNull(),
  /** How its plan fared on a later register than it was made on; null where nobody judged it since. */
  verdict: json("verdict_json", verdictSchema),
  /** What was found when its locks were last read; null where nobody went round since it was proved. */
  lockCheck: json("lock_check_json", lockCheckSchema),
});

/** Many to many: one isolation can serve several jobs, one job can stand on several isolations. */
export const jobIsolations = sqliteTable(
  "job_isolations",
  {
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    isolationId: text("isolation_id")
      .notNull()
      .references(() => isolations.id),
  },
  (table) => [uniqueIndex("job_isolations_pair").on(table.jobId, table.isolationId)],
);

/** A way that the plant cannot hold as asked, and the person who accepts it with what is done instead. */
export const deviations = sqliteTable(
  "deviations",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    /** Source, carrier and face. */
    way: text("way").notNull(),
    /** What was asked and what was accepted; a worse grade later is not covered. */
    requiredGrade: text("required_grade").notNull(),
    acceptedGrade: text("accepted_grade").notNull(),
    acceptedDepth: integer("accepted_depth").notNull(),
    measures: json("measures_json", z.array(z.string()).readonly()).notNull(),
    reason: text("reason").notNull(),
    plantRevision: integer("plant_revision").notNull(),
    acceptedBy: text("accepted_by")
      .notNull()
      .references(() => people.id),
    acceptedAt: integer("accepted_at_ms").notNull(),
    /** Until when; then an approver looks at it again. */
    until: integer("until_ms").notNull().default(0),
  },
  (table) => [index("deviations_job").on(table.jobId)],
);

export const steps = sqliteTable(
  "steps",
  {
    isolationId: text("isolation_id")
      .notNull()
      .references(() => isolations.id),
    stepId: text("step_id").notNull(),
    position: integer("position").notNull(),
    step: json("step_json", plannedStepSchema).notNull(),
    doneBy: text("done_by").references(() => people.id),
    doneAt: integer("done_at_ms"),
    recordedAt: integer("recorded_at_ms"),
    lock: text("lock"),
    reading: text("reading"),
    skipped: integer("skipped", { mode: "boolean" }).notNull().default(false),
    evidence: json("evidence_json", evidenceSchema),
    /** Why it cannot be done as planned, by whom and when. */
    stuck: json("stuck_json", stuckSchema),
    /** Who turned on what it runs for a time with; null where nobody did. */
    begun: json("begun_json", begunSchema),
    /** Proofs that failed at it; they stay. Null where none did. */
    failures: json("failures_json", failuresSchema),
  },
  (table) => [
    uniqueIndex("steps_id").on(table.isolationId, table.stepId),
    // Few fail: what once failed at a place is found without reading every step there ever was.
    index("steps_failed")
      .on(table.isolationId)
      .where(sql`failures_json IS NOT NULL`),
  ],
);

export const permits = sqliteTable(
  "permits",
  {
    id: text("id").primaryKey(),
    number: text("number").notNull().unique(),
    kind: text("kind", { enum: PERMIT_KINDS }).notNull(),
    /** What its kind adds, see core/permit/details. */
    details: json("details_json", detailsSchema).notNull().default({ kind: "general" }),
    /** The permit that this one goes on from: a day's work takes a new number. */
    previous: text("previous"),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    state: text("state", { enum: PERMIT_STATES }).notNull(),
    words: text("words").notNull(),
    hazards: text("hazards").notNull(),
    precautions: text("precautions").notNull(),
    holderId: text("holder_id")
      .notNull()
      .references(() => people.id),
    issuerId: text("issuer_id").references(() => people.id),
    closedBy: text("closed_by").references(() => people.id),
    validFrom: integer("valid_from_ms").notNull(),
    validTo: integer("valid_to_ms").notNull(),
    plantRevision: integer("plant_revision").notNull(),
    ruleProfile: text("rule_profile").notNull(),
    engineVersion: text("engine_version").notNull(),
    draftedBy: text("drafted_by")
      .notNull()
      .references(() => people.id),
    draftedAt: integer("drafted_at_ms").notNull(),
  },
  (table) => [
    index("permits_job").on(table.jobId),
    index("permits_state").on(table.state),
    index("permits_valid_to").on(table.validTo),
  ],
);

/** What happened under each permit, append-only: triggers refuse changes and removals. */
export const permitLog = sqliteTable(
  "permit_log",
  {
    permitId: text("permit_id")
      .notNull()
      .references(() => permits.id),
    /** Counts from 0 within its permit. */
    position: integer("position").notNull(),
    at: integer("at_ms").notNull(),
    entry: json("entry_json", logEntrySchema).notNull(),
  },
  (table) => [uniqueIndex("permit_log_position").on(table.permitId, table.position)],
);

/** Instruments that send by themselves, and what each sent last. */
export const detectors = sqliteTable("detectors", {
  id: text("id").primaryKey(),
  /** SHA-256 of its token: a copy of the database sends nothing. */
  tokenHash: text("token_hash").notNull().unique(),
  /** Gas at a work place, a gauge of the plant, or a portable blower that says whether it runs. */
  kind: text("kind", { enum: INSTRUMENT_KINDS }).notNull(),
  /** What a gas detector reads: oxygen, flammable, and toxic gases by name. */
  reads: json("reads_json", z.array(z.string()).readonly()).notNull().default(["oxygen", "flammable"]),
  /** Number of the permit it is posted at; null in the store. */
  permit: text("permit"),
  place: text("place").notNull().default(""),
  postedAt: integer("posted_at_ms"),
  lastAt: integer("last_at_ms"),
  lastReading: json("last_reading_json", sentSchema),
});

export const permitIsolations = sqliteTable(
  "permit_isolations",
  {
    permitId: text("permit_id")
      .notNull()
      .references(() => permits.id),
    isolationId: text("isolation_id")
      .notNull()
      .references(() => isolations.id),
  },
  (table) => [uniqueIndex("permit_isolations_pair").on(table.permitId, table.isolationId)],
);

/** A figure that somebody attached to a job or permit: inputs and answer as they were, with the engine that gave it. */
export const figures = sqliteTable(
  "figures",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id").references(() => jobs.id),
    permitId: text("permit_id").references(() => permits.id),
    calculator: text("calculator").notNull(),
    inputs: json("inputs_json", z.record(z.string(), z.unknown())).notNull(),
    calculation: json("calculation_json", calculationSchema).notNull(),
    note: text("note").notNull(),
    engineVersion: text("engine_version").notNull(),
    attachedBy: text("attached_by")
      .notNull()
      .references(() => people.id),
    attachedAt: integer("attached_at_ms").notNull(),
  },
  (table) => [index("figures_job").on(table.jobId), index("figures_permit").on(table.permitId)],
);

/**
 * Every act and every refusal, append-only: triggers refuse changes and removals. Each row carries the hash of the row
 * before. The columns beside `body` repeat what is in it, for looking up; verification compares them.
 */
export const ledger = sqliteTable(
  "ledger",
  {
    seq: integer("seq").primaryKey(),
    /** Chosen by the client, so that a repeat is answered and not done twice. */
    actId: text("act_id").notNull().unique(),
    bodyVersion: integer("body_version").notNull(),
    type: text("type").notNull(),
    outcome: text("outcome", { enum: ["done", "refused"] }).notNull(),
    byPerson: text("by_person").notNull(),
    /** What the act was about: a job, permit or isolation number. */
    subject: text("subject").notNull(),
    doneAt: integer("done_at_ms").notNull(),
    recordedAt: integer("recorded_at_ms").notNull(),
    /** Who typed in a late entry for the person who did it. */
    transcribedBy: text("transcribed_by"),
    /** The row that this one declares entered in error. */
    corrects: integer("corrects"),
    body: text("body").notNull(),
    previousHash: text("previous_hash").notNull(),
    hash: text("hash").notNull(),
  },
  (table) => [
    index("ledger_subject").on(table.subject),
    index("ledger_person").on(table.byPerson),
    index("ledger_recorded").on(table.recordedAt),
  ],
);
