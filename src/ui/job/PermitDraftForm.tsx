"use client";

import type { PermitKind } from "../../core/permit/kinds/kinds";
import type { UnitSystem } from "../../core/units/units";
import { instantOf, siteField } from "../text/siteInstant";
import { ActForm } from "../act/ActForm";
import { SelectField, TextField } from "../act/Field";
import { WhenField } from "../act/WhenField";
import { DetailInputs } from "../permit/DetailInputs";
import { DETAIL_FIELDS, readDetails } from "../permit/detailFields";

type Props = Readonly<{
  job: string;
  kind: PermitKind;
  longest_h: number;
  words: string;
  hazards: string;
  precautions: string;
  /** The job's holder, who leads unless another is named. */
  holder: string;
  leads: readonly Readonly<{ id: string; name: string }>[];
  people: readonly Readonly<{ id: string; name: string }>[];
  /** What the register and the job know of the kind's own questions. */
  defaults: Readonly<Record<string, string | readonly string[]>>;
  units: UnitSystem;
  from_ms: number;
  to_ms: number;
  timeZone: string;
  /** A draft that is changed; a new one is written where there is none. */
  change?: Readonly<{ permit: string }>;
}>;

export function PermitDraftForm({
  job,
  kind,
  longest_h,
  words,
  hazards,
  precautions,
  holder,
  leads,
  people,
  defaults,
  units,
  from_ms,
  to_ms,
  timeZone,
  change,
}: Props) {
  const times = { from: siteField(from_ms, timeZone), to: siteField(to_ms, timeZone) };
  const write = kind === "general" ? "Write a permit" : `Write a permit for ${kind}`;
  return (
    <ActForm
      act={change ? "permit.change" : "permit.draft"}
      label={change ? `Change ${change.permit}` : write}
      button={change ? "Change the draft" : "Write the permit"}
      tone="strong"
      then="/permits/{permit}"
      fixed={change ? { permit: change.permit } : { job }}
      toInput={(fields) => ({ ...readDraft(fields), details: readDetails(kind, fields, units) })}
    >
      <SelectField label="Holder, who leads this crew" name="holder" className="sm:w-72" defaultValue={holder}>
        {leads.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </SelectField>
      <TextField label="What may be done, and nothing else" name="words" rows={2} defaultValue={words} />
      <TextField label="Hazards that remain" name="hazards" rows={3} defaultValue={hazards} />
      <TextField label="Precautions" name="precautions" rows={3} defaultValue={precautions} />
      <div className="grid max-w-xl gap-4 sm:grid-cols-2">
        <WhenField label="Valid from" name="validFrom_ms" defaultValue={times.from} />
        <WhenField
          label="Valid until"
          name="validTo_ms"

          defaultValue={times.to}
          hint={`At most ${longest_h} hours.`}
        />
      </div>
      <DetailInputs fields={DETAIL_FIELDS[kind]} defaults={defaults} people={people} units={units} />
    </ActForm>
  );
}

/** What every draft says. */
export function readDraft(fields: FormData): Record<string, unknown> {
  const time = (name: string) => instantOf(String(fields.get(name) ?? ""));
  return {
    words: fields.get("words"),
    hazards: fields.get("hazards"),
    precautions: fields.get("precautions"),
    holder: fields.get("holder"),
    validFrom_ms: time("validFrom_ms"),
    validTo_ms: time("validTo_ms"),
  };
}
