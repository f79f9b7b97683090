"use client";

import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";

export type Open = Readonly<{ id: string; words: string; source: string }>;

/** What somebody has to look at: a round over the place, ticked as one goes, signed once. */
export function TickForm({ permit, open }: { permit: string; open: readonly Open[] }) {
  return (
    <ActForm
      act="permit.tick"
      label="Looked at"
      fixed={{ permit }}
      listFields={["asks"]}
      pin
      button="Sign what I have looked at"
      tone="strong"
    >
      <LookedAt open={open} />
      <Field label="Remark" name="words" autoComplete="off" />
    </ActForm>
  );
}

/** Each thing to look at, with who asks for it. */
export function LookedAt({ open }: { open: readonly Open[] }) {
  return (
    <ul className="space-y-1">
      {open.map(({ id, words, source }) => (
        <li key={id}>
          <label className="hover:bg-base-200 flex items-start gap-3 py-1.5">
            <input type="checkbox" name="asks" value={id} className="checkbox mt-0.5 shrink-0" />
            <span>
              {words}
              {source !== "practice" && <span className="block text-sm opacity-80">{source}</span>}
            </span>
          </label>
        </li>
      ))}
    </ul>
  );
}
