import { z } from "zod";
import { personIdSchema } from "../../people/personIdSchema";
import { POSTS } from "../kinds/kinds";
import {
  AUDIT_FINDINGS,
  AUDIT_LOOKS,
  BAD_AIR_CAUSES,
  ODD_AIR_CAUSES,
  SENSORS,
  SIGNED,
  STOP_CAUSES,
  type LogEntry,
} from "./permitLog";

const who = { at_ms: z.number(), by: personIdSchema.nullable() };
const entry = <Type extends string, Shape extends z.ZodRawShape>(type: Type, shape: Shape) =>
  z.object({ type: z.literal(type), ...who, ...shape });

const reading = z.object({
  oxygen: z.number().nullable(),
  flammable: z.number().nullable(),
  toxics: z.array(z.object({ gas: z.string(), fraction: z.number().nullable() })),
});
const post = z.enum(POSTS);
const words = z.string();

/** A line of a permit's log as it is kept. */
export const logEntrySchema: z.ZodType<LogEntry> = z.discriminatedUnion("type", [
  entry("sent back", { words }),
  entry("changed", { what: z.array(z.string()).readonly() }),
  entry("signed", { act: z.enum(SIGNED), words: words.optional() }),
  entry("ran out", {}),
  entry("extended", { from_ms: z.number(), to_ms: z.number(), words, asked: z.array(personIdSchema).readonly() }),
  entry("roll called", { seen: z.array(personIdSchema).readonly(), missing: z.array(personIdSchema).readonly() }),
  entry("left to do", { words }),
  entry("stopped", { cause: z.enum(STOP_CAUSES), reason: z.string(), evacuate: z.boolean() }),
  entry("ticked", { ask: z.string(), words }),
  entry("clash decided", {
    clash: z.string(),
    words,
    decision: z.enum(["go on", "wait"]),
    reason: z.string(),
  }),
  entry("sample begun", {
    point: z.string(),
    instrument: z.string(),
    sensor: z.enum(SENSORS),
    wait_s: z.number(),
  }),
  entry("air", {
    point: z.string(),
    instrument: z.string(),
    reading,
    against: z.array(z.string()),
    drawn_ms: z.number().optional(),
    explain: z.array(z.string()).optional(),
    typed_ms: z.number().optional(),
    typedBy: personIdSchema.optional(),
  }),
  entry("air noted", {
    point: z.string(),
    instrument: z.string(),
    reading,
    drawn_ms: z.number(),
    read_ms: z.number(),
    reader: personIdSchema,
  }),
  entry("fire reported", { where: z.string(), what: z.string(), out: z.string() }),
  entry("would not sign", { who: z.string(), what: z.string(), words }),
  entry("audited", { found: z.record(z.enum(AUDIT_LOOKS), z.enum(AUDIT_FINDINGS)), words }),
  entry("cause found", { point: z.string(), cause: z.enum(BAD_AIR_CAUSES), words }),
  entry("explained", { point: z.string(), cause: z.enum(ODD_AIR_CAUSES), words }),
  entry("reading replaced", { gas: z.string(), words }),
  entry("ventilation begun", {}),
  entry("ventilation ended", {}),
  entry("flushed", { point: z.string(), held_s: z.number() }),
  entry("purge begun", { need_s: z.number() }),
  entry("purge ended", {}),
  entry("purge broken", {}),
  entry("post taken", { post, person: personIdSchema }),
  entry("post left", { post, person: personIdSchema, to: personIdSchema.nullable() }),
  entry("break begun", {}),
  entry("break ended", {}),
  entry("went in", { person: personIdSchema }),
  entry("came out", { person: personIdSchema }),
  entry("talked", {}),
  entry("watch check", { due_ms: z.number(), words }),
  entry("control room told", { who: z.string() }),
  entry("final check", { words }),
  entry("copy hung", { copy: z.number(), where: z.string(), second: z.boolean() }),
  entry("copy returned", { copy: z.number() }),
  entry("put in", { thing: z.number(), what: z.string(), where: z.string() }),
  entry("taken out", { thing: z.number() }),
  entry("safeguard back", { words }),
  entry("clock set", { back_s: z.number(), words }),
]);
