"use client";

import { ActForm } from "../act/ActForm";
import { TextField } from "../act/Field";
import { WhenField } from "../act/WhenField";
import { instantOf } from "../text/siteInstant";

type Props = Readonly<{
  job: string;
  objective: string;
  school: string;
  ways: readonly string[];
  measures: readonly { id: string; words: string }[];
  /** The end of the job's window, as a field holds it. */
  until: string;
}>;

/** An approver reads every way, ticks what is done instead, and signs. */
export function AcceptDeviation({ job, objective, school, ways, measures, until }: Props) {
  return (
    <div className="mt-4 max-w-3xl">
      <h3 className="mb-2 font-semibold">Accept, with what is done instead</h3>
      <ActForm
        act="deviation.accept"
        label="Accept deviations"
        fixed={{ job, objective, school }}
        toInput={(fields) => ({
          ways: fields.getAll("way").map(String),
          measures: fields.getAll("measure").map(String),
          reason: String(fields.get("reason") ?? ""),
          until_ms: instantOf(String(fields.get("until_ms") ?? "")) ?? undefined,
        })}
        pin
        button="Accept these deviations"
      >
        <fieldset data-field="ways">
          <legend className="mb-1 text-sm font-semibold">Ways, each read and accepted</legend>
          <div className="grid gap-x-6 gap-y-1 sm:grid-cols-2">
            {ways.map((way) => (
              <label key={way} className="flex min-h-11 items-center gap-3">
                <input type="checkbox" name="way" value={way} className="checkbox" />
                <span className="tag whitespace-normal">{way}</span>
              </label>
            ))}
          </div>
        </fieldset>
        <fieldset data-field="measures">
          <legend className="mb-1 text-sm font-semibold">What is done instead</legend>
          {measures.map((measure) => (
            <label key={measure.id} className="flex min-h-11 items-center gap-3">
              <input type="checkbox" name="measure" value={measure.id} className="checkbox" />
              {measure.words}
            </label>
          ))}
        </fieldset>
        <label className="flex flex-col gap-1 text-sm font-semibold">
          Why this is acceptable
          <textarea name="reason" rows={2} maxLength={500} className="textarea w-full font-normal" />
        </label>
        <WhenField
          label="Accepted until"
          name="until_ms"

          defaultValue={until}
          className="sm:w-72"
          hint="Then permits stop until an approver has looked again."
        />
      </ActForm>
    </div>
  );
}

/** What was accepted is looked at again, and accepted for longer. */
export function RenewDeviations({ job, until }: Readonly<{ job: string; until: string }>) {
  return (
    <details className="mt-4 max-w-3xl">
      <summary className="link w-fit cursor-pointer">Accept for longer</summary>
      <div className="mt-3">
        <ActForm
          act="deviation.renew"
          label="Accept for longer"
          fixed={{ job }}
          toInput={(fields) => ({
            until_ms: instantOf(String(fields.get("until_ms") ?? "")),
            reason: String(fields.get("reason") ?? ""),
          })}
          pin
          button="Accept for longer"
        >
          <WhenField label="Until" name="until_ms" defaultValue={until} className="sm:w-72" />
          <TextField label="Why this is acceptable still" name="reason" rows={2} maxLength={500} />
        </ActForm>
      </div>
    </details>
  );
}
