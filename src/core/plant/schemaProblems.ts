import type { z } from "zod";
import type { Problem } from "./problem";

/**
 * A schema's issues as problems that name tag and field. `raw` is the file as read, from which the tag of the item at
 * fault is taken.
 */
export function schemaProblems(error: z.ZodError, raw: unknown, file: string): Problem[] {
  return error.issues.map((issue) => {
    const [list, index, ...path] = issue.path;
    // The field that nobody knows is named, not only where it stands.
    const rest = issue.code === "unrecognized_keys" ? [...path, ...issue.keys.slice(0, 1)] : path;
    if ((list === "items" || list === "links") && typeof index === "number") {
      return {
        file,
        tag: nameOf(raw, list, index),
        field: rest.map(String).join(".") || undefined,
        message: issue.message,
      };
    }
    return { file, field: issue.path.map(String).join(".") || undefined, message: issue.message };
  });
}

function nameOf(raw: unknown, list: "items" | "links", index: number): string {
  const entry: unknown = (raw as Record<string, unknown[] | undefined>)[list]?.[index];
  const field = (name: string) => {
    const value = typeof entry === "object" && entry !== null ? (entry as Record<string, unknown>)[name] : undefined;
    return typeof value === "string" && value !== "" ? value : undefined;
  };
  if (list === "items") return field("tag") ?? `item ${index + 1}`;
  return `link ${index + 1} (${field("from") ?? "?"} to ${field("to") ?? "?"})`;
}
