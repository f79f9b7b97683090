"use client";

import { EMPTIED_HOW, type WalkStep } from "../../core/isolation/isolation";
import { WATCHED } from "../../core/isolation/held";
import { ActForm } from "../act/ActForm";
import { SelectField } from "../act/Field";

type Props = Readonly<{
  isolation: string;
  step: WalkStep;
  label: string;
  /** Who may be asked to watch. */
  people: readonly Readonly<{ id: string; name: string }>[];
}>;

const HOW_WORDS = { drained: "It drains", pumped: "It is pumped out" } as const;

/** What a step runs for a time with is turned on: from then on its time counts. */
export function BeginForm({ isolation, step, label, people }: Props) {
  const isWatched = WATCHED.has(step.kind);
  const form = (
    <ActForm
      act="step.begin"
      label={`begin: ${label}`}
      fixed={{ isolation, step: step.id }}
      pin
      compact
      button={step.begun ? "It runs anew" : "It runs"}
      tone={step.begun ? undefined : "strong"}
    >
      {isWatched && (
        <>
          <SelectField label="Who watches it" name="watcher" defaultValue={step.begun?.watcher ?? ""} required>
            <option value="" disabled>
              Choose somebody
            </option>
            {people.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </SelectField>
          <SelectField label="How it leaves" name="how" defaultValue={step.begun?.how ?? ""} required>
            <option value="" disabled>
              Choose one
            </option>
            {EMPTIED_HOW.map((how) => (
              <option key={how} value={how}>
                {HOW_WORDS[how]}
              </option>
            ))}
          </SelectField>
        </>
      )}
    </ActForm>
  );
  if (!step.begun) return <div className="mt-3">{form}</div>;
  return (
    <div className="mt-2 flex flex-col gap-1">
      {isWatched && (
        <details>
          <summary className="link w-fit cursor-pointer">Whoever watches is called away: it is shut</summary>
          <ActForm
            act="step.stop"
            label={`stop: ${label}`}
            fixed={{ isolation, step: step.id }}
            pin
            compact
            button="It is shut"
          >
            <label className="flex flex-col gap-1 text-sm">
              <span>Why</span>
              <input name="words" className="input w-72 max-w-full" maxLength={500} required />
            </label>
          </ActForm>
        </details>
      )}
      <details>
        <summary className="link w-fit cursor-pointer">
          {isWatched ? "Somebody else watches now: begin anew" : "It stopped meanwhile: begin anew"}
        </summary>
        {form}
      </details>
    </div>
  );
}
