"use client";

import { useState } from "react";
import { TextField } from "../act/Field";
import { FaultLine } from "../act/FaultLine";
import { useFault } from "../act/faults";

/** Whether all of the work is done, answered by nobody beforehand; and what is left where it is not. */
export function WorkEnd() {
  const fault = useFault("work");
  const [isPart, setPart] = useState(false);
  return (
    <>
      <fieldset aria-describedby={fault?.id} data-field="work">
        <legend className="mb-1 text-sm font-medium">Is all of the work done?</legend>
        <div className="flex flex-wrap gap-x-5">
          <label className="flex min-h-11 items-center gap-2">
            <input type="radio" name="work" value="done" className="radio" onChange={() => setPart(false)} /> All of it,
            guards are back
          </label>
          <label className="flex min-h-11 items-center gap-2">
            <input type="radio" name="work" value="part" className="radio" onChange={() => setPart(true)} /> Part of it:
            some is left to do
          </label>
        </div>
        <FaultLine fault={fault} />
      </fieldset>
      {isPart && (
        <TextField
          label="What is left to do, and how it was left"
          name="left"
          rows={2}
          hint="The points stay locked until a permit for it is handed back, or somebody says how it was made safe."
        />
      )}
    </>
  );
}

/** What the two fields say, as the act takes it: no answer is no answer. */
export function workEndOf(fields: FormData): Readonly<{ work: string; left: string }> {
  const work = String(fields.get("work") ?? "");
  return { work, left: work === "part" ? String(fields.get("left") ?? "") : "" };
}
