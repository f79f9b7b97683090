"use client";

import Link from "next/link";
import { useEffect, useState } from "react";
import { settleAlarm, useAlarms } from "./alarms";
import { isHeard, sound } from "./siren";

/** What stops is a permit, or all work somewhere that could not be written down. */
const PERMIT = /^P-\d+$/;
/** More alarms at once are one line. */
const TOLD_APART = 4;

/** Alarms over everything else, until somebody looks. They are heard until somebody looks or silences them here. */
export function AlarmBand() {
  const alarms = useAlarms();
  const [silenced, setSilenced] = useState<readonly string[]>([]);
  const isSounding = isHeard(alarms, silenced);
  useEffect(() => (isSounding ? sound() : undefined), [isSounding]);
  const shown = alarms.length > TOLD_APART ? [] : alarms;
  return (
    <div role="alert" className={alarms.length > 0 ? "no-print bg-error text-error-content px-4 py-2 md:px-8" : ""}>
      {alarms.length > TOLD_APART && (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <strong>{alarms.length} permits have stopped.</strong>
          <Link href="/" className="link">
            See the board
          </Link>
          <button type="button" className="link ml-auto" onClick={() => alarms.forEach(settleAlarm)}>
            I have seen it
          </button>
        </p>
      )}
      {shown.map((number) => (
        <p key={number} className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <strong>{PERMIT.test(number) ? `Permit ${number} has stopped.` : `Stop: ${number}.`}</strong>
          <Link
            href={PERMIT.test(number) ? `/permits/${number}` : "/"}
            className="link"
            onClick={() => settleAlarm(number)}
          >
            See why
          </Link>
          <button type="button" className="link ml-auto" onClick={() => settleAlarm(number)}>
            I have seen it
          </button>
        </p>
      ))}
      {isSounding && (
        <p>
          <button type="button" className="link min-h-8" onClick={() => setSilenced(alarms)}>
            Silence the sound here
          </button>
        </p>
      )}
    </div>
  );
}
