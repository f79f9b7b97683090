"use client";

import { Link } from "../text/Link";
import { useEffect, useState } from "react";
import { permitState } from "../../core/words/en/permitState";
import { clock, span } from "../text/when";

type Bar = Readonly<{
  number: string;
  title: string;
  from_ms: number;
  to_ms: number;
  state: string;
  runOut: boolean;
  on: number;
  /** What falls due under it, soonest first. */
  due: readonly Readonly<{ at_ms: number; what: string }>[];
}>;

const HOUR_MS = 3_600_000;
const BACK_MS = 4 * HOUR_MS;
const AHEAD_MS = 8 * HOUR_MS;

/** What a pin stands for. */
const PIN_WORDS: Readonly<Record<string, string>> = {
  retest: "air to be read again",
  revalidate: "revalidate at the latest",
  look: "a look of the watch",
  "watch ends": "the watch without a break ends",
  call: "speak to the people inside",
};
const PINS_MOST = 8;

const top = (row: number) => `${1.2 + row * 0.85}rem`;

/** Room that a time of day takes, in percent of the strip's width, on a desk and on a phone. */
const LABEL_DESK = 5;
const LABEL_PHONE = 12;

/** The same of a permit's number. */
const NUMBER_DESK = 6;
const NUMBER_PHONE = 18;

/** Hours that would touch the time of now, or that the right edge would cut, are left out. */
function hasRoomForLabel(label: number, now: number, width: number): boolean {
  return Math.abs(label - now) > width && label < 100 - width;
}
function hourOf(at_ms: number, timeZone: string): number {
  return Number(clock(at_ms, timeZone).slice(0, 2));
}

/**
 * The shift as a thin line under the head: permits, now, and what falls due. It opens to the hours, with a link at every
 * permit and at everything that falls due.
 */
export function ShiftStrip(props: Readonly<{ bars: readonly Bar[]; more: number; now_ms: number; timeZone: string }>) {
  const { bars, more, now_ms, timeZone } = props;
  const start = now_ms - BACK_MS;
  const x = (at: number) => Math.min(100, Math.max(0, ((at - start) / (BACK_MS + AHEAD_MS)) * 100));
  const due = bars.flatMap((bar) => bar.due.map((one) => ({ ...one, number: bar.number })));
  const [next] = due.filter(({ at_ms }) => at_ms > now_ms).sort((a, b) => a.at_ms - b.at_ms);
  const count = bars.length + more;
  return (
    <details className="no-print">
      <summary className="bg-base-200 border-base-300 relative block h-3.5 cursor-pointer list-none overflow-hidden border-b">
        <span className="sr-only">
          The shift: {count === 0 ? "no permit is out" : count === 1 ? "one permit is out" : `${count} permits are out`}
          {next && `. Next due at ${clock(next.at_ms, timeZone)}: ${next.number}, ${PIN_WORDS[next.what] ?? "it ends"}`}
        </span>
        <span aria-hidden>
          {bars.slice(0, LINES_MOST).map((bar, row) => (
            <span
              key={bar.number}
              className={`absolute h-0.5 ${bar.runOut ? "bg-error" : "bg-base-content opacity-70"}`}
              style={{
                left: `${x(bar.from_ms)}%`,
                width: `${x(bar.to_ms) - x(bar.from_ms)}%`,
                top: `${2 + row * 4}px`,
              }}
            />
          ))}
          {bars.slice(0, LINES_MOST).flatMap((bar, row) =>
            bar.due
              .filter(({ at_ms }) => x(at_ms) < 100)
              .slice(0, PINS_MOST)
              .map(({ at_ms, what }) => (
                <span
                  key={`${bar.number} ${what} ${at_ms}`}
                  className="bg-accent absolute size-1.5 rotate-45"
                  style={{ left: `calc(${x(at_ms)}% - 3px)`, top: `${row * 4}px` }}
                />
              )),
          )}
          <span className="bg-accent absolute inset-y-0 w-0.5" style={{ left: `${x(now_ms)}%` }} />
        </span>
      </summary>
      <Hours {...props} />
    </details>
  );
}

/** More would not be told apart on so thin a line. */
const LINES_MOST = 3;

/** The hours around now, permits as bars, and a pin where one runs out. A pin leads to its act. */
function Hours({
  bars,
  more,
  now_ms,
  timeZone,
}: {
  bars: readonly Bar[];
  /** How many permits there are besides. */
  more: number;
  now_ms: number;
  timeZone: string;
}) {
  const [now, setNow] = useState(now_ms);
  useEffect(() => {
    const tick = setInterval(() => setNow((last) => Math.max(last, Date.now())), 20_000);
    return () => clearInterval(tick);
  }, []);
  const start = now - BACK_MS;
  const whole = BACK_MS + AHEAD_MS;
  const x = (at: number) => Math.min(100, Math.max(0, ((at - start) / whole) * 100));
  const firstHour = Math.ceil(start / HOUR_MS) * HOUR_MS;
  const hours = Array.from({ length: 12 }, (_, i) => firstHour + i * HOUR_MS).filter((at) => at < start + whole);

  return (
    <section
      aria-label="The shift"
      className="no-print border-base-300 bg-base-200 relative h-[4.25rem] overflow-hidden border-b"
    >
      {hours.map((at) => (
        <div key={at} aria-hidden className="border-base-300 absolute inset-y-0 border-l" style={{ left: `${x(at)}%` }}>
          {hasRoomForLabel(x(at), x(now), LABEL_DESK) && (
            <span
              className={`num pl-1 text-xs leading-5 ${hourOf(at, timeZone) % 3 === 0 && hasRoomForLabel(x(at), x(now), LABEL_PHONE) ? "" : "hidden sm:inline"}`}
            >
              {clock(at, timeZone)}
            </span>
          )}
        </div>
      ))}
      <div aria-hidden className="bg-accent absolute inset-y-0 w-0.5" style={{ left: `${x(now)}%` }}>
        <span className="num bg-base-200 text-accent absolute top-0 left-1 px-0.5 text-xs leading-5 font-bold">
          {clock(now, timeZone)}
        </span>
      </div>
      <ul>
        {bars.map((bar, row) => {
          const left = x(bar.from_ms);
          const ends = x(bar.to_ms);
          const state = bar.runOut ? "has expired" : `expires in ${span(bar.to_ms - now)}`;
          return (
            <li key={bar.number}>
              <Link
                href={`/permits/${bar.number}`}
                aria-label={`Permit ${bar.number}, ${permitState(bar.state)}, ${bar.on} signed on, ${state}`}
                title={`${bar.title}: ${bar.on} signed on, ${state}`}
                className="absolute flex h-6 items-center"
                style={{ left: `${left}%`, width: `${x(bar.to_ms) - left}%`, top: top(row) }}
              >
                <span
                  className={`block h-1.5 w-full ${bar.state === "live" ? "bg-base-content" : "border-base-content border"} ${bar.runOut ? "opacity-50" : ""}`}
                />
                {ends < 100 - NUMBER_DESK && (
                  <span
                    className={`${ends < 100 - NUMBER_PHONE ? "" : "max-sm:hidden"} tag border-base-content bg-base-200 absolute right-0 translate-x-full -translate-y-px border-l-2 pl-1 text-xs leading-3`}
                  >
                    {bar.number}
                  </span>
                )}
              </Link>
              {bar.due
                .filter((due) => due.what !== "ends" && due.at_ms <= start + whole)
                .slice(0, PINS_MOST)
                .map((due) => (
                  <Link
                    key={`${due.what} ${due.at_ms}`}
                    href={`/permits/${bar.number}`}
                    aria-label={`${bar.number}: ${PIN_WORDS[due.what]} at ${clock(due.at_ms, timeZone)}`}
                    title={`${bar.number}: ${PIN_WORDS[due.what]} at ${clock(due.at_ms, timeZone)}`}
                    className="absolute flex size-6 items-center justify-center"
                    style={{ left: `calc(${x(due.at_ms)}% - 0.75rem)`, top: top(row) }}
                  >
                    <span className="border-base-content bg-accent block size-2.5 rotate-45 border" />
                  </Link>
                ))}
            </li>
          );
        })}
      </ul>
      {more > 0 && (
        <Link href="/permits" className="link bg-base-200 absolute bottom-0 left-2 px-1 text-xs leading-5">
          {more} more
        </Link>
      )}
      {bars.length === 0 && <p className="absolute bottom-1.5 left-[36%] text-sm opacity-80">No permit is active.</p>}
    </section>
  );
}
