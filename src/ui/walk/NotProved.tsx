"use client";

import { openFailures } from "../../core/isolation/failures";
import type { Failure } from "../../core/isolation/isolation";
import { ActForm } from "../act/ActForm";
import { clock } from "../text/when";
import { Words } from "../text/Words";
import { Small } from "./EvidenceFields";

type Props = Readonly<{
  isolation: string;
  step: string;
  label: string;
  failures: readonly Failure[];
  /** Where it may come from, likeliest first. */
  suspects: readonly string[];
  nameOf: Readonly<Record<string, string>>;
  timeZone: string;
  mayDo: boolean;
}>;

/** A proof that failed: what was seen, where it may come from, and the two ways on. It never leaves the record. */
export function NotProved({ isolation, step, label, failures, suspects, nameOf, timeZone, mayDo }: Props) {
  const open = openFailures({ failures });
  const wantsCause = open.some(({ cause }) => cause === null);
  return (
    <div className={open.length > 0 ? "border-error bg-error/10 my-2 border-l-4 px-3 py-2" : "my-1 text-sm"}>
      {open.length > 0 && <strong>Not proved.</strong>}
      <ul>
        {failures.map((failure) => (
          <li key={failure.at_ms}>
            {seen(failure)}
            {failure.instrument && (
              <>
                {" "}
                with <span className="tag">{failure.instrument}</span>
              </>
            )}
            , {nameOf[failure.by]} <span className="num">{clock(failure.at_ms, timeZone)}</span>.
            {failure.cause && ` Came from: ${failure.cause.words}.`}
            {failure.inError &&
              ` Entered in error, says ${nameOf[failure.inError.by]}, who looked: ${failure.inError.words}.`}
          </li>
        ))}
      </ul>
      {open.length > 0 && (
        <>
          {suspects.length > 0 && (
            <>
              <p className="mt-2 font-medium">Where it may come from</p>
              <ol className="list-decimal pl-5">
                {suspects.map((one) => (
                  <li key={one}>
                    <Words>{one}</Words>
                  </li>
                ))}
              </ol>
            </>
          )}
          {mayDo && wantsCause && (
            <ActForm
              act="step.cause"
              label={`cause: ${label}`}
              fixed={{ isolation, step }}
              pin
              compact
              button="That was it"
              tone="strong"
            >
              <Small label="What it came from" name="words" maxLength={500} className="w-72 max-w-full" />
            </ActForm>
          )}
          {!wantsCause && (
            <p className="mt-2">Proved again by another person, or by the same with another instrument.</p>
          )}
          {mayDo && (
            <details className="mt-2">
              <summary className="cursor-pointer py-2 text-sm">It was entered in error</summary>
              <p className="mb-2 text-sm">Only another person who looked at the instrument says so. The entry stays.</p>
              <ActForm
                act="step.entered-in-error"
                label={`in error: ${label}`}
                fixed={{ isolation, step }}
                pin
                compact
                button="I looked: it was entered wrongly"
              >
                <Small label="What the instrument showed" name="words" maxLength={500} className="w-72 max-w-full" />
              </ActForm>
            </details>
          )}
        </>
      )}
    </div>
  );
}

function seen({ what, reading, unit }: Failure): string {
  switch (what) {
    case "not safe":
      return `${reading} ${unit} read`;
    case "leaks":
      return `${reading} ${unit} lost`;
    case "started":
      return "It started or moved when it was tried";
  }
}
