import type { Plant } from "./plant";

/** One field that is another: by its name in the register, as it was and as it will be; "" where it is not said. */
export type FieldChange = Readonly<{ field: string; before: string; after: string }>;
export type RowChange = Readonly<{ name: string; fields: readonly FieldChange[] }>;

export type ListChange = Readonly<{
  added: readonly string[];
  removed: readonly string[];
  changed: readonly RowChange[];
}>;

/** What one register says that another does not. */
export type RegisterChange = Readonly<{ items: ListChange; links: ListChange; areas: ListChange; kinds: ListChange }>;

type Row = Readonly<Record<string, unknown>>;

/**
 * Every row that a register adds, takes away or has otherwise than the one before it, and in which fields. Rows are known by their
 * tag, their name, or for a link by its two ends and what it carries; where several links share these they are compared in their order.
 *
 * Cost: linear in both registers.
 */
export function changeBetween(before: Plant, after: Plant): RegisterChange {
  const linkName = (link: Row) => `${String(link.from)} to ${String(link.to)} (${String(link.carries)})`;
  return {
    items: changeOf(before.items, after.items, ({ tag }) => String(tag)),
    links: changeOf(before.links, after.links, linkName),
    areas: changeOf(before.areas, after.areas, ({ name }) => String(name)),
    kinds: changeOf(before.kinds, after.kinds, ({ kind }) => String(kind)),
  };
}

/** Nothing is otherwise. */
export function isSame({ items, links, areas, kinds }: RegisterChange): boolean {
  return [items, links, areas, kinds].every(
    ({ added, removed, changed }) => added.length + removed.length + changed.length === 0,
  );
}

function changeOf(before: readonly Row[], after: readonly Row[], nameOf: (row: Row) => string): ListChange {
  const was = named(before, nameOf);
  const is = named(after, nameOf);
  const changed: RowChange[] = [];
  for (const [key, { name, row }] of is) {
    const old = was.get(key);
    if (old === undefined) continue;
    const fields = fieldsBetween(flat(old.row), flat(row));
    if (fields.length > 0) changed.push({ name, fields });
  }
  const only = (some: ReturnType<typeof named>, others: ReturnType<typeof named>) =>
    [...some].filter(([key]) => !others.has(key)).map(([, { name }]) => name);
  return { added: only(is, was), removed: only(was, is), changed };
}

/** Rows by name, the second of a name by its number as well. */
function named(rows: readonly Row[], nameOf: (row: Row) => string): Map<string, { name: string; row: Row }> {
  const found = new Map<string, { name: string; row: Row }>();
  const times = new Map<string, number>();
  for (const row of rows) {
    const name = nameOf(row);
    const time = (times.get(name) ?? 0) + 1;
    times.set(name, time);
    found.set(`${name}\u0000${time}`, { name, row });
  }
  return found;
}

/** A row's fields, those of what lies in it by their path; a list is one value. What is empty is not said. */
function flat(row: Row, path = ""): Map<string, string> {
  const found = new Map<string, string>();
  for (const [key, value] of Object.entries(row)) {
    const field = path === "" ? key : `${path}.${key}`;
    if (value === undefined || value === null || value === "") continue;
    if (Array.isArray(value)) {
      if (value.length > 0) found.set(field, value.map(said).join("; "));
    } else if (typeof value === "object") {
      for (const [inner, text] of flat(value as Row, field)) found.set(inner, text);
    } else found.set(field, said(value));
  }
  return found;
}

function said(value: unknown): string {
  if (typeof value === "string") return value;
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value !== "object" || value === null) return String(value);
  // A row within a list: its fields, in whichever order they were written.
  return Array.isArray(value)
    ? value.map(said).join(" ")
    : [...flat(value as Row)]
        .map(([field, text]) => `${field}=${text}`)
        .sort()
        .join(" ");
}

function fieldsBetween(before: ReadonlyMap<string, string>, after: ReadonlyMap<string, string>): FieldChange[] {
  return [...new Set([...before.keys(), ...after.keys()])]
    .map((field) => ({ field, before: before.get(field) ?? "", after: after.get(field) ?? "" }))
    .filter((one) => one.before !== one.after);
}
