import type { Fields, NumberField } from "../../core/calc/fields";
import { readNumber } from "../../core/units/readNumber";
import { fromSi, toSi, unitOf, type UnitSystem } from "../../core/units/units";

/** Digits kept when an SI figure is written in a person's unit: enough to come back the same. */
const DIGITS = 10;

/** What stands in a field for a word of the address: SI in the person's unit, or the word itself where it is no number. */
export function typedFrom(word: string, field: NumberField, units: UnitSystem): string {
  const read = readNumber(word);
  if (!read.ok) return word;
  return String(Number(fromSi(read.value, unitOf(field.quantity, units)).toPrecision(DIGITS)));
}

/** The word of the address for what somebody typed; what is no number goes as it is, to be refused by name. */
export function wordFrom(typed: string, field: NumberField, units: UnitSystem): string {
  const read = readNumber(typed);
  if (!read.ok) return typed;
  return String(Number(toSi(read.value, unitOf(field.quantity, units)).toPrecision(DIGITS + 2)));
}

export type Typed = Readonly<Record<string, string | readonly (readonly string[])[]>>;

/** The address for everything typed, in the order of the fields; empty fields are left empty, so that they are missed. */
export function addressOfTyped(fields: Fields, typed: Typed, units: UnitSystem): URLSearchParams {
  const words = new URLSearchParams();
  for (const [key, field] of Object.entries(fields)) {
    const value = typed[key];
    if (field.type === "rows") {
      const columns = Object.values(field.columns);
      for (const row of (value ?? []) as readonly (readonly string[])[]) {
        words.append(key, columns.map((column, i) => wordFrom(row[i] ?? "", column, units)).join(":"));
      }
    } else if (field.type === "choice") words.set(key, String(value ?? field.default));
    else words.set(key, wordFrom(String(value ?? ""), field, units));
  }
  return words;
}
