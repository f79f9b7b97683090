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

/** The same for JSON that a query took out of such a column. */
export function parsed<Schema extends z.ZodType>(name: string, schema: Schema, text: string): z.output<Schema> {
  const read = schema.safeParse(JSON.parse(text));
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new Error(`${name} holds what it cannot: ${issue?.path.map(String).join(".")} ${issue?.message}`);
}
