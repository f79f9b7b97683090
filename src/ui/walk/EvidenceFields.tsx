"use client";

import { useId, useState } from "react";
import type { GearKind } from "../../core/gear/gear";
import { OfferedNumbers, putIn, useLastUsed } from "../act/OfferedNumbers";
import { GLOVES_ABOVE_V } from "../../core/isolation/stepAsks";

export function Small({
  label,
  className = "",
  ...input
}: { label: string } & React.InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="flex max-w-full flex-col gap-1 text-sm">
      <span>{label}</span>
      <input {...input} autoComplete="off" className={`input ${className}`} />
    </label>
  );
}

/** The number of an instrument: typed, or what this device used last by a touch. */
function GearField({ label, name, className, kind }: { label: string; name: string; className: string; kind: string }) {
  const last = useLastUsed(kind);
  return (
    <div className="flex flex-wrap items-end gap-1">
      <Small label={label} name={name} className={className} data-used={kind} />
      <OfferedNumbers name={name} numbers={last} />
    </div>
  );
}

/** The tester, what it was proved on, a reading for every pair, and proved again. In the order it is done. */
export function PairFields({ pairs, system_V }: { pairs: readonly string[]; system_V: number }) {
  const [onSource, setOnSource] = useState(false);
  const id = useId();
  return (
    <div className="flex w-full flex-col gap-3">
      <div className="flex flex-wrap items-end gap-3">
        <GearField label="Tester" name="tester" className="tag w-28" kind="voltage tester" />
        {onSource ? (
          <>
            <Small label="Known live source" name="knownSource" className="w-44" />
            <Small label="Its voltage, V" name="knownSource_V" inputMode="decimal" className="num w-24" />
          </>
        ) : (
          <GearField label="Proving unit" name="provingUnit" className="tag w-28" kind="proving unit" />
        )}
        <button type="button" className="btn btn-ghost" onClick={() => setOnSource(!onSource)}>
          {onSource ? "A proving unit instead" : "A live source instead"}
        </button>
        {system_V > GLOVES_ABOVE_V && (
          <GearField label="Insulating gloves" name="gloves" className="tag w-28" kind="insulating gloves" />
        )}
      </div>
      <Tick name="provedBefore" label="Tester proved before: it shows live" />
      <fieldset>
        <legend className="mb-1 text-sm">
          Every pair, V <span className="opacity-85">(up to {system_V} V may stand here)</span>
        </legend>
        <div className="grid grid-cols-[repeat(auto-fill,minmax(6.5rem,1fr))] gap-x-3 gap-y-2">
          {pairs.map((pair) => (
            <div key={pair} className="flex flex-col gap-1 text-sm">
              <label htmlFor={`${id}-${pair}`} className="tag">
                {pair}
              </label>
              <span className="flex">
                <input
                  id={`${id}-${pair}`}
                  name={`readings ${pair}`}
                  aria-label={`${pair}, V`}
                  data-field="readings"
                  inputMode="decimal"
                  autoComplete="off"
                  className="input num w-full min-w-0 rounded-r-none"
                />
                {/* Gloves on, the display read pair by pair: most show nothing. */}
                <button
                  type="button"
                  aria-label={`${pair} shows 0 V`}
                  className="btn btn-outline num rounded-l-none border-l-0 px-3"
                  onClick={(event) => putIn(event.currentTarget.form, `readings ${pair}`, "0")}
                >
                  0
                </button>
              </span>
            </div>
          ))}
        </div>
      </fieldset>
      <Tick name="provedAfter" label="Tester proved after: it still shows live" />
    </div>
  );
}

export function ReadingFields({ symbol, instrument }: { symbol: string; instrument: GearKind | null }) {
  return (
    <>
      <Small label={`Reading, ${symbol}`} name="reading" inputMode="decimal" className="num w-28" />
      {instrument !== null && (
        <GearField label={`${capital(instrument)} number`} name="instrument" className="tag w-40" kind={instrument} />
      )}
    </>
  );
}

/** The one there is, where there is no choice; else nothing, for nobody has said. */
const only = (all: readonly string[]) => (all.length === 1 ? all[0]! : "");

/** As many rows as there are earths: number, and where each stands. Off again, only the numbers count. */
export function EarthFields({ places, applying }: { places: readonly string[]; applying: boolean }) {
  const [rows, setRows] = useState(1);
  return (
    <div className="flex flex-col gap-2">
      <p className="text-sm">
        {applying ? "Earth end first, then the conductors." : "From the conductors first, the earth end last."}
      </p>
      {Array.from({ length: rows }, (_, i) => (
        <div key={i} className="flex flex-wrap items-end gap-3">
          <Small label={rows > 1 ? `Earth ${i + 1}` : "Earth number"} name={`earth ${i}`} className="tag w-28" />
          {applying && (
            <label className="flex flex-col gap-1 text-sm">
              <span>Stands at</span>
              <select name={`earth place ${i}`} className="select tag w-44" defaultValue={only(places)}>
                {places.length > 1 && <option value="">choose</option>}
                {places.map((place) => (
                  <option key={place}>{place}</option>
                ))}
              </select>
            </label>
          )}
        </div>
      ))}
      <button type="button" className="btn btn-ghost self-start" onClick={() => setRows(rows + 1)}>
        Another earth
      </button>
    </div>
  );
}

export function LeakTestFields({ pressure }: { pressure: string }) {
  return (
    <>
      <Small label={`Test pressure, ${pressure}`} name="pressure_bar" inputMode="decimal" className="num w-28" />
      <Small label="Held, min" name="held_min" inputMode="decimal" className="num w-24" />
      <Small label={`Lost, ${pressure}`} name="lost_bar" inputMode="decimal" className="num w-24" />
      <GearField label="Pressure gauge number" name="instrument" className="tag w-40" kind="pressure gauge" />
    </>
  );
}

export function Ticks({ name, legend, options }: { name: string; legend: string; options: readonly string[] }) {
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 text-sm">{legend}</legend>
      {options.map((option) => (
        <Tick key={option} name={name} label={option} value={option} />
      ))}
    </fieldset>
  );
}

function Tick({ name, label, value }: { name: string; label: string; value?: string }) {
  return (
    <label className="flex min-h-11 items-center gap-3 text-sm">
      <input type="checkbox" name={name} value={value ?? "on"} className="checkbox" /> {label}
    </label>
  );
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
