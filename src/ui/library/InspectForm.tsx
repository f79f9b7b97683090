"use client";

import { ActForm } from "../act/ActForm";
import { TextField } from "../act/Field";
import { FaultLine } from "../act/FaultLine";
import { useFault } from "../act/faults";

type Props = Readonly<{
  procedure: string;
  version: number;
  /** Who may be watched at it. */
  people: readonly Readonly<{ id: string; name: string }>[];
}>;

/** The yearly look: who was watched at it, what was found, and whether it is right. Nothing of it is answered beforehand. */
export function InspectForm({ procedure, version, people }: Props) {
  return (
    <ActForm
      act="procedure.inspect"
      label="Inspect the procedure"
      toInput={(fields) => ({
        procedure,
        version,
        watched: fields.getAll("watched"),
        found: fields.get("found"),
        ...(fields.get("sound") === null ? {} : { sound: fields.get("sound") === "yes" }),
      })}
      pin
      button="Sign the inspection"
    >
      <fieldset>
        <legend className="mb-1 text-sm font-medium">Who was watched at it</legend>
        <div className="flex flex-wrap gap-x-5">
          {people.map(({ id, name }) => (
            <label key={id} className="flex min-h-11 items-center gap-2">
              <input type="checkbox" name="watched" value={id} className="checkbox" />
              {name}
            </label>
          ))}
        </div>
      </fieldset>
      <TextField label="What was found" name="found" rows={2} />
      <Sound />
    </ActForm>
  );
}

function Sound() {
  const fault = useFault("sound");
  return (
    <fieldset aria-describedby={fault?.id} data-field="sound">
      <legend className="mb-1 text-sm font-medium">Was it followed, and is it right?</legend>
      <div className="flex flex-wrap gap-x-5">
        <label className="flex min-h-11 items-center gap-2">
          <input type="radio" name="sound" value="yes" className="radio" /> Yes
        </label>
        <label className="flex min-h-11 items-center gap-2">
          <input type="radio" name="sound" value="no" className="radio" /> No: nobody uses it until there is a new
          version
        </label>
      </div>
      <FaultLine fault={fault} />
    </fieldset>
  );
}
