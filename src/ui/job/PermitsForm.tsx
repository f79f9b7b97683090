"use client";

import type { PermitKind } from "../../core/permit/kinds/kinds";
import type { UnitSystem } from "../../core/units/units";
import { ActForm } from "../act/ActForm";
import { SelectField, TextField, Tick } from "../act/Field";
import { WhenField } from "../act/WhenField";
import { DetailInputs } from "../permit/DetailInputs";
import { DETAIL_FIELDS, readDetails } from "../permit/detailFields";
import { siteField } from "../text/siteInstant";
import { HazardFields, hazardEntries, type HazardsToDecide } from "./HazardRound";
import { readDraft } from "./PermitDraftForm";

export type ToWrite = Readonly<{
  kind: PermitKind;
  /** Why the analysis asks for it. */
  because: string;
  longest_h: number;
  defaults: Readonly<Record<string, string | readonly string[]>>;
}>;

export type PermitsFormProps = Readonly<{
  job: string;
  toWrite: readonly ToWrite[];
  words: string;
  hazards: string;
  precautions: string;
  holder: string;
  leads: readonly Readonly<{ id: string; name: string }>[];
  people: readonly Readonly<{ id: string; name: string }>[];
  units: UnitSystem;
  from_ms: number;
  to_ms: number;
  timeZone: string;
  /** Who writes them may check them as well: the same look at job, isolation and drawings. */
  mayCheck: boolean;
  /** The plan that is approved with them, as it is shown. */
  approve?: Readonly<{ objective: string; school: string; plantRevision: number; name: string }>;
  /** With the plan: by the short route, which asks what no register knows. */
  short?: boolean;
  /** With the plan: what nobody decided yet of the job's hazards. */
  toDecide?: HazardsToDecide;
  /** With the plan: something is otherwise than the procedure says by which it was asked for. */
  differs?: boolean;
}>;

/** The permits that the analysis requires, written in one act; checked with it, and the plan approved, where one may. */
export function PermitsForm(props: PermitsFormProps) {
  const { job, toWrite, approve, toDecide, mayCheck, units, timeZone, short = false } = props;
  const kinds = toWrite.map(({ kind }) => kind).join(", ");
  const write = toWrite.length === 1 ? `the permit for ${kinds}` : `${toWrite.length} permits: ${kinds}`;
  return (
    <ActForm
      act="permit.draft"
      label={
        short
          ? "Approve by the short route"
          : approve
            ? "Approve the plan and write its permits"
            : "Write the permits required"
      }
      toRound={(fields) => {
        const isChecked = fields.get("checked") === "on";
        const { objective, school, plantRevision } = approve ?? {};
        const before = [
          ...(toDecide ? hazardEntries(fields, toDecide) : []),
          ...(approve
            ? [
                {
                  type: "isolation.approve",
                  input: {
                    job,
                    objective,
                    school,
                    plantRevision,
                    readDifferences: fields.get("readDifferences") === "on",
                    ...(short
                      ? {
                          route: "short",
                          noOthersAtRisk: fields.get("noOthersAtRisk") === "on",
                          noAccidents: fields.get("noAccidents") === "on",
                        }
                      : {}),
                  },
                },
              ]
            : []),
        ];
        return {
          round: approve ? "plan and permits" : "permits written",
          entries: [
            ...before,
            ...toWrite.map(({ kind }) => ({
              type: "permit.draft",
              prefix: `${kind}: `,
              input: { job, ...readDraft(fields), details: readDetails(kind, fields, units, `${kind}: `) },
            })),
            ...(isChecked
              ? toWrite.map((_, i) => ({
                  type: "permit.check",
                  input: {},
                  from: { entry: before.length + i, field: "permit" },
                }))
              : []),
          ],
        };
      }}
      pin={approve !== undefined || mayCheck}
      button={
        short
          ? "Approve by the short route"
          : approve
            ? `Approve: ${approve.name}, and write ${write}`
            : `Write ${write}`
      }
      tone="strong"
      then={short ? `/jobs/${job}/walk` : toWrite.length === 1 ? "/permits/{permit}" : `/jobs/${job}/permits`}
    >
      {toDecide && <HazardFields {...toDecide} />}
      <SelectField
        label={short ? "Who works alone" : "Holder, who leads this crew"}
        name="holder"
        className="sm:w-72"
        defaultValue={props.holder}
      >
        {props.leads.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </SelectField>
      <TextField label="What may be done, and nothing else" name="words" rows={2} defaultValue={props.words} />
      <TextField
        label="Hazards that remain"
        name="hazards"
        rows={3}
        defaultValue={props.hazards}
        hint={
          props.hazards === ""
            ? "The job's hazards are not decided yet: then they stand here."
            : "From the job's hazards, as they are proposed or were decided."
        }
      />
      <TextField label="Precautions" name="precautions" rows={3} defaultValue={props.precautions} />
      <div className="grid max-w-xl gap-4 sm:grid-cols-2">
        <WhenField
          label="Valid from"
          name="validFrom_ms"
          defaultValue={siteField(props.from_ms, timeZone)}
          hint="From the job's window."
        />
        <WhenField
          label="Valid until"
          name="validTo_ms"
          defaultValue={siteField(props.to_ms, timeZone)}
          hint={`At most ${Math.min(...toWrite.map(({ longest_h }) => longest_h))} hours.`}
        />
      </div>
      {toWrite.map(({ kind, because, defaults }) => (
        <section key={kind} aria-label={kind} className="border-base-300 space-y-4 border-t-2 pt-3">
          <p>
            <strong className="inline-block first-letter:uppercase">{kind}</strong>: {because}
          </p>
          <DetailInputs
            fields={DETAIL_FIELDS[kind]}
            defaults={defaults}
            people={props.people}
            units={units}
            prefix={`${kind}: `}
          />
        </section>
      ))}
      {short && (
        <div>
          <Tick name="noOthersAtRisk" label="Nobody else is put at risk by this work" />
          <Tick
            name="noAccidents"
            label="This machine never started or stayed live against expectation while worked on"
          />
        </div>
      )}
      {props.differs && <Tick name="readDifferences" label="I have read what is otherwise than the procedure says" />}
      {mayCheck && (
        <Tick
          name="checked"
          label="I have read them against the job, its isolation and the drawings: they are checked"
        />
      )}
    </ActForm>
  );
}
