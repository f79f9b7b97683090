"use client";

import { memo, useRef, type MouseEvent, type PointerEvent } from "react";
import { scaleTime } from "d3";
import { clock } from "../text/when";
import type { Bar, TimeRow } from "./timeRows";
import { QUARTER_MS } from "./TryWindow";

const NAMES = 130;
const WIDTH = 560;
const LANE = 22;
const BAR = 16;
const HEAD = 22;
const TEXT = 12;

/** Time by area. What does not move with the cursor is drawn once. */
export const AreaTime = memo(function AreaTime({
  rows,
  window: { from_ms, to_ms },
  now_ms,
  timeZone,
  due,
  conflicts,
  shown,
  choose,
  trial,
  drag,
  open,
}: {
  rows: readonly TimeRow[];
  window: Readonly<{ from_ms: number; to_ms: number }>;
  now_ms: number;
  timeZone: string;
  due: readonly Readonly<{ about: string; due_ms: number | null; words: string }>[];
  conflicts: readonly Readonly<{ of: string; with: string; from_ms: number; words: string }>[];
  shown: string | null;
  choose: (number: string | null) => void;
  /** A planned job whose window is tried elsewhere. */
  trial: Readonly<{ job: string; by_ms: number }> | null;
  drag: (job: string, by_ms: number) => void;
  /** Shows all of an area, or again only what is next. */
  open: (area: string) => void;
}) {
  const x = scaleTime([from_ms, to_ms], [NAMES, WIDTH]);
  const dragging = useDragging((to_ms - from_ms) / (1 - NAMES / WIDTH), drag);
  const tops = rows.map((_, index) => rows.slice(0, index).reduce((sum, row) => sum + lanesOf(row), 0));
  const lanes = rows.reduce((sum, row) => sum + lanesOf(row), 0);
  const height = HEAD + Math.max(1, lanes) * LANE + 6;
  const placed = rows.flatMap((row, index) =>
    row.lanes.flatMap((bars, lane) => bars.map((bar) => ({ bar, y: HEAD + (tops[index]! + lane) * LANE }))),
  );
  const yOf = (number: string) => placed.find(({ bar }) => bar.number === number || bar.job === number)?.y;
  const hours = hoursBetween(from_ms, to_ms, timeZone);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${height}`} className="block w-full" role="group" aria-label="Time by area">
      {hours.map((at_ms) => (
        <g key={at_ms}>
          <line x1={x(at_ms)} x2={x(at_ms)} y1={HEAD - 4} y2={height} className="board-hour" />
          <text x={x(at_ms)} y={14} fontSize={TEXT} textAnchor="middle" className="board-name font-mono">
            {clock(at_ms, timeZone)}
          </text>
        </g>
      ))}
      {rows.map(({ area }, index) => (
        <g key={area}>
          <line
            x1={0}
            x2={WIDTH}
            y1={HEAD + tops[index]! * LANE - 2}
            y2={HEAD + tops[index]! * LANE - 2}
            className="board-hour"
          />
          <text x={2} y={HEAD + tops[index]! * LANE + 13} fontSize={TEXT} className="board-name">
            {area === "" ? "no area" : area}
          </text>
        </g>
      ))}
      {rows.map((row, index) => {
        if (!hasSwitch(row)) return null;
        const y = HEAD + (tops[index]! + row.lanes.length) * LANE;
        const words = row.isOpened ? "only what is out or next" : `${row.more} more, planned or over`;
        return (
          <g
            key={row.area}
            role="button"
            tabIndex={0}
            aria-expanded={row.isOpened}
            aria-label={`${row.area === "" ? "no area" : row.area}: ${words}`}
            className="board-more"
            onClick={() => open(row.area)}
            onKeyDown={(event) => {
              if (event.key !== "Enter" && event.key !== " ") return;
              event.preventDefault();
              open(row.area);
            }}
          >
            <rect x={0} y={y - 2} width={WIDTH} height={LANE} className="board-more-room" />
            <text x={NAMES + 4} y={y + 13} fontSize={TEXT}>
              {words}
            </text>
          </g>
        );
      })}
      {conflicts.map((one) => {
        const [a, b] = [yOf(one.of), yOf(one.with)];
        if (a === undefined || b === undefined || one.from_ms < from_ms || one.from_ms > to_ms) return null;
        const at = x(Math.max(one.from_ms, from_ms)) + 3;
        return (
          <line
            key={one.words}
            x1={at}
            x2={at}
            y1={Math.min(a, b) + BAR / 2}
            y2={Math.max(a, b) + BAR / 2}
            className="board-conflict"
          >
            <title>{one.words}</title>
          </line>
        );
      })}
      {placed.map(({ bar, y }) => {
        const left = x(Math.max(bar.from_ms, from_ms));
        const right = Math.max(left + 4, x(Math.min(bar.to_ms, to_ms)));
        const room = right - left > bar.number.length * 7 + 6;
        const isShown = shown === bar.number || shown === bar.job;
        return (
          <a
            key={bar.number}
            href={bar.href}
            aria-label={`${bar.number}, ${bar.title}, ${clock(bar.from_ms, timeZone)} to ${clock(bar.to_ms, timeZone)}`}
            className={`board-bar board-bar-${bar.tone} ${isShown ? "board-work-shown" : ""}`}
            onPointerEnter={() => choose(bar.number)}
            onPointerLeave={() => choose(null)}
            onFocus={() => choose(bar.number)}
            onBlur={() => choose(null)}
            draggable={false}
            {...(bar.tone === "planned" ? dragging.on(bar, trial?.job === bar.job ? trial.by_ms : 0) : {})}
          >
            <title>{`${bar.number} ${bar.title}`}</title>
            <rect x={left} y={y} width={right - left} height={BAR} rx={3} />
            <text
              x={room ? left + 4 : right + 4 > WIDTH - 50 ? left - 4 : right + 4}
              y={y + 12.5}
              fontSize={TEXT}
              textAnchor={!room && right + 4 > WIDTH - 50 ? "end" : "start"}
              className="font-mono"
            >
              {bar.number}
            </text>
          </a>
        );
      })}
      {due.map(({ about, due_ms, words }) => {
        const y = yOf(about);
        if (y === undefined || due_ms === null || due_ms < from_ms || due_ms > to_ms) return null;
        return (
          <rect
            key={`${about} ${due_ms} ${words}`}
            x={x(due_ms) - 4}
            y={y + BAR - 5}
            width={7}
            height={7}
            className="board-due"
            transform={`rotate(45 ${x(due_ms)} ${y + BAR - 1})`}
          >
            <title>{`${about}: ${words}`}</title>
          </rect>
        );
      })}
      <line x1={x(now_ms)} x2={x(now_ms)} y1={HEAD - 8} y2={height} className="board-now" />
    </svg>
  );
});

const hasSwitch = (row: TimeRow) => row.more > 0 || row.isOpened;
const lanesOf = (row: TimeRow) => row.lanes.length + (hasSwitch(row) ? 1 : 0);

/** A hand is never quite still. */
const STILL_px = 4;

/** A planned bar is dragged to another time; a touch without moving follows its link. `whole_ms` is the picture's width in time. */
function useDragging(whole_ms: number, drag: (job: string, by_ms: number) => void) {
  const from = useRef<Readonly<{ x: number; by_ms: number; per_px: number }> | null>(null);
  const hasMoved = useRef(false);
  return {
    on: (bar: Bar, by_ms: number) => ({
      onPointerDown: (event: PointerEvent<HTMLAnchorElement>) => {
        if (event.button !== 0) return;
        const width = event.currentTarget.closest("svg")!.getBoundingClientRect().width;
        from.current = { x: event.clientX, by_ms, per_px: whole_ms / width };
        hasMoved.current = false;
        event.currentTarget.setPointerCapture(event.pointerId);
      },
      onPointerMove: ({ clientX }: PointerEvent<HTMLAnchorElement>) => {
        if (from.current === null) return;
        const moved_px = clientX - from.current.x;
        if (!hasMoved.current && Math.abs(moved_px) < STILL_px) return;
        hasMoved.current = true;
        const to_ms = from.current.by_ms + moved_px * from.current.per_px;
        drag(bar.job, Math.round(to_ms / QUARTER_MS) * QUARTER_MS);
      },
      onPointerUp: () => (from.current = null),
      onPointerCancel: () => (from.current = null),
      onClick: (event: MouseEvent) => {
        if (hasMoved.current) event.preventDefault();
      },
    }),
  };
}

/** Where in its picture the times begin and end, in parts of its width: the cursor moves between. */
export const TIME_FROM = NAMES / WIDTH;

/** Every fourth hour by the site's clock. */
function hoursBetween(from_ms: number, to_ms: number, timeZone: string): number[] {
  const hour_ms = 3_600_000;
  const found: number[] = [];
  for (let at_ms = Math.ceil(from_ms / hour_ms) * hour_ms; at_ms < to_ms; at_ms += hour_ms) {
    if (Number(clock(at_ms, timeZone).slice(0, 2)) % 4 === 0) found.push(at_ms);
  }
  return found;
}
