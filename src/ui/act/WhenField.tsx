"use client";

import { CalendarDays } from "lucide-react";
import dynamic from "next/dynamic";
import { useId, useRef, useState, type ReactNode } from "react";
import { readWhen, whenText, type WallTime } from "../../core/units/whenText";
import { useFault } from "./faults";

/** The calendar comes when somebody asks for it, and not with every page. */
const WhenCalendar = dynamic(() => import("./WhenCalendar"), { ssr: false });

type Props = Readonly<{
  label: string;
  name: string;
  /** By the site's clock, as 2026-11-29T03:21 or 2026-11-29. */
  defaultValue?: string;
  hint?: ReactNode;
  /** A day, and no time of it. */
  dayOnly?: boolean;
  className?: string;
}>;

/**
 * A day and time by the site's clock: typed as people write it, in 24 hours, or picked. What was typed is written out in full
 * when the field is left, so that everybody reads which day was meant.
 */
export function WhenField({ label, name, defaultValue = "", hint, dayOnly = false, className = "" }: Props) {
  const id = useId();
  const fault = useFault(name);
  const input = useRef<HTMLInputElement>(null);
  const [isOpen, setIsOpen] = useState(false);
  const [near, setNear] = useState(defaultValue);
  const shown = (text: string) => {
    const read = readWhen(text, near || today());
    if (read === null) return text;
    return whenText(dayOnly ? { ...read, time: null } : read);
  };

  function writeOut() {
    const field = input.current;
    if (!field || field.value.trim() === "") return;
    const read = readWhen(field.value, near || today());
    if (read === null) return;
    put(read);
  }

  function put(read: WallTime) {
    const text = whenText(dayOnly ? { ...read, time: null } : read);
    setNear(`${read.date}T${read.time ?? "00:00"}`);
    if (input.current && input.current.value !== text) {
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(input.current, text);
      input.current.dispatchEvent(new Event("input", { bubbles: true }));
    }
  }

  return (
    <div className={`relative flex flex-col gap-1 ${className}`}>
      <label htmlFor={id} className="text-sm font-medium">
        {label}
      </label>
      <span className="flex">
        <input
          ref={input}
          id={id}
          name={name}
          defaultValue={shown(defaultValue)}
          placeholder={dayOnly ? "29 Nov 2026" : "29 Nov 2026, 13:30"}
          autoComplete="off"
          className="input num w-full min-w-0 rounded-r-none"
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault?.id}
          onBlur={writeOut}
          onKeyDown={(event) => {
            if (event.key === "Enter") writeOut();
          }}
        />
        <button
          type="button"
          className="btn btn-outline btn-square rounded-l-none border-l-0"
          aria-label="Open the calendar"
          aria-expanded={isOpen}
          onClick={() => setIsOpen(!isOpen)}
        >
          <CalendarDays aria-hidden size={18} />
        </button>
      </span>
      {isOpen && (
        <WhenCalendar
          at={readWhen(input.current?.value ?? "", near || today()) ?? { date: today(), time: null }}
          dayOnly={dayOnly}
          onPick={put}
          onClose={() => {
            setIsOpen(false);
            input.current?.focus();
          }}
        />
      )}
      {fault && (
        <span id={fault.id} className="text-error text-sm font-medium">
          {fault.message}
        </span>
      )}
      {hint && <span className="text-sm opacity-80">{hint}</span>}
    </div>
  );
}

/** The day that it is at the site, as the page says its zone. */
function today(): string {
  const timeZone = typeof document === "undefined" ? "UTC" : (document.documentElement.dataset.zone ?? "UTC");
  return new Intl.DateTimeFormat("sv-SE", { timeZone }).format(new Date());
}
