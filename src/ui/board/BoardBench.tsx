"use client";

import { Link } from "../text/Link";
import { useCallback, useEffect, useMemo, useState, type ReactNode } from "react";
import { pictureAt } from "../../core/board/pictureAt";
import type { ConflictRow, DueRow } from "../../core/board/rows";
import { valueAt, type SiteTracks } from "../../core/board/tracks";
import type { Area } from "../../core/plant/plant";
import { dayAndClock } from "../text/when";
import { AreaTime, TIME_FROM } from "./AreaTime";
import { Conflicts } from "./Conflicts";
import { DueList } from "./DueList";
import { dueWords } from "./dueWords";
import { LevelChoice } from "./LevelChoice";
import { SiteMap } from "./SiteMap";
import { rowsOf } from "./timeRows";
import { TryWindow, type Trial } from "./TryWindow";

const MINUTE_MS = 60_000;
/** The cursor moves in steps of so much. */
const STEP_MS = 5 * MINUTE_MS;

/** What is shown of the site. */
export type BoardData = Readonly<{
  window: Readonly<{ from_ms: number; to_ms: number }>;
  areas: readonly Area[];
  tracks: SiteTracks;
  due: readonly DueRow[];
  conflicts: readonly ConflictRow[];
  unplanned: number;
  shared: readonly Readonly<{ point: string; jobs: readonly string[] }>[];
}>;

type Props = Readonly<{
  /** As JSON: a large site is thousands of small objects, and one text is written and read many times faster. */
  data: string;
  now_ms: number;
  timeZone: string;
  mayDecide: boolean;
  /** What else is at hand: the list of jobs, the handover, a new request. */
  children: ReactNode;
}>;

/** The site now, before and after: the plan, time by area, and what is due, linked to each other. */
export function BoardBench(props: Props) {
  const { data, now_ms, timeZone, mayDecide, children } = props;
  const site = useMemo(() => JSON.parse(data) as BoardData, [data]);
  const { window, areas, tracks, due, conflicts, unplanned, shared } = site;
  const now = useNow(now_ms);
  /** Null follows the clock. */
  const [chosen_ms, setChosen] = useState<number | null>(null);
  const [level_m, setLevel] = useState<number | null>(null);
  const [area, setArea] = useState("");
  const [shown, setShown] = useState<string | null>(null);
  const choose = useCallback((number: string | null) => setShown(number), []);
  const isNowIn = window.from_ms <= now && now < window.to_ms;
  const at_ms = chosen_ms ?? (isNowIn ? now : window.from_ms);
  const [trial, setTrial] = useState<Trial | null>(null);
  const moved = useMemo(() => withTrial(tracks, trial), [tracks, trial]);
  const picture = useMemo(() => pictureAt(moved, at_ms, now), [moved, at_ms, now]);
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const open = useCallback(
    (name: string) =>
      setOpened((before) => new Set(before.has(name) ? [...before].filter((one) => one !== name) : [...before, name])),
    [],
  );
  const tried = trial?.job ?? null;
  const rows = useMemo(
    () => rowsOf(moved, window, now_ms, { only: area, opened, trial: tried }),
    [moved, window, now_ms, area, opened, tried],
  );
  const planned = useMemo(() => plannedJobs(tracks, now), [tracks, now]);
  const drag = useCallback((job: string, by_ms: number) => setTrial({ job, by_ms }), []);
  const pins = useMemo(
    () =>
      due
        .filter(({ what }) => what !== "next act" && what !== "conflict")
        .map((row) => ({ ...row, words: dueWords(row) })),
    [due],
  );
  const reaching = useMemo(() => conflicts.filter((one) => !one.isOfHands && one.decided === null), [conflicts]);
  const when = chosen_ms === null && isNowIn ? "Now" : at_ms > now ? "Planned" : "As it was";
  const share = (at_ms - window.from_ms) / (window.to_ms - window.from_ms);
  const areasShown = useMemo(() => [...new Set(areas.map(({ name }) => name))].sort(), [areas]);
  return (
    <div className="board">
      <section aria-label="The site" className="board-pane board-site">
        <div className="board-head">
          <p className="whitespace-nowrap">
            <strong>{when}</strong>, <span className="num">{dayAndClock(at_ms, timeZone)}</span>
          </p>
          <LevelChoice areas={areas} picture={picture} level_m={level_m} choose={setLevel} />
          <p className="ml-auto whitespace-nowrap" role="status">
            {at_ms > now ? (
              "Who will be on is not known"
            ) : (
              <>
                <Link href="/people/here" className="link">
                  {picture.heads === 1 ? "1 person" : `${picture.heads} people`}
                </Link>
                {picture.inside > 0 && <strong className="text-error">, {picture.inside} inside</strong>}
              </>
            )}
          </p>
        </div>
        <div className="board-scroll" tabIndex={0} role="region" aria-label="Site plan, scrolls">
          {areas.length > 0 && (
            <SiteMap areas={areas} picture={picture} level_m={level_m} shown={shown} choose={choose} />
          )}
        </div>
      </section>
      <section aria-label="Time by area" className="board-pane board-time">
        <div className="board-head">
          <p>
            <strong>Time by area</strong>
          </p>
          {chosen_ms !== null && (
            <button type="button" className="btn btn-sm" onClick={() => setChosen(null)}>
              {isNowIn ? "Back to now" : "Back to the start"}
            </button>
          )}
          <label className="ml-auto flex items-center gap-2">
            <span className="sr-only">Area</span>
            <select className="select select-sm" value={area} onChange={(event) => setArea(event.target.value)}>
              <option value="">all areas</option>
              {areasShown.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </label>
        </div>
        <div className="board-scroll">
          <div className="board-times">
            <input
              type="range"
              className="board-cursor"
              style={{ marginLeft: `${TIME_FROM * 100}%`, width: `${(1 - TIME_FROM) * 100}%` }}
              aria-label="Moment that is shown"
              aria-valuetext={`${when}, ${dayAndClock(at_ms, timeZone)}`}
              min={0}
              max={Math.round((window.to_ms - window.from_ms) / STEP_MS)}
              value={Math.round((at_ms - window.from_ms) / STEP_MS)}
              onChange={(event) => setChosen(window.from_ms + Number(event.target.value) * STEP_MS)}
            />
            <div className="relative">
              <AreaTime
                rows={rows}
                window={window}
                now_ms={now_ms}
                timeZone={timeZone}
                due={pins}
                conflicts={reaching}
                shown={shown}
                choose={choose}
                trial={trial}
                drag={drag}
                open={open}
              />
              <div
                aria-hidden
                className="board-cursor-line"
                style={{ left: `${(TIME_FROM + share * (1 - TIME_FROM)) * 100}%` }}
              />
            </div>
            {rows.length === 0 && <p className="p-4">Nothing is planned or under way here in this time.</p>}
          </div>
        </div>
        <TryWindow jobs={planned} trial={trial} choose={setTrial} timeZone={timeZone} />
        <nav aria-label="Other days" className="board-foot">
          <Link className="link" href={`/?at=${window.from_ms}`}>
            Earlier
          </Link>
          {!isNowIn && (
            <Link className="link" href="/">
              Now
            </Link>
          )}
          <Link className="link ml-auto" href={`/?at=${window.to_ms}`}>
            Later
          </Link>
        </nav>
      </section>
      <section aria-label="Due" className="board-due-pane">
        <DueList rows={due} area={area} now_ms={now} timeZone={timeZone} shown={shown} choose={choose}>
          {children}
        </DueList>
        <Conflicts rows={conflicts} unplanned={unplanned} shared={shared} timeZone={timeZone} mayDecide={mayDecide} />
      </section>
    </div>
  );
}

/** The time, that goes on while the page is open. */
function useNow(now_ms: number): number {
  const [now, setNow] = useState(now_ms);
  useEffect(() => {
    const begun = performance.now();
    const tick = setInterval(() => setNow(now_ms + performance.now() - begun), 20_000);
    return () => clearInterval(tick);
  }, [now_ms]);
  return Math.max(now, now_ms);
}

/** Jobs that may still begin at another time: no permit of theirs is out, and nothing is locked for them that the board shows. */
function plannedJobs(tracks: SiteTracks, now_ms: number): SiteTracks["jobs"] {
  const out = new Set(
    tracks.permits.filter(({ states }) => OUT.includes(valueAt(states, now_ms) ?? "draft")).map(({ job }) => job),
  );
  return tracks.jobs.filter(({ number, over_ms, isUnderWay }) => over_ms === null && !isUnderWay && !out.has(number));
}
const OUT: readonly string[] = ["issued", "live", "suspended", "run out", "watching"];

/** The same site with one job's window moved. */
function withTrial(tracks: SiteTracks, trial: Trial | null): SiteTracks {
  if (trial === null || trial.by_ms === 0) return tracks;
  const later = (at_ms: number) => at_ms + trial.by_ms;
  return {
    ...tracks,
    jobs: tracks.jobs.map((job) =>
      job.number === trial.job ? { ...job, from_ms: later(job.from_ms), to_ms: later(job.to_ms) } : job,
    ),
    permits: tracks.permits.map((permit) =>
      permit.job === trial.job
        ? { ...permit, validFrom_ms: later(permit.validFrom_ms), validTo_ms: later(permit.validTo_ms) }
        : permit,
    ),
  };
}
