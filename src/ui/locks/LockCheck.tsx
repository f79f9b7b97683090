"use client";

import { ActForm } from "../act/ActForm";
import { Field, Tick } from "../act/Field";

type Props = Readonly<{
  isolation: string;
  job: string;
  /** What is locked now, and where that is. */
  points: readonly Readonly<{ tag: string; where: string }>[];
}>;

/** The locks of an isolation that stands, read at their points: nobody is told beforehand which should be there. */
export function LockCheck({ isolation, job, points }: Props) {
  return (
    <ActForm
      act="isolation.check-locks"
      label="Read the locks"
      toInput={(fields) => ({
        isolation,
        found: points.map(({ tag }, i) => ({
          point: tag,
          lock: String(fields.get(`found.${i}.lock`) ?? ""),
          none: fields.get(`found.${i}.none`) === "on",
        })),
      })}
      pin
      button="I read these at the points"
      tone="strong"
      then={`/jobs/${job}/walk`}
    >
      <ol className="border-base-300 divide-base-300 divide-y border-y">
        {points.map(({ tag, where }, i) => (
          <li key={tag} className="grid gap-x-6 gap-y-2 py-3 sm:grid-cols-[minmax(0,1fr)_12rem_auto] sm:items-end">
            <p>
              <span className="tag text-lg">{tag}</span>
              {where && <span className="block text-sm opacity-85">{where}</span>}
            </p>
            <Field label={`Lock on ${tag}`} name={`found.${i}.lock`} autoComplete="off" className="num min-h-11" />
            <div className="flex min-h-11 items-center">
              <Tick name={`found.${i}.none`} label="No lock hangs there" />
            </div>
          </li>
        ))}
      </ol>
    </ActForm>
  );
}
