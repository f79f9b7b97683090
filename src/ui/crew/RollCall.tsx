"use client";

import type { CrewAtBox } from "./crewAtBox";
import { ActForm } from "../act/ActForm";
import { Tick } from "../act/Field";

/** Everybody who is there by the record, called by name; who answers is ticked, one by one. */
export function RollCall({
  view,
  round,
  onDone,
}: {
  view: Pick<CrewAtBox, "number" | "roll">;
  round: string;
  onDone: (words: string) => void;
}) {
  return (
    <div className="space-y-3">
      <h2 className="text-xl font-semibold">Roll-call</h2>
      {view.roll.length === 0 ? (
        <p>Nobody is on, on duty or inside.</p>
      ) : (
        <ActForm
          act="permit.call-roll"
          label="Call the roll"
          fixed={{ permit: view.number, crew: round }}
          listFields={["seen"]}
          pin
          button="Those ticked answered"
          tone="strong"
          onDone={() => onDone("The roll was called.")}
        >
          <p>Call each by name, and tick who answers. Who does not is looked for.</p>
          <div data-field="seen" className="grid gap-x-6 sm:grid-cols-2 xl:grid-cols-3">
            {view.roll.map(({ id, name }) => (
              <Tick key={id} name="seen" value={id} label={name} />
            ))}
          </div>
        </ActForm>
      )}
    </div>
  );
}
