"use client";

import { Link } from "../text/Link";
import { useEffect, useRef, useState } from "react";
import { newActId } from "../act/actId";
import { ANSWER_WITHIN_MS, fetchInTime } from "../net/fetchInTime";
import { keyOf, unseen, type ShownAlarm } from "./alarmList";
import { askAlarms, settleAlarm, useAlarms } from "./alarms";
import { isHeard, sound } from "./siren";

/** What stops is a permit, or all work somewhere that could not be written down. */
const PERMIT = /^P-\d+$/;
/** More alarms at once are one line. */
const TOLD_APART = 4;

/**
 * Alarms over everything else, until somebody who answers for such things says that they see to it. They are heard until then,
 * or until somebody silences them here; what nobody answers becomes more and is heard again.
 */
export function AlarmBand() {
  const known = useAlarms();
  const shown = unseen(known);
  const open = shown.filter(({ answeredBy }) => answeredBy === null);
  const keys = open.map(keyOf);
  const [silenced, setSilenced] = useState<readonly string[]>([]);
  const isSounding = isHeard(keys, silenced);
  useEffect(() => {
    void askAlarms();
  }, []);
  useEffect(() => (isSounding ? sound() : undefined), [isSounding]);
  const band = useRef<HTMLDivElement>(null);
  useEffect(() => tellHeight(band.current!), []);
  const see = (alarms: readonly ShownAlarm[]) => alarms.forEach((one) => settleAlarm(keyOf(one)));
  const isMany = shown.length > TOLD_APART;
  const tone = open.length > 0 ? "bg-error text-error-content" : "bg-base-300";
  return (
    <div ref={band} role="alert" className={shown.length > 0 ? `no-print ${tone} px-4 py-2 md:px-8` : ""}>
      {isMany && (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <strong>{open.length} permits have stopped.</strong>
          <Link href="/" className="link">
            See the board
          </Link>
          <Answer alarms={open} mayAnswer={known.mayAnswer} see={see} />
        </p>
      )}
      {!isMany &&
        shown.map((alarm) => (
          <p key={keyOf(alarm)} className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <strong>
              {PERMIT.test(alarm.subject) ? `Permit ${alarm.subject} has stopped.` : `Stop: ${alarm.subject}.`}
            </strong>
            {alarm.words !== null && <strong>{alarm.words}</strong>}
            {alarm.answeredBy !== null && <span>{alarm.answeredBy} sees to it.</span>}
            <Link href={PERMIT.test(alarm.subject) ? `/permits/${alarm.subject}` : "/"} className="link">
              See why
            </Link>
            <Answer alarms={[alarm]} mayAnswer={known.mayAnswer} see={see} />
          </p>
        ))}
      {isSounding && (
        <p className="text-sm">
          <button type="button" className="link min-h-11 md:min-h-8" onClick={() => setSilenced(keys)}>
            Silence the sound here
          </button>
        </p>
      )}
    </div>
  );
}

/** A bench below is as much shorter as the alarms are high. */
function tellHeight(band: HTMLElement): () => void {
  const root = document.documentElement.style;
  const observer = new ResizeObserver(() => root.setProperty("--alarms", `${band.offsetHeight}px`));
  observer.observe(band);
  return () => {
    observer.disconnect();
    root.removeProperty("--alarms");
  };
}

/** Seen to, by name, for everybody; or seen, here only. */
function Answer(p: {
  alarms: readonly ShownAlarm[];
  mayAnswer: boolean;
  see: (alarms: readonly ShownAlarm[]) => void;
}) {
  const [fault, setFault] = useState("");
  const open = p.alarms.flatMap(({ seq, answeredBy }) => (seq !== null && answeredBy === null ? [seq] : []));
  async function answer() {
    setFault("");
    try {
      for (const alarm of open) {
        const body = JSON.stringify({ version: 1, actId: newActId(), type: "alarm.answer", input: { alarm } });
        const headers = { "content-type": "application/json" };
        const response = await fetchInTime("/api/acts", { method: "POST", headers, body }, ANSWER_WITHIN_MS.act);
        // Somebody was quicker: what they said is on its way here.
        if (!response.ok && response.status >= 500) throw new Error();
      }
    } catch {
      setFault("The server did not answer. Try again, or say it by radio.");
    }
    await askAlarms();
  }
  return (
    <span className="ml-auto flex items-center gap-x-4">
      {fault !== "" && <span>{fault}</span>}
      {p.mayAnswer && open.length > 0 && (
        <button
          type="button"
          className="min-h-11 rounded border border-current px-3 font-semibold md:min-h-8"
          onClick={() => void answer()}
        >
          I see to it
        </button>
      )}
      <button type="button" className="link min-h-11 md:min-h-8" onClick={() => p.see(p.alarms)}>
        I have seen it
      </button>
    </span>
  );
}
