"use client";

import type { Hazard, Owner } from "../../core/hazard/jobHazards";
import { ActForm, type Round } from "../act/ActForm";
import { Field, SelectField, TextField } from "../act/Field";
import { FaultLine } from "../act/FaultLine";
import { useFault } from "../act/faults";
import { ConditionFields, conditionsIn } from "./ConditionFields";

export type HazardsToDecide = Readonly<{
  job: string;
  /** What nobody has decided yet. */
  open: readonly Hazard[];
  owners: readonly Owner[];
  /** Nobody has said weather, tools and lifts: they are asked with it. */
  asksConditions: boolean;
}>;

/** The proposed hazards of a job, each with a verdict of its own, none given beforehand, and one act for all of them. */
export function HazardRound(props: HazardsToDecide) {
  return (
    <ActForm
      act="hazard.decide"
      label="Decide the hazards"
      toRound={(fields) => ({ round: "hazards decided", entries: hazardEntries(fields, props) })}
      button="Keep what I have decided"
      tone="strong"
    >
      <HazardFields {...props} />
    </ActForm>
  );
}

/** The hazards to decide and what is asked of weather, tools and lifts, within a form. */
export function HazardFields({ open, owners, asksConditions }: Omit<HazardsToDecide, "job">) {
  return (
    <>
      {open.length > 0 && (
        <ul className="divide-base-300 border-base-300 divide-y border-y">
          {open.map((hazard) => (
            <Row key={hazard.id} hazard={hazard} owners={owners} />
          ))}
        </ul>
      )}
      {asksConditions && (
        <fieldset className="space-y-4">
          <legend className="mb-2 text-lg font-semibold">Weather, tools and lifts</legend>
          <ConditionFields said={null} />
        </fieldset>
      )}
    </>
  );
}

/** Each verdict that was given, and what was said of weather, tools and lifts, as acts of a round. */
export function hazardEntries(fields: FormData, { job, open, asksConditions }: HazardsToDecide): Round["entries"] {
  const decided = open.filter(({ id }) => fields.get(`${id} verdict`) !== null);
  const conditions = asksConditions ? conditionsIn(fields) : null;
  return [
    ...decided.map(({ id }) => ({
      type: "hazard.decide",
      prefix: `${id} `,
      input: { job, hazard: id, ...verdictOf(fields, id) },
    })),
    ...(conditions ? [{ type: "hazard.conditions", input: { job, ...conditions } }] : []),
  ];
}

function verdictOf(fields: FormData, id: string): Record<string, unknown> {
  const verdict = fields.get(`${id} verdict`);
  if (verdict === "changed") {
    return { verdict, controls: String(fields.get(`${id} controls`) ?? ""), owner: fields.get(`${id} owner`) };
  }
  return verdict === "rejected" ? { verdict, reason: String(fields.get(`${id} reason`) ?? "") } : { verdict };
}

const VERDICTS = [
  ["kept", "Keep"],
  ["changed", "Change"],
  ["rejected", "Does not apply"],
] as const;

function Row({ hazard, owners }: { hazard: Hazard; owners: readonly Owner[] }) {
  const { id, controls, owner } = hazard;
  const fault = useFault(`${id} verdict`);
  return (
    <li className="group py-3">
      <fieldset aria-describedby={fault?.id}>
        <legend>
          <strong>{hazard.hazard}</strong>
        </legend>
        <p className="text-sm opacity-85">
          From <span className="tag whitespace-normal">{hazard.because}</span>
          {hazard.source !== "practice" && `. ${hazard.source}`}
        </p>
        <p>
          {controls.join("; ")}. <span className="opacity-85">By the {owner}.</span>
        </p>
        <div className="mt-1 flex flex-wrap gap-x-6">
          {VERDICTS.map(([value, words]) => (
            <label key={value} className="flex min-h-11 items-center gap-2">
              <input type="radio" name={`${id} verdict`} value={value} className="radio" />
              {words}
            </label>
          ))}
        </div>
        <FaultLine fault={fault} />
        {/* Shown by what is chosen, without a script: what comes back after a broken session is chosen without one. */}
        <div className="mt-2 hidden max-w-md space-y-3 group-has-[input[value=changed]:checked]:block">
          <TextField
            label="What is done about it, one a line"
            name={`${id} controls`}
            rows={4}
            defaultValue={controls.join("\n")}
          />
          <SelectField label="Who sees to it" name={`${id} owner`} defaultValue={owner} className="w-44">
            {owners.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </SelectField>
        </div>
        <div className="mt-2 hidden max-w-md group-has-[input[value=rejected]:checked]:block">
          <Field label="Why it does not apply" name={`${id} reason`} autoComplete="off" />
        </div>
      </fieldset>
    </li>
  );
}
