"use client";

import { useState } from "react";
import { ActForm } from "../act/ActForm";
import { Field, TextField } from "../act/Field";

const HOUR_MS = 3_600_000;

type Props = Readonly<{
  job: string;
  words: string;
  /** The job's holder, who leads unless another is named. */
  holder: string;
  leads: readonly Readonly<{ id: string; name: string }>[];
}>;

export function PermitDraftForm({ job, words, holder, leads }: Props) {
  const [times] = useState(() => {
    const now = Date.now();
    return { from: local(now), to: local(now + 8 * HOUR_MS) };
  });
  return (
    <ActForm
      act="permit.draft"
      label="Write a permit"
      button="Write the permit"
      tone="strong"
      then="/permits/{permit}"
      fixed={{ job }}
      toInput={readDraft}
    >
      <label className="flex flex-col gap-1">
        <span className="text-sm font-medium">Holder, who leads this crew</span>
        <select name="holder" className="select w-full sm:w-72" defaultValue={holder}>
          {leads.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <TextField label="What may be done, and nothing else" name="words" rows={2} defaultValue={words} />
      <TextField label="Hazards that remain" name="hazards" rows={2} />
      <TextField label="Precautions" name="precautions" rows={2} />
      <div className="grid max-w-xl gap-4 sm:grid-cols-2" suppressHydrationWarning>
        <Field
          label="Valid from"
          name="validFrom_ms"
          type="datetime-local"
          defaultValue={times.from}
          suppressHydrationWarning
        />
        <Field
          label="Valid until"
          name="validTo_ms"
          type="datetime-local"
          defaultValue={times.to}
          hint="At most 12 hours."
          suppressHydrationWarning
        />
      </div>
    </ActForm>
  );
}

function readDraft(fields: FormData): Record<string, unknown> {
  const time = (name: string) => {
    const value = String(fields.get(name) ?? "");
    return value === "" ? null : new Date(value).getTime();
  };
  return {
    words: fields.get("words"),
    hazards: fields.get("hazards"),
    precautions: fields.get("precautions"),
    holder: fields.get("holder"),
    validFrom_ms: time("validFrom_ms"),
    validTo_ms: time("validTo_ms"),
  };
}

/** The form of a datetime-local field, in the browser's own time. */
function local(at_ms: number): string {
  const at = new Date(at_ms);
  return new Date(at_ms - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}
