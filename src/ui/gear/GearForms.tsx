"use client";

import { useState } from "react";
import { GEAR_KINDS, isDated, type GearKind } from "../../core/gear/gear";
import { readNumber } from "../../core/units/readNumber";
import { endOfDay } from "../text/siteInstant";
import { ActForm } from "../act/ActForm";
import { Field, SelectField } from "../act/Field";
import { WhenField } from "../act/WhenField";

const RATED: ReadonlySet<GearKind> = new Set<GearKind>(["voltage tester", "proving unit", "insulating gloves"]);
const READS: ReadonlySet<GearKind> = new Set<GearKind>(["pressure gauge", "thermometer", "survey meter"]);

/** Chosen by whoever holds it in the hand, where it does not steer what else is asked. */
function KindField({ value, onChange }: { value?: GearKind; onChange?: (kind: GearKind) => void }) {
  const kinds = GEAR_KINDS.map((kind) => <option key={kind}>{kind}</option>);
  if (value === undefined) {
    return (
      <SelectField label="What it is" name="kind">
        {kinds}
      </SelectField>
    );
  }
  return (
    <SelectField
      label="What it is"
      name="kind"
      value={value}
      onChange={(event) => onChange?.(event.target.value as GearKind)}
    >
      {kinds}
    </SelectField>
  );
}

/** Enters a thing, or changes what is known of it. Only what matters for its kind is asked. */
export function GearForm({ people }: { people: readonly Readonly<{ id: string; name: string }>[] }) {
  const [kind, setKind] = useState<GearKind>("lock");
  return (
    <details className="border-base-300 border-t py-2">
      <summary className="min-h-11 cursor-pointer content-center font-medium">Enter a thing, or a new date</summary>
      <div className="mt-2">
        <ActForm
          act="gear.enter"
          label="Enter a thing"
          toInput={(fields) => readGear(fields, kind)}
          pin
          button="Enter it"
        >
          <div className="grid gap-3 sm:grid-cols-2">
            <KindField value={kind} onChange={setKind} />
            <Field label="Number" name="number" className="tag" autoComplete="off" maxLength={60} />
            {kind === "lock" && (
              <>
                <label className="flex flex-col gap-1">
                  <span className="text-sm font-medium">Owner</span>
                  <select name="owner" className="select w-full">
                    <option value="">the site</option>
                    {people.map((one) => (
                      <option key={one.id} value={one.id}>
                        {one.name}
                      </option>
                    ))}
                  </select>
                </label>
                <Field label="Key" name="key" className="tag" autoComplete="off" maxLength={60} />
              </>
            )}
            {isDated(kind) && <WhenField dayOnly label="In date until" name="inDateUntil_ms" />}
            {RATED.has(kind) && <Field label="Rated, V" name="rating_V" inputMode="decimal" className="num" />}
            {kind === "gas instrument" && <GasSheetFields />}
            {READS.has(kind) && (
              <Field label="May be off by, in its unit" name="error" inputMode="decimal" className="num" />
            )}
          </div>
        </ActForm>
      </div>
    </details>
  );
}

/** All of it or none: what is known of it already stays when only a new date is entered. */
function GasSheetFields() {
  const figure = (name: string, label: string) => (
    <Field label={label} name={name} inputMode="decimal" autoComplete="off" className="num" />
  );
  return (
    <>
      <Field
        label="Reads, parted by commas"
        name="reads"
        autoComplete="off"
        hint="oxygen, flammable, and poisons by name. Empty: what the register knows stays."
      />
      <SelectField label="Senses what burns by" name="burns" defaultValue="">
        <option value="">not known, or not at all</option>
        <option>catalytic</option>
        <option>infrared</option>
      </SelectField>
      <SelectField label="Calibrated on, what burns" name="calibrated" defaultValue="">
        <option value="">not known</option>
        <option>methane</option>
        <option>propane</option>
        <option>hexane</option>
        <option>hydrogen</option>
      </SelectField>
      {figure("error_oxygen", "Oxygen off by, %")}
      {figure("error_flammable", "Flammable off by, % of the limit")}
      {figure("error_toxic", "Poisons off by, ppm")}
      {figure("zero_flammable", "Zero band of flammable, % of the limit")}
      {figure("zero_toxic", "Zero band of poisons, ppm")}
      {figure("hose_m", "Hose, m")}
      {figure("bore_mm", "Bore of the hose, mm")}
      {figure("pump_L_min", "Pump, L/min")}
      {figure("t90_s", "Settles to 90 % in, s")}
    </>
  );
}

export function HandOutForm({ jobs }: { jobs: readonly string[] }) {
  return (
    <details className="border-base-300 border-t py-2">
      <summary className="min-h-11 cursor-pointer content-center font-medium">Hand out, or take back</summary>
      <div className="mt-2 space-y-4">
        <ActForm act="gear.hand-out" label="Hand out" compact button="Hand out">
          <KindField />
          <Field label="Number" name="number" className="tag" autoComplete="off" />
          <SelectField label="For the job" name="job" className="tag w-32">
            {jobs.map((job) => (
              <option key={job}>{job}</option>
            ))}
          </SelectField>
        </ActForm>
        <ActForm act="gear.give-back" label="Take back" compact button="Take back">
          <KindField />
          <Field label="Number" name="number" className="tag" autoComplete="off" />
        </ActForm>
      </div>
    </details>
  );
}

export function WithdrawForm() {
  return (
    <details className="border-base-300 border-t py-2">
      <summary className="min-h-11 cursor-pointer content-center font-medium">Withdraw from use</summary>
      <div className="mt-2">
        <ActForm act="gear.withdraw" label="Withdraw" pin compact button="Withdraw">
          <KindField />
          <Field label="Number" name="number" className="tag" autoComplete="off" />
        </ActForm>
      </div>
    </details>
  );
}

/** What was withdrawn comes back only when somebody else has seen what was done to it. */
export function ReturnForm() {
  const [kind, setKind] = useState<GearKind>("lock");
  return (
    <details className="border-base-300 border-t py-2">
      <summary className="min-h-11 cursor-pointer content-center font-medium">Give back into use</summary>
      <div className="mt-2">
        <p className="mb-2 max-w-prose text-sm">Not by whoever withdrew it.</p>
        <ActForm
          act="gear.return"
          label="Give back into use"
          toInput={(fields) => {
            const day = String(fields.get("inDateUntil_ms") ?? "");
            return {
              kind,
              number: String(fields.get("number") ?? ""),
              words: String(fields.get("words") ?? ""),
              inDateUntil_ms: day === "" ? null : endOfDay(day),
            };
          }}
          pin
          button="Give it back into use"
        >
          <div className="grid gap-3 sm:grid-cols-2">
            <KindField value={kind} onChange={setKind} />
            <Field label="Number" name="number" className="tag" autoComplete="off" maxLength={60} />
            <Field label="What was done to it" name="words" maxLength={300} />
            {isDated(kind) && <WhenField dayOnly label="In date until" name="inDateUntil_ms" />}
          </div>
        </ActForm>
      </div>
    </details>
  );
}

function readGear(fields: FormData, kind: GearKind): Record<string, unknown> {
  const text = (name: string) => {
    const value = fields.get(name);
    return typeof value === "string" && value.trim() !== "" ? value.trim() : null;
  };
  const number = (name: string) => {
    const value = text(name);
    if (value === null) return null;
    const read = readNumber(value);
    return read.ok ? read.value : value;
  };
  const scaled = (name: string, by: number) => {
    const value = number(name);
    return typeof value === "number" ? value * by : value;
  };
  const reads = text("reads");
  const sheet =
    reads === null
      ? null
      : {
          reads: reads
            .split(",")
            .map((one) => one.trim().toLowerCase())
            .filter(Boolean),
          burns: text("burns"),
          calibrated: text("calibrated"),
          error: {
            oxygen: scaled("error_oxygen", 0.01),
            flammable: scaled("error_flammable", 0.01),
            toxic: scaled("error_toxic", 1e-6),
          },
          zero: { flammable: scaled("zero_flammable", 0.01), toxic: scaled("zero_toxic", 1e-6) },
          hose_m: number("hose_m"),
          bore_m: scaled("bore_mm", 1e-3),
          pump_m3_s: scaled("pump_L_min", 1e-3 / 60),
          t90_s: number("t90_s"),
        };
  const day = text("inDateUntil_ms");
  return {
    kind,
    number: text("number") ?? "",
    owner: text("owner"),
    key: text("key"),
    // In date through the whole of its last day.
    inDateUntil_ms: day === null ? null : endOfDay(day),
    rating_V: number("rating_V"),
    error: number("error"),
    ...(sheet === null ? {} : { sheet }),
  };
}
