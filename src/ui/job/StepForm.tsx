"use client";

import type { PlannedStep } from "../../core/isolation/steps";
import { readNumber } from "../../core/units/readNumber";
import type { UnitSystem } from "../../core/units/units";
import { ActForm } from "../act/ActForm";
import { readingUnit } from "../text/reading";

const BUTTONS: Readonly<Record<string, string>> = {
  tell: "They know",
  stop: "Stopped",
  lock: "Locked and tagged",
  bleed: "Open and clear",
  restrain: "Restrained",
  "run down": "Stands still",
  release: "Harmless",
  cool: "Cooled",
  inert: "Inerted",
  purge: "Purged, blower on",
  discharge: "Discharged and shorted",
  earth: "Earthed",
  "test air": "Tested",
  "remove earth": "Earths off",
  prove: "Proved dead",
  "try start": "Tried, nothing moved",
  "close box": "Box closed",
  clear: "All clear",
  "close bleed": "Closed",
  unlock: "Lock and tag off",
  "hand over": "Handed over",
};

/** What is asked of the person depends on the step: the plate, the lock's number, the reading, the locks they count. */
export function StepForm({
  isolation,
  step,
  label,
  mayDo,
  units,
}: {
  isolation: string;
  step: PlannedStep;
  label: string;
  mayDo: boolean;
  units: UnitSystem;
}) {
  if (!mayDo) return null;
  const unit = step.limit === null ? null : readingUnit(step.limit.unit, units);
  return (
    <div className="mt-2">
      <ActForm
        act="step.do"
        label={label}
        fixed={{ isolation, step: step.id }}
        toInput={(fields) => readStep(fields, unit?.toLimit)}
        pin
        compact
        button={BUTTONS[step.kind] ?? "Done"}
        tone="strong"
      >
        {step.plate !== null && <Small label="Plate reads" name="plate" className="tag w-32" />}
        {step.kind === "lock" && <Small label="Lock number" name="lock" className="tag w-28" />}
        {unit !== null && (
          <Small label={`Reading, ${unit.symbol}`} name="reading" inputMode="decimal" className="num w-28" />
        )}
        {step.limit?.unit === "V" && (
          <label className="flex items-center gap-2 pb-2 text-sm">
            <input type="checkbox" name="testerProved" className="checkbox" /> Tester proved before and after
          </label>
        )}
        {step.kind === "unlock" && (
          <Small label="Personal locks on the box" name="locksCounted" inputMode="numeric" className="num w-20" />
        )}
      </ActForm>
    </div>
  );
}

function Small({ label, className, ...input }: { label: string } & React.InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="flex flex-col gap-1 text-sm">
      <span>{label}</span>
      <input {...input} autoComplete="off" className={`input ${className}`} />
    </label>
  );
}

/** Numbers are sent as numbers, in the unit of the limit; what is no number is sent as it is, to be refused. */
function readStep(fields: FormData, toLimit: (value: number) => number = (value) => value): Record<string, unknown> {
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
  const inLimitUnit = (value: number | string | null) => (typeof value === "number" ? toLimit(value) : value);
  return {
    plate: text("plate"),
    lock: text("lock"),
    reading: inLimitUnit(number("reading")),
    testerProved: fields.get("testerProved") === "on",
    locksCounted: number("locksCounted"),
  };
}
