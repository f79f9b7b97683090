"use client";

import { STUCK_WHYS } from "../../core/isolation/isolation";
import { ActForm } from "../act/ActForm";
import { Small } from "./EvidenceFields";

type Props = Readonly<{ isolation: string; step: string; label: string }>;

/** A step that cannot be done as planned opens a new plan; it is never skipped. */
export function CannotForm({
  isolation,
  step,
  label,
  keep,
}: Props & { keep: Readonly<{ personId: string; personName: string; page: string }> | null }) {
  return (
    <details className="mt-2">
      <summary className="cursor-pointer py-2 text-sm">Cannot be done as planned</summary>
      <div className="mt-2">
        <ActForm
          act="step.cannot"
          label={`cannot: ${label}`}
          fixed={{ isolation, step }}
          pin
          compact
          button="Plan again"
          keep={keep ?? undefined}
        >
          <label className="flex flex-col gap-1 text-sm">
            <span>What is wrong</span>
            <select name="why" className="select w-48" defaultValue="">
              <option value="">choose</option>
              {STUCK_WHYS.map((why) => (
                <option key={why}>{why}</option>
              ))}
            </select>
          </label>
          <Small label="What you found" name="words" maxLength={500} className="w-72 max-w-full" />
        </ActForm>
      </div>
    </details>
  );
}

export function FreeForm({ isolation, step, label }: Props) {
  return (
    <details className="mt-2">
      <summary className="cursor-pointer py-2 text-sm">It can be done after all</summary>
      <div className="mt-2">
        <ActForm act="step.can" label={`can: ${label}`} fixed={{ isolation, step }} pin compact button="Free the step">
          <Small label="What changed" name="words" maxLength={500} className="w-72 max-w-full" />
        </ActForm>
      </div>
    </details>
  );
}
