"use client";

import { ActForm } from "../act/ActForm";
import { Field, SelectField } from "../act/Field";
import { WhenField } from "../act/WhenField";
import { instantOf } from "../text/siteInstant";

type Props = Readonly<{
  permit: string;
  points: readonly string[];
  gases: readonly string[];
  testers: readonly Readonly<{ id: string; name: string }>[];
}>;

/** A reading from the paper of a time without the server: typed in with when it was drawn and read, and by whom. */
export function PaperReading({ permit, points, gases, testers }: Props) {
  return (
    <ActForm
      act="permit.enter-paper-reading"
      label="Reading from paper"
      fixed={{ permit }}
      toInput={(fields) => ({
        point: fields.get("point"),
        instrument: fields.get("instrument"),
        reader: fields.get("reader"),
        drawn_ms: instantOf(String(fields.get("drawn_ms") ?? "")),
        read_ms: instantOf(String(fields.get("read_ms") ?? "")),
        oxygen_percent: fields.get("oxygen_percent"),
        flammable_percent: fields.get("flammable_percent"),
        toxics_ppm: Object.fromEntries(gases.map((gas) => [gas, fields.get(`toxics_ppm.${gas}`)])),
      })}
      pin
      button="Sign what is on the paper"
    >
      <div className="grid gap-4 sm:grid-cols-2">
        <SelectField label="Test point on the paper" name="point" defaultValue="">
          <option value="">choose</option>
          {points.map((point) => (
            <option key={point} value={point}>
              {point}
            </option>
          ))}
        </SelectField>
        <Field label="Instrument on the paper" name="instrument" autoComplete="off" className="tag" />
        <SelectField label="Read by" name="reader" defaultValue="">
          <option value="">choose</option>
          {testers.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <div className="sm:col-span-2">
          <WhenField label="Drawn" name="drawn_ms" />
        </div>
        <div className="sm:col-span-2">
          <WhenField label="Read" name="read_ms" />
        </div>
        <Field label="Oxygen, %" name="oxygen_percent" inputMode="decimal" autoComplete="off" className="num" />
        <Field
          label="Flammable, % of the lower limit"
          name="flammable_percent"
          inputMode="decimal"
          autoComplete="off"
          className="num"
        />
        {gases.map((gas) => (
          <Field
            key={gas}
            label={`${gas.charAt(0).toUpperCase()}${gas.slice(1)}, ppm`}
            name={`toxics_ppm.${gas}`}
            inputMode="decimal"
            autoComplete="off"
            className="num"
          />
        ))}
      </div>
    </ActForm>
  );
}
