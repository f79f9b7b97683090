"use client";

import { ActForm } from "../act/ActForm";

type Props = Readonly<{
  job: string;
  objective: string;
  school: string;
  ways: readonly string[];
  measures: readonly { id: string; words: string }[];
}>;

/** An approver reads every way, ticks what is done instead, and signs. */
export function AcceptDeviation({ job, objective, school, ways, measures }: Props) {
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
      </ActForm>
    </div>
  );
}
