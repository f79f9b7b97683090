"use client";

import type { WalkStep } from "../../core/isolation/isolation";
import { ActForm } from "../act/ActForm";

type Props = Readonly<{
  isolation: string;
  step: WalkStep;
  label: string;
}>;

/** What a step runs for a time with is turned on: from then on its time counts. */
export function BeginForm({ isolation, step, label }: Props) {
  const form = (
    <ActForm
      act="step.begin"
      label={`begin: ${label}`}
      fixed={{ isolation, step: step.id }}
      pin
      compact
      button={step.begun ? "It runs anew" : "It runs"}
      tone={step.begun ? undefined : "strong"}
    />
  );
  return step.begun ? (
    <details className="mt-2">
      <summary className="link w-fit cursor-pointer">It stopped meanwhile: begin anew</summary>
      {form}
    </details>
  ) : (
    <div className="mt-3">{form}</div>
  );
}
