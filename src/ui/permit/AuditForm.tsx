"use client";

import { ActForm } from "../act/ActForm";
import { SelectField, TextField } from "../act/Field";

type Props = Readonly<{ permit: string; looks: readonly string[]; findings: readonly string[] }>;

/** A round of looks on the spot, each with its finding; none is chosen beforehand. */
export function AuditForm({ permit, looks, findings }: Props) {
  return (
    <ActForm
      act="permit.audit"
      label="Audit on the spot"
      toInput={(fields) => ({
        permit,
        found: Object.fromEntries(looks.map((look) => [look, fields.get(`found.${look}`)])),
        words: fields.get("words"),
      })}
      pin
      button="Sign the audit"
      tone="strong"
    >
      {looks.map((look) => (
        <SelectField
          key={look}
          label={look.charAt(0).toUpperCase() + look.slice(1)}
          name={`found.${look}`}
          defaultValue=""
        >
          <option value="">choose</option>
          {findings.map((finding) => (
            <option key={finding} value={finding}>
              {finding}
            </option>
          ))}
        </SelectField>
      ))}
      <TextField label="What you found" name="words" rows={2} />
    </ActForm>
  );
}
