"use client";

import { stepLabel, type PlannedStep } from "../../core/procedure/steps";
import { asksOf } from "../../core/isolation/stepAsks";
import { ActForm } from "../act/ActForm";
import { Small } from "../walk/EvidenceFields";
import { OfferedNumbers } from "../act/OfferedNumbers";
import { Tick } from "../act/Field";
import { ScanField } from "../act/ScanField";
import { Words } from "../text/Words";

type Props = Readonly<{
  permit: string;
  isolation: string;
  job: string;
  /** What is done on the way back, the lock last. */
  steps: readonly PlannedStep[];
  lock: string;
  /** Who was told before. */
  told: readonly string[];
}>;

/** The way back of a minor isolation: each step ticked by who did it, the server asked, and then the own lock comes off. */
export function EndAlone({ permit, isolation, job, steps, lock, told }: Props) {
  const seen = steps.filter(({ kind }) => kind !== "unlock");
  const last = steps.filter(({ kind }) => kind === "unlock");
  return (
    <section aria-label="End" data-next="" className="max-w-prose">
      <ActForm
        act="permit.end-alone"
        label="End alone"
        toRound={(fields) => ({
          round: "alone, off and closed",
          entries: [
            { type: "permit.end-alone", input: { permit } },
            { type: "return.start", input: { isolation } },
            // What is not ticked was not done: then the server says what comes first.
            ...steps.flatMap((step) =>
              fields.get(`done ${step.id}`) === "on"
                ? [
                    {
                      type: "step.do",
                      input: {
                        isolation,
                        step: step.id,
                        ...(step.plate === null ? {} : { plate: String(fields.get("plate") ?? "") }),
                        ...(asksOf(step).words === null ? {} : { words: String(fields.get(`words ${step.id}`) ?? "") }),
                      },
                    },
                  ]
                : [],
            ),
            ...(fields.get("closes") === "on" ? [{ type: "job.close", input: { job } }] : []),
          ],
        })}
        pin
        button={`Sign, then take lock ${lock} off`}
        tone="strong"
      >
        <ol className="border-base-300 divide-base-300 divide-y border-y">
          {[...seen, ...last].map((step) => {
            const asks = asksOf(step);
            return (
              <li key={step.id} aria-label={stepLabel(step)} className="space-y-2 py-2">
                <p>
                  <Words>{step.words}</Words>
                </p>
                {asks.words !== null && (
                  <>
                    <Small label={asks.words} name={`words ${step.id}`} className="w-72 max-w-full" maxLength={500} />
                    <OfferedNumbers name={`words ${step.id}`} numbers={told} />
                  </>
                )}
                {step.plate !== null && (
                  <ScanField name="plate" label="Plate reads" scan="Scan the code on the plate" />
                )}
                <Tick
                  name={`done ${step.id}`}
                  label={
                    step.kind === "unlock"
                      ? `It comes off now, and I put ${step.subject} back`
                      : (DONE[step.kind] ?? "Done")
                  }
                />
              </li>
            );
          })}
        </ol>
        <Tick name="closes" label={`Nothing of ${job} is left to do: close the job`} />
      </ActForm>
    </section>
  );
}

const DONE: Readonly<Partial<Record<PlannedStep["kind"], string>>> = {
  clear: "All out",
  guards: "Guards on",
  "tell all": "They know",
};
