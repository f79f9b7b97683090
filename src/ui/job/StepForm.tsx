"use client";

import type { PlannedStep } from "../../core/isolation/sequence";
import { ActForm } from "../act/ActForm";

const BUTTONS: Readonly<Record<string, string>> = {
  tell: "They know",
  stop: "Stopped",
  lock: "Locked and tagged",
  bleed: "Open and clear",
  release: "Harmless",
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
}: {
  isolation: string;
  step: PlannedStep;
  label: string;
  mayDo: boolean;
}) {
  if (!mayDo) return null;
  return (
    <div className="mt-2">
      <ActForm
        act="step.do"
        label={label}
        fixed={{ isolation, step: step.id }}
        toInput={readStep}
        pin
        compact
        button={BUTTONS[step.kind] ?? "Done"}
        tone="strong"
      >
        {step.plate !== null && <Small label="Plate reads" name="plate" className="tag w-32" />}
        {step.kind === "lock" && <Small label="Lock number" name="lock" className="tag w-28" />}
        {step.limit !== null && (
          <Small label={`Reading, ${step.limit.unit}`} name="reading" inputMode="decimal" className="num w-28" />
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

/** Numbers are sent as numbers; a comma is taken as a decimal point; what is no number is sent as it is, to be refused. */
function readStep(fields: FormData): Record<string, unknown> {
  const text = (name: string) => {
    const value = fields.get(name);
    return typeof value === "string" && value.trim() !== "" ? value.trim() : null;
  };
  const number = (name: string) => {
    const value = text(name);
    if (value === null) return null;
    const plain = value.replace(",", ".");
    return /^-?\d+(\.\d+)?$/.test(plain) ? Number(plain) : value;
  };
  return {
    plate: text("plate"),
    lock: text("lock"),
    reading: number("reading"),
    testerProved: fields.get("testerProved") === "on",
    locksCounted: number("locksCounted"),
  };
}
