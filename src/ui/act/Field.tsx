"use client";

import { Children } from "react";
import type { InputHTMLAttributes, ReactNode, SelectHTMLAttributes, TextareaHTMLAttributes } from "react";
import { useFault } from "./faults";

type Shared = Readonly<{ label: string; hint?: ReactNode }>;

/** A label, what it labels, what is wanted, and what is wrong with it. */
function Labelled({ label, hint, name, children }: Shared & { name?: string; children: ReactNode }) {
  const fault = useFault(name);
  return (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-medium">{label}</span>
      {children}
      {fault && (
        <span id={fault.id} className="text-error text-sm font-medium">
          {fault.message}
        </span>
      )}
      {hint && <span className="text-sm opacity-80">{hint}</span>}
    </label>
  );
}

function useAria(name: string | undefined) {
  const fault = useFault(name);
  return fault ? ({ "aria-invalid": true, "aria-describedby": fault.id } as const) : {};
}

/** A labelled input. The hint says what is wanted before anything is wrong. */
export function Field({ label, hint, className = "", ...input }: Shared & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <Labelled label={label} hint={hint} name={input.name}>
      <input {...input} {...useAria(input.name)} className={`input w-full ${className}`} />
    </Labelled>
  );
}

export function TextField({
  label,
  hint,
  className = "",
  ...area
}: Shared & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  return (
    <Labelled label={label} hint={hint} name={area.name}>
      <textarea {...area} {...useAria(area.name)} className={`textarea w-full ${className}`} />
    </Labelled>
  );
}

/**
 * A list to choose from. Where nothing is chosen beforehand and there is more than one thing to choose, none is: the first of
 * a list is no answer that somebody gave.
 */
export function SelectField({
  label,
  hint,
  className = "",
  children,
  ...select
}: Shared & SelectHTMLAttributes<HTMLSelectElement>) {
  const isOpen =
    select.defaultValue === undefined && select.value === undefined && Children.toArray(children).length > 1;
  return (
    <Labelled label={label} hint={hint} name={select.name}>
      <select
        {...select}
        {...(isOpen ? { defaultValue: "" } : {})}
        {...useAria(select.name)}
        className={`select w-full ${className}`}
      >
        {isOpen && <option value="">choose</option>}
        {children}
      </select>
    </Labelled>
  );
}

/** A tick with its words beside it. */
export function Tick({ label, hint, ...input }: Shared & InputHTMLAttributes<HTMLInputElement>) {
  const fault = useFault(input.name);
  return (
    <label className="flex items-start gap-3 py-1">
      <input {...input} {...useAria(input.name)} type="checkbox" className="checkbox mt-0.5 shrink-0" />
      <span>
        {label}
        {hint && <span className="block text-sm opacity-80">{hint}</span>}
        {fault && (
          <span id={fault.id} className="text-error block text-sm font-medium">
            {fault.message}
          </span>
        )}
      </span>
    </label>
  );
}
