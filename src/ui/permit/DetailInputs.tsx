"use client";

import { Field, SelectField, TextField, Tick } from "../act/Field";
import { WhenField } from "../act/WhenField";
import { FaultLine } from "../act/FaultLine";
import { useFault } from "../act/faults";
import { fromSi, unitOf, type UnitSystem } from "../../core/units/units";
import type { DetailField } from "./detailFields";

type Props = Readonly<{
  fields: readonly DetailField[];
  defaults: Readonly<Record<string, string | readonly string[]>>;
  /** People to choose from, for questions that ask for one. */
  people: readonly Readonly<{ id: string; name: string }>[];
  /** What figures are typed in; a form is made anew when it changes. */
  units: UnitSystem;
  /** Put before each name, where one form asks the questions of several kinds. */
  prefix?: string;
}>;

/** The questions of a kind, in their groups. */
export function DetailInputs({ fields, defaults, people, units, prefix = "" }: Props) {
  const groups = [...new Set(fields.map(({ group }) => group))];
  return groups.map((group) => {
    const own = fields.filter((field) => field.group === group);
    return (
      <fieldset key={group} className="border-base-300 border-t pt-3">
        <legend className="pr-3 font-semibold">{group}</legend>
        <div className="grid items-start gap-x-6 gap-y-4 sm:grid-cols-2">
          {own.map((field) => (
            <div key={field.name} className={field.wide || field.as === "ticks" ? "sm:col-span-2" : ""}>
              <DetailInput
                field={{ ...field, name: `${prefix}${field.name}` }}
                initial={defaults[field.name] ?? field.initial}
                people={people}
                units={units}
              />
            </div>
          ))}
        </div>
      </fieldset>
    );
  });
}

function DetailInput({
  field,
  initial,
  people,
  units,
}: {
  field: DetailField;
  initial: string | readonly string[] | undefined;
  people: Props["people"];
  units: UnitSystem;
}) {
  const { name, label, hint, as } = field;
  const text = typeof initial === "string" ? initial : "";
  const shared = { name, label, hint };
  switch (as) {
    case "tick":
      return <Tick {...shared} defaultChecked={text === "on"} />;
    case "ticks":
      return <Ticks field={field} initial={Array.isArray(initial) ? initial : []} />;
    case "yes no":
    case "select":
      return (
        <SelectField {...shared} defaultValue={text || undefined}>
          {(field.options ?? people.map(({ id, name }) => ({ value: id, words: name }))).map(({ value, words }) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </SelectField>
      );
    case "area":
    case "lines":
      return <TextField {...shared} rows={as === "lines" ? 3 : 2} defaultValue={text} />;
    case "date":
      return <WhenField dayOnly {...shared} defaultValue={text} />;
    case "time":
      return <WhenField {...shared} defaultValue={text} />;
    case "number":
      return <FigureInput field={field} initial={text} units={units} />;
    case "text":
      return <Field {...shared} autoComplete="off" defaultValue={text} />;
  }
}

function FigureInput({ field, initial, units }: { field: DetailField; initial: string; units: UnitSystem }) {
  const { name, label, hint, quantity = "count" } = field;
  const unit = unitOf(quantity, units);
  return (
    <Field
      name={name}
      label={unit.symbol === "" ? label : `${label}, ${unit.symbol}`}
      hint={hint}
      inputMode="decimal"
      autoComplete="off"
      className="num"
      data-scale={unit.scale}
      defaultValue={initial === "" ? "" : written(fromSi(Number(initial), unit))}
    />
  );
}
/** As finely as a tape or a name plate gives it. */
function written(value: number): number {
  return Number(Math.abs(value) < 1000 ? value.toPrecision(4) : value.toFixed(1));
}

function Ticks({ field, initial }: { field: DetailField; initial: readonly string[] }) {
  const fault = useFault(field.name);
  return (
    <fieldset aria-describedby={fault?.id} data-field={field.name}>
      <legend className="text-sm font-medium">{field.label}</legend>
      <div className="mt-1 flex flex-wrap gap-x-6">
        {(field.options ?? []).map(({ value, words }) => (
          <label key={value} className="flex items-center gap-2 py-1">
            <input
              type="checkbox"
              name={field.name}
              value={value}
              defaultChecked={initial.includes(value)}
              aria-invalid={fault ? true : undefined}
              className="checkbox"
            />
            {words}
          </label>
        ))}
      </div>
      <FaultLine fault={fault} />
    </fieldset>
  );
}
