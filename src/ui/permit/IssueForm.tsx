"use client";

import { ActForm } from "../act/ActForm";
import { TextField } from "../act/Field";

/** Issued on the spot; its copies are known by where they hang. */
export function IssueForm({ permit }: { permit: string }) {
  return (
    <ActForm
      act="permit.issue"
      label="Issue"
      fixed={{ permit }}
      toInput={(fields) => ({ copies: copiesIn(fields) })}
      pin
      button="Issue the permit"
      tone="strong"
    >
      <TextField
        label="Where its copies hang, one a line"
        name="copies"
        rows={2}
        hint="Each is brought back before it is closed."
      />
    </ActForm>
  );
}

/** Where copies hang, a line each. */
export function copiesIn(fields: FormData): string[] {
  return String(fields.get("copies") ?? "")
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);
}
