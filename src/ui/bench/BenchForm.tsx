"use client";

import { Plus, X } from "lucide-react";
import { useRouter } from "next/navigation";
import { useEffect, useId, useRef, useState, useTransition } from "react";
import type { Field, Fields, NumberField, RowsField } from "../../core/calc/fields";
import { unitOf, type UnitSystem } from "../../core/units/units";
import { addressOfTyped, type Typed } from "./typed";

type Fault = Readonly<{ key: string; message: string }>;
type Props = Readonly<{
  path: string;
  fields: Fields;
  initial: Typed;
  units: UnitSystem;
  fault: Fault | null;
  /** The job or permit with which the figure is to be kept; empty for none. */
  to: string;
  /** Which tag a circle is drawn around; undefined where no circle is drawn. */
  at?: string;
  places?: readonly string[];
}>;

/** A pause in typing after which the figures follow. */
const PAUSE_MS = 250;

/** The inputs of a calculator. Everything typed goes into the address at once, so that a link carries it. */
export function BenchForm({ path, fields, initial, units, fault, to, at, places = [] }: Props) {
  const router = useRouter();
  const [typed, setTyped] = useState<Typed>(initial);
  const [where, setWhere] = useState(at ?? "");
  const [pending, start] = useTransition();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const id = useId();
  useEffect(() => () => clearTimeout(timer.current), []);

  function follow(next: Typed, place = where) {
    setTyped(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      const words = addressOfTyped(fields, next, units);
      if (place !== "") words.set("at", place);
      if (to !== "") words.set("to", to);
      start(() => router.replace(`${path}?${words.toString()}`, { scroll: false }));
    }, PAUSE_MS);
  }

  const faultOf = (key: string) => (fault?.key.split(".")[0] === key ? fault : null);
  return (
    <form
      aria-label="Figures"
      aria-busy={pending}
      className="flex flex-col gap-4"
      onSubmit={(event) => event.preventDefault()}
      noValidate
    >
      {Object.entries(fields).map(([key, field]) => (
        <div key={key}>
          <OneField
            field={field}
            name={key}
            id={`${id}-${key}`}
            value={typed[key]}
            units={units}
            fault={faultOf(key)}
            onChange={(value) => follow({ ...typed, [key]: value })}
          />
          {faultOf(key) && (
            <p id={`${id}-${key}-fault`} className="border-error bg-error/10 mt-1 border-l-4 px-3 py-1">
              {labelOf(field)} {faultOf(key)!.message}.
            </p>
          )}
        </div>
      ))}
      {at !== undefined && (
        <label className="flex flex-col gap-1">
          <span className="text-sm font-medium">Around which tag on the site plan</span>
          <input
            className="input tag w-44"
            list={`${id}-places`}
            autoComplete="off"
            value={where}
            onChange={(event) => {
              setWhere(event.target.value);
              follow(typed, event.target.value.trim());
            }}
          />
          <datalist id={`${id}-places`}>
            {places.map((place) => (
              <option key={place} value={place} />
            ))}
          </datalist>
        </label>
      )}
    </form>
  );
}

function labelOf(field: Field): string {
  return field.words;
}

type One<F extends Field = Field> = Readonly<{
  field: F;
  name: string;
  id: string;
  value: Typed[string] | undefined;
  units: UnitSystem;
  fault: Fault | null;
  onChange: (value: Typed[string]) => void;
}>;

function OneField(props: One) {
  const { field } = props;
  switch (field.type) {
    case "number":
      return <Figure {...props} field={field} />;
    case "choice":
      return (
        <label className="flex flex-col gap-1">
          <span className="text-sm font-medium">{field.words}</span>
          <select
            name={props.name}
            className="select w-full max-w-xs"
            value={String(props.value ?? field.default)}
            onChange={(event) => props.onChange(event.target.value)}
          >
            {field.choices.map((choice) => (
              <option key={choice}>{choice}</option>
            ))}
          </select>
          {field.hint && <span className="text-sm opacity-85">{field.hint}</span>}
        </label>
      );
    case "rows":
      return <Rows {...props} field={field} />;
  }
}

function Figure({ field, name, id, value, units, fault, onChange }: One<NumberField>) {
  const { symbol } = unitOf(field.quantity, units);
  const described = [fault ? `${id}-fault` : "", field.hint ? `${id}-hint` : ""].filter(Boolean).join(" ");
  return (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-medium">
        {field.words}
        {field.optional && <span className="font-normal opacity-85"> (if known)</span>}
      </span>
      <span className="flex items-baseline gap-2">
        <input
          name={name}
          inputMode="decimal"
          autoComplete="off"
          className="input num w-40"
          value={typeof value === "string" ? value : ""}
          aria-invalid={fault ? true : undefined}
          aria-describedby={described || undefined}
          onChange={(event) => onChange(event.target.value)}
        />
        <span className="num">{symbol}</span>
      </span>
      {field.hint && (
        <span id={`${id}-hint`} className="text-sm opacity-85">
          {field.hint}
        </span>
      )}
    </label>
  );
}

function Rows({ field, value, units, onChange }: One<RowsField>) {
  const rows = (Array.isArray(value) ? value : []) as readonly (readonly string[])[];
  const columns = Object.entries(field.columns);
  const change = (at: number, column: number, typed: string) =>
    onChange(rows.map((row, i) => (i === at ? row.map((cell, j) => (j === column ? typed : cell)) : row)));
  return (
    <fieldset>
      <legend className="mb-2 text-sm font-medium">{field.words}</legend>
      <ul className="space-y-2">
        {rows.map((row, i) => (
          <li key={i} className="flex items-end gap-3">
            {columns.map(([key, column], j) => (
              <label key={key} className="flex flex-col gap-1">
                <span className="text-sm">
                  {column.words}, {unitOf(column.quantity, units).symbol}
                </span>
                <input
                  inputMode="decimal"
                  autoComplete="off"
                  aria-label={`${column.words}, ${i + 1}`}
                  className="input num w-28"
                  value={row[j] ?? ""}
                  onChange={(event) => change(i, j, event.target.value)}
                />
              </label>
            ))}
            {rows.length > 1 && (
              <button
                type="button"
                className="btn btn-ghost btn-square"
                aria-label={`Remove row ${i + 1}`}
                onClick={() => onChange(rows.filter((_, other) => other !== i))}
              >
                <X aria-hidden size={16} />
              </button>
            )}
          </li>
        ))}
      </ul>
      {rows.length < field.most && (
        <button
          type="button"
          className="btn btn-ghost btn-sm mt-2"
          onClick={() => onChange([...rows, columns.map(() => "")])}
        >
          <Plus aria-hidden size={16} /> Another
        </button>
      )}
    </fieldset>
  );
}
