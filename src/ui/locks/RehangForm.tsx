"use client";

import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";

/** Another lock where the one on record was not found. */
export function RehangForm({ isolation, point }: Readonly<{ isolation: string; point: string }>) {
  return (
    <ActForm
      act="isolation.rehang"
      label={`Hang another lock on ${point}`}
      fixed={{ isolation, point }}
      pin
      button="It hangs there"
      compact
    >
      <Field label={`Lock hung on ${point}`} name="lock" autoComplete="off" className="num max-w-44" />
    </ActForm>
  );
}
