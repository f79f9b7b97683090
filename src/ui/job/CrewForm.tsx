"use client";

import { ActForm } from "../act/ActForm";

/** The next shift, somebody instead of another. */
export function CrewForm({
  job,
  crew,
  people,
}: {
  job: string;
  crew: readonly string[];
  people: readonly Readonly<{ id: string; name: string }>[];
}) {
  return (
    <details className="mt-2">
      <summary className="min-h-11 cursor-pointer content-center">Change the crew</summary>
      <ActForm act="job.crew" label="Change the crew" fixed={{ job }} listFields={["crew"]} button="This is the crew">
        <fieldset data-field="crew" className="columns-1 sm:columns-2">
          <legend className="sr-only">People of the crew</legend>
          {people.map((one) => (
            <label key={one.id} className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                name="crew"
                value={one.id}
                defaultChecked={crew.includes(one.id)}
                className="checkbox"
              />
              {one.name}
            </label>
          ))}
        </fieldset>
      </ActForm>
    </details>
  );
}
