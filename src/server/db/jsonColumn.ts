import { LRUCache } from "lru-cache";
import { customType } from "drizzle-orm/sqlite-core";
import type { z } from "zod";

/**
 * A column of JSON, parsed by its schema on the way out: a row that an earlier version, a mistake or a hand has spoilt is
 * found where it is read, by the name of its column, and not somewhere later by what it does.
 */
export function json<Schema extends z.ZodType>(name: string, schema: Schema) {
  return customType<{ data: z.output<Schema>; driverData: string }>({
    dataType: () => "text",
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (text) => parsed(name, schema, text),
  })(name);
}

/** Characters of text whose values are kept, and the longest of one: the rows of a board of some hundred jobs. */
const KEPT = 1_000_000;
const KEPT_OF_ONE = 60_000;

/** What each text was found to hold, by the schema that it was read with. */
const known = new LRUCache<string, Map<z.ZodType, unknown>>({
  maxSize: KEPT,
  maxEntrySize: KEPT_OF_ONE,
  sizeCalculation: (_, text) => text.length + 1,
});

/**
 * The same for JSON that a query took out of such a column. The same text holds the same, so it is parsed once; and since one
 * value goes to many readers it is frozen through and through.
 */
export function parsed<Schema extends z.ZodType>(name: string, schema: Schema, text: string): z.output<Schema> {
  const before = known.get(text);
  if (before?.has(schema)) return before.get(schema) as z.output<Schema>;
  const read = schema.safeParse(JSON.parse(text));
  if (read.success) {
    const value = frozen(read.data);
    if (before) before.set(schema, value);
    else known.set(text, new Map([[schema, value]]));
    return value;
  }
  const [issue] = read.error.issues;
  throw new Error(`${name} holds what it cannot: ${issue?.path.map(String).join(".")} ${issue?.message}`);
}

function frozen<T>(value: T): T {
  if (typeof value === "object" && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    for (const part of Object.values(value)) frozen(part);
  }
  return value;
}
