"use client";

import { scaleLinear } from "d3";
import type { Bar, Timeline, TimelineModel } from "../../core/schedule/timeline";
import { duration } from "../../core/units/format";
import { clock, dayAndClock } from "../text/when";
import { Handle } from "./Handle";
import { lanesOf } from "./lanes";

const WIDTH = 1180;
const LEFT = 136;
const RIGHT = 18;
const TOP = 70;
const ROW = 30;
const BAR = 22;
const HOUR_MS = 3_600_000;
const MINUTE_MS = 60_000;
/** Room below the rows for what is dragged. */
const HANDLE = 34;
/** A label is drawn only where it fits: about so many units a letter, and some room. */
const LETTER = 7.4;
/** A window is a quarter of an hour long at least. */
const STEP_MS = 15 * MINUTE_MS;

type Props = Readonly<{
  timeline: Timeline;
  stage: TimelineModel["stage"];
  window: Readonly<{ from_ms: number; to_ms: number }>;
  permits: readonly Readonly<{ number: string; from_ms: number; to_ms: number }>[];
  shiftHours: readonly number[];
  timeZone: string;
  /** Moves the start of the shutdown. */
  onStart: (start_ms: number) => void;
  onWindowEnd: (to_ms: number) => void;
}>;

/** The drawing in a sentence. */
function summaryOf(timeline: Timeline, stage: TimelineModel["stage"], timeZone: string): string {
  const at = (at_ms: number) => dayAndClock(at_ms, timeZone);
  const from = timeline.mayStart_ms === null ? "may not start yet, as drawn from" : "from";
  return [
    stage === "isolating" ? `Shutdown ${at(timeline.start_ms)}` : `What is left from ${at(timeline.start_ms)}`,
    ...(stage === "restoring" ? [] : [`work ${from} ${at(timeline.workFrom_ms)} to ${at(timeline.workTo_ms)}`]),
    `back ${at(timeline.backAt_ms)}`,
  ].join(", ");
}

/**
 * The day on one axis: a lane for each person, waits below, then work, watch, permits and air tests. What decides the
 * start of work is solid; what may slip is an outline with its slack dotted; waits are hatched.
 */
export function TimelineChart({ timeline, stage, window, permits, shiftHours, timeZone, onStart, onWindowEnd }: Props) {
  const lanes = lanesOf(timeline);
  const from_ms = Math.min(timeline.start_ms, window.from_ms) - HOUR_MS / 2;
  const to_ms = Math.max(timeline.backAt_ms, window.to_ms) + HOUR_MS / 2;
  const x = scaleLinear([from_ms, to_ms], [LEFT, WIDTH - RIGHT]);
  const below = TOP + lanes.length * ROW + 10;
  const rows = { work: below, permits: below + ROW, tests: below + 2 * ROW };
  const bottom = below + 3 * ROW + 2;
  const height = bottom + HANDLE;
  const hours = hoursBetween(from_ms, to_ms, timeZone);

  return (
    <div role="region" aria-label="Timeline" tabIndex={0} className="overflow-x-auto">
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        role="group"
        aria-label={summaryOf(timeline, stage, timeZone)}
        className="w-full min-w-[64rem] touch-pan-y select-none"
        fontSize={13.5}
        fill="currentColor"
      >
        <defs>
          <pattern id="waiting" width={7} height={7} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line y2={7} stroke="currentColor" strokeWidth={2.6} opacity={0.55} />
          </pattern>
          <pattern id="outside" width={10} height={10} patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
            <line y2={10} stroke="currentColor" strokeWidth={1} opacity={0.28} />
          </pattern>
        </defs>
        {(
          [
            [from_ms, window.from_ms],
            [window.to_ms, to_ms],
          ] as const
        ).map(([a, b]) =>
          b > a ? (
            <rect key={a} x={x(a)} y={TOP - 8} width={x(b) - x(a)} height={bottom - TOP + 8} fill="url(#outside)" />
          ) : null,
        )}
        {hours.map(({ at_ms, hour }) => {
          const shift = shiftHours.includes(hour);
          const every = hours.length > 60 ? 12 : hours.length > 26 ? 4 : hours.length > 13 ? 2 : 1;
          if (!shift && hour % every !== 0) return null;
          return (
            <g key={at_ms}>
              <line
                x1={x(at_ms)}
                x2={x(at_ms)}
                y1={TOP - 8}
                y2={bottom}
                stroke={shift ? "var(--dark-part)" : "var(--color-base-300)"}
                strokeWidth={shift ? 1.6 : 1}
              />
              {hour % every === 0 && (
                <text x={x(at_ms)} y={TOP - 14} textAnchor="middle" className="num">
                  {clock(at_ms, timeZone)}
                </text>
              )}
              {hour === 0 && (
                <text x={x(at_ms)} y={TOP - 32} textAnchor="middle" fontWeight={600}>
                  {dayAndClock(at_ms, timeZone).split(",")[0]}
                </text>
              )}
            </g>
          );
        })}
        {lanes.map((lane, i) => (
          <g key={lane.key}>
            <text x={LEFT - 12} y={TOP + i * ROW + 17} textAnchor="end">
              {lane.words}
            </text>
            {lane.bars.map((bar) => (
              <StepBar key={bar.id} bar={bar} x={x} y={TOP + i * ROW} timeZone={timeZone} />
            ))}
          </g>
        ))}
        <line x1={0} x2={WIDTH} y1={below - 6} y2={below - 6} stroke="var(--color-base-300)" />
        <text x={LEFT - 12} y={rows.work + 17} textAnchor="end" fontWeight={700}>
          Work
        </text>
        {stage !== "restoring" && (
          <Span
            from={x(timeline.workFrom_ms)}
            to={x(timeline.workTo_ms)}
            y={rows.work}
            words={timeline.mayStart_ms === null ? "work, not yet" : "work"}
            glow={timeline.mayStart_ms !== null}
          />
        )}
        {timeline.watchTo_ms > timeline.workTo_ms && (
          <Span from={x(timeline.workTo_ms)} to={x(timeline.watchTo_ms)} y={rows.work} words="watch" />
        )}
        {timeline.checks_ms.map((at) => (
          <path key={at} d={`M${x(at)} ${rows.work}v${BAR}`} stroke="currentColor" strokeWidth={2} />
        ))}
        <text x={LEFT - 12} y={rows.permits + 17} textAnchor="end">
          Permits
        </text>
        {(permits.length > 0
          ? permits
          : timeline.permits_ms.map((one, i) => ({ ...one, number: `permit ${i + 1}, to be written` }))
        ).map((one) => (
          <Span
            key={`${one.number}${one.from_ms}`}
            from={Math.max(LEFT, x(one.from_ms))}
            to={Math.min(WIDTH - RIGHT, Math.max(LEFT, x(one.to_ms)))}
            y={rows.permits}
            words={one.number}
          />
        ))}
        <text x={LEFT - 12} y={rows.tests + 17} textAnchor="end">
          Air tested again
        </text>
        {timeline.retests.length === 0 && (
          <text x={Math.max(LEFT, x(timeline.start_ms)) + 12} y={rows.tests + 17} className="halo">
            {timeline.tooFew.length > 0 ? "too few instruments" : "not needed for this work"}
          </text>
        )}
        {timeline.retests.map((one) => (
          <rect
            key={one.to_ms}
            x={x(one.from_ms)}
            width={Math.max(3, x(one.to_ms) - x(one.from_ms))}
            y={rows.tests + 3}
            height={BAR - 6}
            strokeWidth={1.8}
            style={{ fill: "var(--color-base-100)", stroke: "currentColor" }}
          >
            <title>{`test the air again from ${clock(one.from_ms, timeZone)}, over by ${clock(one.to_ms, timeZone)}`}</title>
          </rect>
        ))}
        {stage === "isolating" && (
          <Moment
            at={x(timeline.workFrom_ms)}
            height={bottom}
            words={
              timeline.mayStart_ms === null
                ? `steps done ${clock(timeline.workFrom_ms, timeZone)}, no start yet`
                : `work may start ${clock(timeline.mayStart_ms, timeZone)}`
            }
          />
        )}
        <Handle
          label={stage === "isolating" ? "Start of the shutdown" : "Start of what is left"}
          at_ms={timeline.start_ms}
          range={[from_ms, window.to_ms]}
          x={x}
          top={TOP - 8}
          bottom={bottom}
          timeZone={timeZone}
          onMove={onStart}
        />
        <Handle
          label="End of the window"
          at_ms={window.to_ms}
          range={[timeline.start_ms, to_ms]}
          x={x}
          top={TOP - 8}
          bottom={bottom}
          timeZone={timeZone}
          onMove={(at_ms) => onWindowEnd(Math.max(at_ms, window.from_ms + STEP_MS))}
        />
      </svg>
    </div>
  );
}

type Scale = (at: number) => number;

function StepBar({ bar, x, y, timeZone }: { bar: Bar; x: Scale; y: number; timeZone: string }) {
  const [left, right] = [x(bar.start_ms), x(bar.end_ms)];
  const width = Math.max(2, right - left - 1.5);
  const words = bar.wait ?? bar.label;
  // The tag alone says where, when there is no room for more.
  const fits = [words, bar.label, bar.label.split(" ").at(-1)!].find((one) => one.length * LETTER + 12 < width);
  const solid = bar.critical && bar.wait === null;
  const slack_px = x(bar.end_ms + bar.slack_s * 1000) - right;
  return (
    <g>
      <title>{`${words}: ${clock(bar.start_ms, timeZone)} to ${clock(bar.end_ms, timeZone)}, ${bar.critical ? "decides the start of work" : `may slip ${duration(bar.slack_s)}`}`}</title>
      <rect
        x={left}
        y={y}
        width={width}
        height={BAR}
        strokeWidth={bar.critical ? 2.6 : 1.2}
        style={{
          fill: solid ? "currentColor" : bar.wait === null ? "var(--color-base-100)" : "url(#waiting)",
          stroke: "currentColor",
        }}
      />
      {slack_px > 4 && (
        <line
          x1={right + 2}
          x2={right + slack_px}
          y1={y + BAR - 3}
          y2={y + BAR - 3}
          stroke="currentColor"
          strokeWidth={1.5}
          strokeDasharray="1.5 4"
          opacity={0.75}
        />
      )}
      {fits && (
        <text
          x={left + 6}
          y={y + 16}
          className={bar.wait === null ? "" : "halo"}
          style={{ fill: solid ? "var(--color-base-100)" : "currentColor" }}
          fontWeight={bar.critical ? 700 : 400}
        >
          {fits}
        </text>
      )}
    </g>
  );
}

function Span({
  from,
  to,
  y,
  words,
  glow = false,
}: {
  from: number;
  to: number;
  y: number;
  words: string;
  glow?: boolean;
}) {
  if (to <= from) return null;
  return (
    <g>
      <title>{words}</title>
      <rect
        x={from}
        y={y}
        width={to - from}
        height={BAR}
        strokeWidth={glow ? 2.4 : 1.2}
        style={{ fill: glow ? "var(--glow-soft)" : "var(--color-base-200)", stroke: "currentColor" }}
      />
      {words.length * LETTER + 12 < to - from && (
        <text x={from + 6} y={y + 16} fontWeight={glow ? 700 : 400}>
          {words}
        </text>
      )}
    </g>
  );
}

function Moment({ at, height, words }: { at: number; height: number; words: string }) {
  const right = at > WIDTH * 0.75;
  return (
    <g aria-hidden>
      <line x1={at} x2={at} y1={24} y2={height} stroke="currentColor" strokeWidth={2} strokeDasharray="7 4" />
      <text x={at + (right ? -6 : 6)} y={18} textAnchor={right ? "end" : "start"} fontWeight={700} className="halo">
        {words}
      </text>
    </g>
  );
}

/** Full hours of the site's clock. Zones that are half an hour off have theirs too. */
function hoursBetween(from_ms: number, to_ms: number, timeZone: string): { at_ms: number; hour: number }[] {
  const past = Number(clock(from_ms, timeZone).slice(3)) * MINUTE_MS + (from_ms % MINUTE_MS);
  const found: { at_ms: number; hour: number }[] = [];
  for (let at = from_ms - past + HOUR_MS; at < to_ms; at += HOUR_MS) {
    found.push({ at_ms: at, hour: Number(clock(at, timeZone).slice(0, 2)) });
  }
  return found;
}
