"use client";

import { readNumber } from "../../core/units/readNumber";
import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";

/** One line of a count. What is no number is sent as it is, to be refused by name. */
export function CountForm({ things }: { things: readonly string[] }) {
  return (
    <ActForm act="store.count" label="Count" button="Write the count" toInput={readCount} compact>
      <datalist id="things">
        {things.map((thing) => (
          <option key={thing} value={thing} />
        ))}
      </datalist>
      <Field label="Thing" name="thing" list="things" autoComplete="off" maxLength={80} className="min-w-72" />
      <Field label="Size, where it has one" name="size" autoComplete="off" maxLength={80} />
      <Field label="Count" name="count" inputMode="numeric" autoComplete="off" className="num max-w-28" />
    </ActForm>
  );
}

function readCount(fields: FormData): Record<string, unknown> {
  const typed = String(fields.get("count") ?? "");
  const read = readNumber(typed);
  const count = read.ok ? read.value : typed;
  return { lines: [{ thing: fields.get("thing"), size: fields.get("size"), count }] };
}
