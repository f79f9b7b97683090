"use client";

import { ActForm } from "../act/ActForm";
import { Field, SelectField, Tick } from "../act/Field";
import { OfferedNumbers } from "../act/OfferedNumbers";
import { SampleTimer } from "./SampleTimer";

type Sample = Readonly<{ point: string; ready_ms: number; instrument: string }>;

/** Begins a sample, then, at the same place on the screen, takes its reading: one point at a time, with gloves on. */
export function AirForms({
  permit,
  points,
  next,
  sample,
  gases,
  fit,
  toBump,
  now_ms,
}: {
  permit: string;
  points: readonly string[];
  /** The point that wants reading first. */
  next: string;
  sample: Sample | null;
  gases: readonly string[];
  /** Instruments that may be read from now, and those that want a bump test first. */
  fit: readonly string[];
  toBump: readonly string[];
  now_ms: number;
}) {
  if (sample === null) {
    return (
      <div className="space-y-4">
        <ActForm
          act="permit.begin-sample"
          label="Begin a sample"
          fixed={{ permit }}
          button="Begin the sample"
          tone="strong"
        >
          <div className="grid gap-4 sm:grid-cols-2">
            <SelectField key={next} label="Test point" name="point" defaultValue={next} className="h-12">
              {points.map((point) => (
                <option key={point} value={point}>
                  {point}
                </option>
              ))}
            </SelectField>
            <div className="space-y-2">
              <Field
                label="Instrument"
                name="instrument"
                autoComplete="off"
                className="tag h-12"
                hint={fit.length > 0 ? "Bumped and in date, the one in your hand:" : "None is bumped and in date."}
              />
              <OfferedNumbers name="instrument" numbers={fit} />
            </div>
          </div>
        </ActForm>
        <BumpTest toBump={toBump} isWanted={fit.length === 0} />
      </div>
    );
  }
  return (
    <ActForm
      key={sample.point}
      act="permit.read-air"
      label="Read the air"
      fixed={{ permit, point: sample.point }}
      toInput={(fields) => ({
        oxygen_percent: fields.get("oxygen_percent"),
        flammable_percent: fields.get("flammable_percent"),
        toxics_ppm: Object.fromEntries(gases.map((gas) => [gas, fields.get(`toxics_ppm.${gas}`)])),
      })}
      pin
      button="Sign the reading"
      tone="strong"
    >
      <p>
        <strong className="tag whitespace-normal">{sample.point}</strong>, with{" "}
        <span className="tag">{sample.instrument}</span>:{" "}
        <SampleTimer ready_ms={sample.ready_ms} now_ms={now_ms} done="read it now." />
      </p>
      <div className="grid gap-4 sm:grid-cols-3">
        <Field
          label="Oxygen, %"
          name="oxygen_percent"
          inputMode="decimal"
          autoComplete="off"
          className="num h-14 text-xl"
        />
        <Field
          label="Flammable, % of the lower limit"
          name="flammable_percent"
          inputMode="decimal"
          autoComplete="off"
          className="num h-14 text-xl"
        />
        {gases.map((gas) => (
          <Field
            key={gas}
            label={`${gas.charAt(0).toUpperCase()}${gas.slice(1)}, ppm`}
            name={`toxics_ppm.${gas}`}
            inputMode="decimal"
            autoComplete="off"
            className="num h-14 text-xl"
          />
        ))}
      </div>
    </ActForm>
  );
}

/** Numbers that do not break at their hyphen. */
function Numbers({ all }: { all: readonly string[] }) {
  return all.map((number, i) => (
    <span key={number}>
      {i > 0 && ", "}
      <span className="tag whitespace-nowrap">{number}</span>
    </span>
  ));
}

/** Before a day's use: test gas is blown on the instrument, and it alarms. */
function BumpTest({ toBump, isWanted }: { toBump: readonly string[]; isWanted: boolean }) {
  return (
    <details open={isWanted}>
      <summary className="cursor-pointer font-medium">Bump test an instrument</summary>
      <div className="mt-2">
        <ActForm act="gear.bump" label="Bump test" pin button="Sign the bump test">
          <div className="grid gap-4 sm:grid-cols-3">
            <Field
              label="Instrument bumped"
              name="number"
              autoComplete="off"
              className="tag h-12"
              hint={
                toBump.length > 0 ? (
                  <>
                    Not bumped in a day: <Numbers all={toBump} />
                  </>
                ) : undefined
              }
            />
            <Field label="Test gas" name="gas" autoComplete="off" className="h-12" />
            <SelectField
              label="What it did"
              name="verdict"
              className="h-12"
              hint="One that does not alarm is withdrawn."
            >
              <option value="">choose</option>
              <option>alarmed</option>
              <option>did not alarm</option>
            </SelectField>
          </div>
          <Tick
            label="Zeroed in fresh air, away from the work"
            name="zeroed"
            hint="Nothing is shown only by an instrument zeroed this shift."
          />
        </ActForm>
      </div>
    </details>
  );
}
