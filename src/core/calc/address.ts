import { readNumber } from "../units/readNumber";
import type { Field, Fields, NumberField } from "./fields";

/** The inputs of a calculator as they stand in an address: SI figures, one word each; rows as `a:b`, one for each row. */
export type Address = Readonly<Record<string, string | readonly string[] | undefined>>;

export type FromAddress = Readonly<
  { ok: true; raw: Readonly<Record<string, unknown>> } | { ok: false; key: string; message: string }
>;

const all = (value: string | readonly string[] | undefined): readonly string[] =>
  value === undefined ? [] : typeof value === "string" ? [value] : value;

/** What a calculator is asked by an address; the examples where the address says nothing at all. */
export function inputsFromAddress(fields: Fields, address: Address): FromAddress {
  const given = Object.keys(fields).some((key) => address[key] !== undefined);
  if (!given) return { ok: true, raw: exampleOf(fields) };
  const raw: Record<string, unknown> = {};
  for (const [key, field] of Object.entries(fields)) {
    const words = all(address[key]);
    if (field.type === "rows") {
      const rows = words.filter((word) => word !== "").map((word) => rowFrom(field.columns, word));
      const bad = rows.find((row) => typeof row === "string");
      if (bad !== undefined) return { ok: false, key, message: bad as string };
      raw[key] = rows;
      continue;
    }
    const [word = ""] = words;
    if (word.trim() === "") continue;
    if (field.type === "choice") raw[key] = word;
    else {
      const read = readNumber(word);
      if (!read.ok) return { ok: false, key, message: read.message };
      raw[key] = read.value;
    }
  }
  return { ok: true, raw };
}

function rowFrom(columns: Readonly<Record<string, NumberField>>, word: string): Record<string, number> | string {
  const parts = word.split(":");
  const keys = Object.keys(columns);
  if (parts.length !== keys.length) return `has a row with ${parts.length} figures: it needs ${keys.length}`;
  const row: Record<string, number> = {};
  for (const [i, key] of keys.entries()) {
    const read = readNumber(parts[i]!);
    if (!read.ok) return `${columns[key]!.words.toLowerCase()} ${read.message}`;
    row[key] = read.value;
  }
  return row;
}

/** The example that a calculator opens with. */
export function exampleOf(fields: Fields): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(fields).flatMap(([key, field]) =>
      field.type === "choice" || field.example === undefined ? [] : [[key, field.example]],
    ),
  );
}

/** The address that asks with these inputs. Unknown keys are left out. */
export function addressOf(fields: Fields, inputs: Readonly<Record<string, unknown>>): string {
  const words = new URLSearchParams();
  for (const [key, field] of Object.entries(fields))
    for (const word of wordsOf(field, inputs[key])) words.append(key, word);
  return words.toString();
}

function wordsOf(field: Field, value: unknown): string[] {
  if (value === undefined || value === null) return [];
  if (field.type !== "rows") return [String(value)];
  return (value as readonly Readonly<Record<string, number>>[]).map((row) =>
    Object.keys(field.columns)
      .map((key) => String(row[key]))
      .join(":"),
  );
}
