"use client";

import { Link } from "../text/Link";
import { useEffect, useState } from "react";
import type { Tried } from "../../core/board/rows";
import { ANSWER_WITHIN_MS, fetchInTime } from "../net/fetchInTime";
import { dayAndClock, span } from "../text/when";

/** A planned job, and by how much its window is tried elsewhere. */
export type Trial = Readonly<{ job: string; by_ms: number }>;
type Planned = Readonly<{ number: string; title: string; from_ms: number; to_ms: number }>;

/** Windows are moved by quarters of an hour. */
export const QUARTER_MS = 900_000;
/** As far as the slider goes, in quarters of an hour. */
const BACK = -4 * 24;
const AHEAD = 4 * 24 * 7;
/** While somebody drags nobody is asked. */
const SETTLES_MS = 120;

/** What if a planned job began earlier or later? Conflicts appear and go; nothing is changed. */
export function TryWindow({
  jobs,
  trial,
  choose,
  timeZone,
}: {
  jobs: readonly Planned[];
  trial: Trial | null;
  choose: (trial: Trial | null) => void;
  timeZone: string;
}) {
  const tried = useTried(trial);
  if (jobs.length === 0) return null;
  const job = jobs.find(({ number }) => number === trial?.job);
  const found = tried === null || tried === "gone" ? [] : tried.conflicts;
  const hands = found.filter(({ isOfHands }) => isOfHands);
  const reaching = found.filter(({ isOfHands }) => !isOfHands);
  return (
    <section aria-label="Another time for a planned job" className="border-base-300 border-t px-4 py-2 text-sm">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <label className="flex items-center gap-2">
          What if
          <select
            className="select select-sm w-auto"
            value={trial?.job ?? ""}
            onChange={({ target }) => choose(target.value === "" ? null : { job: target.value, by_ms: 0 })}
          >
            <option value="">choose a planned job</option>
            {jobs.map(({ number, title }) => (
              <option key={number} value={number}>
                {number} {title}
              </option>
            ))}
          </select>
        </label>
        {job && trial && (
          <>
            <span>
              began <strong>{shiftWords(trial.by_ms)}</strong>,{" "}
              <span className="num">{dayAndClock(job.from_ms + trial.by_ms, timeZone)}</span>
            </span>
            <button type="button" className="link ml-auto" onClick={() => choose(null)}>
              Let it be
            </button>
          </>
        )}
      </div>
      {job && trial && (
        <>
          <input
            type="range"
            className="board-cursor my-1 w-full"
            aria-label={`Begin ${job.number}`}
            aria-valuetext={`${shiftWords(trial.by_ms)}, ${dayAndClock(job.from_ms + trial.by_ms, timeZone)}`}
            min={BACK}
            max={AHEAD}
            value={Math.round(trial.by_ms / QUARTER_MS)}
            onChange={({ target }) => choose({ job: job.number, by_ms: Number(target.value) * QUARTER_MS })}
          />
          <div role="status">
            {tried === null && <p>Looking…</p>}
            {tried === "gone" && <p>It is not planned any more, or the server did not answer.</p>}
            {tried !== null && tried !== "gone" && (
              <>
                <p>
                  {tried.conflicts.length === 0
                    ? "It touches nobody then."
                    : `${reaching.length === 1 ? "1 conflict" : `${reaching.length} conflicts`}${hands.length > 0 ? `, and ${hands.length} over people or gear` : ""}.`}{" "}
                  {tried.freeBy_ms !== null && tried.freeBy_ms > 0 && (
                    <button
                      type="button"
                      className="link"
                      onClick={() => choose({ job: job.number, by_ms: trial.by_ms + tried.freeBy_ms! })}
                    >
                      First free: {dayAndClock(job.from_ms + trial.by_ms + tried.freeBy_ms, timeZone)}
                    </button>
                  )}
                </p>
                <ul>
                  {reaching.slice(0, SHOWN).map((row) => (
                    <li key={row.id}>{row.words}</li>
                  ))}
                </ul>
                {trial.by_ms !== 0 && (
                  <Link className="link" href={`/jobs/${job.number}/ask`}>
                    Change the window of {job.number}
                  </Link>
                )}
              </>
            )}
          </div>
        </>
      )}
    </section>
  );
}

const SHOWN = 6;

function shiftWords(by_ms: number): string {
  if (by_ms === 0) return "as planned";
  return `${span(by_ms)} ${by_ms > 0 ? "later" : "earlier"}`;
}

/** Null while it is asked; "gone" where there is no answer. */
function useTried(trial: Trial | null): Tried | "gone" | null {
  const [answer, setAnswer] = useState<Readonly<{ of: Trial; tried: Tried | "gone" }> | null>(null);
  useEffect(() => {
    if (trial === null) return;
    let isOver = false;
    const timer = setTimeout(() => {
      const address = `/api/board/try?job=${encodeURIComponent(trial.job)}&by_min=${trial.by_ms / 60_000}`;
      fetchInTime(address, {}, ANSWER_WITHIN_MS.act)
        .then(async (response) => (response.ok ? ((await response.json()) as Tried) : "gone"))
        .catch(() => "gone" as const)
        .then((tried) => {
          if (!isOver) setAnswer({ of: trial, tried });
        });
    }, SETTLES_MS);
    return () => {
      isOver = true;
      clearTimeout(timer);
    };
  }, [trial]);
  return trial !== null && answer?.of === trial ? answer.tried : null;
}
