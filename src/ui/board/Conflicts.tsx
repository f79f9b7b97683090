"use client";

import { Link } from "../text/Link";
import { useState } from "react";
import type { ConflictRow } from "../../core/board/rows";
import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";
import { ANSWER_WITHIN_MS, fetchInTime } from "../net/fetchInTime";
import { dayAndClock } from "../text/when";

/** Where jobs touch, now and within six weeks, with ways out; who answers for both decides, and the decision is kept. */
export function Conflicts({
  rows,
  unplanned,
  shared,
  timeZone,
  mayDecide,
}: {
  rows: readonly ConflictRow[];
  unplanned: number;
  shared: readonly Readonly<{ point: string; jobs: readonly string[] }>[];
  timeZone: string;
  mayDecide: boolean;
}) {
  const [isWhole, setWhole] = useState(false);
  const [isHands, setHands] = useState(false);
  const open = rows.filter(({ decided }) => decided === null);
  const reaching = open.filter(({ isOfHands }) => !isOfHands);
  const ofHands = open.filter(({ isOfHands }) => isOfHands);
  const settled = rows.filter(({ decided }) => decided !== null);
  const one = (row: ConflictRow) => <OpenRow key={row.id} row={row} timeZone={timeZone} mayDecide={mayDecide} />;
  return (
    <div id="conflicts" className="scroll-mt-20">
      <div className="board-head">
        <h2 className="font-semibold">Conflicts</h2>
        <p className="text-sm opacity-85">
          {reaching.length === 0 ? "none open" : `${reaching.length} open`}, within six weeks
          {unplanned > 0 &&
            `. ${unplanned === 1 ? "One job has" : `${unplanned} jobs have`} no approved points: it is not known what they will stop`}
        </p>
      </div>
      <ul className="board-dues">
        {reaching.slice(0, isWhole ? undefined : FIRST).map(one)}
        {!isWhole && reaching.length > FIRST && (
          <li className="px-4 py-2">
            <button type="button" className="link min-h-8" onClick={() => setWhole(true)}>
              Show all {reaching.length}
            </button>
          </li>
        )}
        {settled.map((row) => (
          <li key={row.id} className="board-conflict-row opacity-90">
            <p>{row.words}</p>
            <p className="text-sm">
              {row.decided!.by}, {dayAndClock(row.decided!.at_ms, timeZone)}: {row.decided!.reason}
            </p>
          </li>
        ))}
      </ul>
      {ofHands.length > 0 && (
        <details className="px-4 py-2" onToggle={({ currentTarget }) => setHands(currentTarget.open)}>
          <summary className="link inline-flex min-h-6 cursor-pointer items-center">
            {ofHands.length} more: people or gear planned for two jobs at once
          </summary>
          {isHands && <ul className="mt-1">{ofHands.slice(0, SHARED_MOST).map(one)}</ul>}
        </details>
      )}
      {shared.length > 0 && (
        <details className="px-4 py-2">
          <summary className="link inline-flex min-h-6 cursor-pointer items-center">
            {shared.length === 1 ? "1 point is" : `${shared.length} points are`} held by more than one job: share the
            isolation
          </summary>
          <ul className="mt-1">
            {shared.slice(0, SHARED_MOST).map(({ point, jobs }) => (
              <li key={point} className="board-conflict-row">
                <span className="tag mr-3">{point}</span>
                {jobs.slice(0, JOBS_MOST).join(", ")}
                {jobs.length > JOBS_MOST && ` and ${jobs.length - JOBS_MOST} more`}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

const FIRST = 8;
const SHARED_MOST = 60;
const JOBS_MOST = 12;
const NO_ANSWER = "The server did not answer: close this and open it again.";

function OpenRow({ row, timeZone, mayDecide }: { row: ConflictRow; timeZone: string; mayDecide: boolean }) {
  const [isOpen, setOpen] = useState(false);
  const [ways, setWays] = useState<readonly string[] | string>("Looking…");
  const ask = () => {
    fetchInTime(`/api/board/ways?conflict=${encodeURIComponent(row.id)}`, {}, ANSWER_WITHIN_MS.act)
      .then(async (response) => (await response.json()) as { ways?: string[]; sentence?: string })
      .then(({ ways: found, sentence }) => setWays(found ?? sentence ?? NO_ANSWER))
      .catch(() => setWays(NO_ANSWER));
  };
  return (
    <li className="board-conflict-row">
      <p>
        {row.words}{" "}
        <span className="num whitespace-normal opacity-85">
          {dayAndClock(row.from_ms, timeZone)} to {dayAndClock(row.to_ms, timeZone)}.
        </span>
      </p>
      <details
        className="mt-1"
        onToggle={({ currentTarget }) => {
          setOpen(currentTarget.open);
          if (currentTarget.open) ask();
        }}
      >
        <summary className="link inline-flex min-h-6 cursor-pointer items-center text-sm">
          Ways out{mayDecide && ", and decide"}
        </summary>
        <ul aria-label="Ways out" className="mt-1 list-disc pl-6">
          {typeof ways === "string" ? (
            <li className="list-none">{ways}</li>
          ) : (
            ways.map((way) => <li key={way}>{way}.</li>)
          )}
        </ul>
        <p className="mt-1 text-sm opacity-85">
          Rule: {row.rule}. Change the window on{" "}
          <Link className="link tag" href={`/jobs/${row.of}/ask`}>
            {row.of}
          </Link>{" "}
          or{" "}
          <Link className="link tag" href={`/jobs/${row.with}/ask`}>
            {row.with}
          </Link>
          .
        </p>
        {mayDecide && isOpen && (
          <div className="mt-2 max-w-xl">
            <ActForm
              act="conflict.decide"
              label={`Decide: ${row.words}`}
              fixed={{ conflict: row.id, from_ms: row.from_ms, to_ms: row.to_ms }}
              pin
              button="Both may go on"
              compact
            >
              <Field label="What is done so that both can go on" name="reason" maxLength={500} required />
            </ActForm>
          </div>
        )}
      </details>
    </li>
  );
}
