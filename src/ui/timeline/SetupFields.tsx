"use client";

import { useState } from "react";
import {
  ASSUMED,
  BOUNDS,
  CREWS,
  figureFault,
  SETUP_WORDS,
  type Crew,
  type Setup,
  type SetupKey,
} from "../../core/schedule/setup";
import type { TimelineModel } from "../../core/schedule/timeline";
import { readNumber } from "../../core/units/readNumber";
import { fromSi, toSi, unitOf, type Quantity, type Unit, type UnitSystem } from "../../core/units/units";
import { CREW_WORDS } from "./lanes";

const QUANTITY: Readonly<Record<Exclude<SetupKey, "lockSchool">, Quantity>> = {
  blower_m3_s: "flow",
  bends: "count",
  mixing: "ratio",
  inert_m3_s: "flow",
  drainHose_m: "length",
  pumpOut_m3_s: "flow",
  clean_s: "duration",
  hose_m: "length",
  hoseBore_m: "bore",
  pump_m3_s: "smallFlow",
  t90_s: "seconds",
  testers: "count",
  ambient_C: "temperature",
  work_s: "duration",
  people: "count",
};
type FigureKey = keyof typeof QUANTITY;

/** The work and the cleaning are planned in hours, whatever the unit of other times. */
const HOURS: Unit = { symbol: "h", scale: 3600 };
const IN_HOURS: ReadonlySet<FigureKey> = new Set<FigureKey>(["work_s", "clean_s"]);
const unitFor = (key: FigureKey, units: UnitSystem): Unit => (IN_HOURS.has(key) ? HOURS : unitOf(QUANTITY[key], units));
const written = (key: FigureKey, value: number, units: UnitSystem) =>
  String(Number(fromSi(value, unitFor(key, units)).toPrecision(8)));

/** Which figures this job's steps ask for, the work's length always among them. */
export function figuresAsked(model: TimelineModel): FigureKey[] {
  const used = new Set(
    [...model.isolate, ...model.restore].flatMap(({ work }) => [
      ...work.waits.flatMap((wait) => Object.values(wait.fromSetup)),
      ...(work.handsFrom === null ? [] : [work.handsFrom]),
    ]),
  );
  for (const round of model.airRounds) for (const key of Object.values(round.fromSetup)) used.add(key);
  return (Object.keys(QUANTITY) as FigureKey[]).filter((key) => key === "work_s" || used.has(key));
}

/** What the day is carried out with. Each change is tried at once; what is no figure is said at its field. */
export function SetupFields({
  model,
  setup,
  units,
  onChange,
}: {
  model: TimelineModel;
  setup: Setup;
  units: UnitSystem;
  onChange: (setup: Setup) => void;
}) {
  const crews = CREWS.filter((crew) => [...model.isolate, ...model.restore].some((step) => step.work.crew === crew));
  return (
    <div className="space-y-5">
      <fieldset>
        <legend className="mb-2 font-semibold">Hands</legend>
        <div className="grid grid-cols-[6.5rem_1fr_1.5rem] items-center gap-x-3 gap-y-1">
          {crews.map((crew) => (
            <CrewSlider
              key={crew}
              crew={crew}
              size={setup.crews?.[crew] ?? 1}
              onChange={(size) => onChange({ ...setup, crews: { ...setup.crews, [crew]: size } })}
            />
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="mb-2 font-semibold">With what</legend>
        <div className="grid grid-cols-[1fr_auto] items-center gap-x-3 gap-y-2">
          {figuresAsked(model).map((key) => (
            <FigureRow key={`${key} ${units}`} name={key} setup={setup} units={units} onChange={onChange} />
          ))}
        </div>
      </fieldset>
    </div>
  );
}

function CrewSlider({ crew, size, onChange }: { crew: Crew; size: number; onChange: (size: number) => void }) {
  return (
    <label className="contents">
      <span>{CREW_WORDS[crew]}</span>
      <input
        type="range"
        min={1}
        max={6}
        step={1}
        value={size}
        aria-label={`People, ${CREW_WORDS[crew].toLowerCase()}`}
        className="range range-sm w-full"
        onChange={(event) => onChange(Number(event.target.value))}
      />
      <span className="num text-right font-semibold">{size}</span>
    </label>
  );
}

function FigureRow({
  name,
  setup,
  units,
  onChange,
}: {
  name: FigureKey;
  setup: Setup;
  units: UnitSystem;
  onChange: (setup: Setup) => void;
}) {
  const stored = setup[name];
  const [typed, setTyped] = useState(stored === undefined ? "" : written(name, stored, units));
  const [fault, setFault] = useState<string | null>(null);
  const unit = unitFor(name, units);
  const words = SETUP_WORDS[name];
  function change(text: string) {
    setTyped(text);
    const rest = Object.fromEntries(Object.entries(setup).filter(([key]) => key !== name)) as Setup;
    if (text.trim() === "") {
      setFault(null);
      return onChange(rest);
    }
    const read = readNumber(text);
    if (!read.ok) return setFault(read.message);
    const value = toSi(read.value, unit);
    const wrong = figureFault(value, BOUNDS[name]);
    if (wrong !== null) return setFault(boundsIn(wrong, unit));
    setFault(null);
    onChange({ ...rest, [name]: value });
  }
  return (
    <label className="contents">
      <span className="leading-tight">
        {words.charAt(0).toUpperCase() + words.slice(1)}
        {stored === undefined && fault === null && (
          <span className="block text-sm opacity-85">
            {name === "testers"
              ? "not said: as many as a round of 20 min asks"
              : `not said: ${written(name, ASSUMED[name], units)} ${unit.symbol} is taken`}
          </span>
        )}
        {fault !== null && (
          <span role="alert" className="text-error block text-sm font-medium">
            {words} {fault}
          </span>
        )}
      </span>
      <span className="flex items-baseline gap-2">
        <input
          name={name}
          inputMode="decimal"
          autoComplete="off"
          className="input num w-24"
          value={typed}
          aria-invalid={fault === null ? undefined : true}
          onChange={(event) => change(event.target.value)}
        />
        <span className="num w-12 text-sm">{unit.symbol}</span>
      </span>
    </label>
  );
}

/** A bound in SI, said in the unit of the field. */
function boundsIn(message: string, unit: Unit): string {
  return message.replace(/-?\d+(\.\d+)?/, (bound) => {
    const shown = Number(fromSi(Number(bound), unit).toPrecision(4));
    return `${shown} ${unit.symbol}`.trim();
  });
}
