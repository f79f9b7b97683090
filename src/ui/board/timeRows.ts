import type { JobTrack, PermitTrack, SiteTracks } from "../../core/board/tracks";
import { valueAt } from "../../core/board/tracks";

export type Bar = Readonly<{
  number: string;
  job: string;
  title: string;
  href: string;
  from_ms: number;
  to_ms: number;
  /** How it stands now. */
  tone: "planned" | "active" | "stopped" | "expired" | "over" | "inside" | "watch";
}>;

export type TimeRow = Readonly<{
  area: string;
  lanes: readonly (readonly Bar[])[];
  /** Bars that are planned or over and are shown when they are asked for. */
  more: number;
  isOpened: boolean;
}>;

/** Of what nobody is out under an area shows so many, the soonest first. What is out is always shown. */
const QUIET_MOST = 10;
const QUIET: ReadonlySet<Bar["tone"]> = new Set(["planned", "over"]);

const TONES: Readonly<Record<string, Bar["tone"]>> = {
  live: "active",
  issued: "active",
  suspended: "stopped",
  "run out": "expired",
  watching: "watch",
  "work done": "over",
  closed: "over",
  cancelled: "over",
};

function permitBar(permit: PermitTrack, now_ms: number): Bar {
  const state = valueAt(permit.states, now_ms) ?? "draft";
  const isInside = (valueAt(permit.inside, now_ms) ?? 0) > 0;
  return {
    number: permit.number,
    job: permit.job,
    title: permit.title,
    href: `/permits/${permit.number}`,
    from_ms: permit.validFrom_ms,
    to_ms: permit.validTo_ms,
    tone: isInside ? "inside" : (TONES[state] ?? "planned"),
  };
}

function jobBar(job: JobTrack): Bar {
  const { number, title, from_ms, to_ms } = job;
  return { number, job: number, title, href: `/jobs/${number}`, from_ms, to_ms, tone: "planned" };
}

/**
 * Bars by area, in as many lanes as lie side by side in time; of a job with permits in the time only these. `only` is an area
 * that is looked at by itself, or nothing; `opened` the areas of which everything is shown, and `trial` the job that is moved.
 */
export function rowsOf(
  tracks: SiteTracks,
  window: Readonly<{ from_ms: number; to_ms: number }>,
  now_ms: number,
  { only, opened, trial }: Readonly<{ only: string; opened: ReadonlySet<string>; trial: string | null }>,
): TimeRow[] {
  const permits = tracks.permits.filter(({ validFrom_ms, validTo_ms, states }) => {
    const isDropped = valueAt(states, now_ms) === "cancelled";
    return !isDropped && validFrom_ms < window.to_ms && validTo_ms > window.from_ms;
  });
  const withPermit = new Set(permits.map(({ job }) => job));
  const areas = new Map<string, Bar[]>();
  const put = (area: string, bar: Bar) => {
    if (only !== "" && area !== only) return;
    const known = areas.get(area);
    if (known) known.push(bar);
    else areas.set(area, [bar]);
  };
  for (const permit of permits) put(permit.spot.area, permitBar(permit, now_ms));
  for (const job of tracks.jobs) {
    if (job.over_ms === null && !withPermit.has(job.number)) put(job.spot.area, jobBar(job));
  }
  return [...areas]
    .map(([area, bars]): TimeRow => {
      const isWhole = only !== "" || opened.has(area);
      const shown = isWhole ? bars : withoutMost(bars, now_ms, trial);
      return {
        area,
        lanes: inLanes(shown),
        more: bars.length - shown.length,
        isOpened: only === "" && opened.has(area),
      };
    })
    .sort((a, b) => first(a) - first(b) || a.area.localeCompare(b.area));
}

/** All that is out, and of the rest what is next; what is over comes last. */
function withoutMost(bars: readonly Bar[], now_ms: number, trial: string | null): Bar[] {
  const isKept = (bar: Bar) => !QUIET.has(bar.tone) || bar.job === trial;
  const isPast = ({ tone, to_ms }: Bar) => Number(tone === "over" || to_ms <= now_ms);
  const quiet = bars.filter((bar) => !isKept(bar)).sort((a, b) => isPast(a) - isPast(b) || a.from_ms - b.from_ms);
  // A line that says "1 more" takes the room of the one.
  const most = quiet.length <= QUIET_MOST + 1 ? quiet.length : QUIET_MOST;
  return [...bars.filter(isKept), ...quiet.slice(0, most)];
}

const first = ({ lanes }: TimeRow) => Math.min(...lanes.flat().map(({ from_ms }) => from_ms));

function inLanes(bars: readonly Bar[]): Bar[][] {
  const lanes: Bar[][] = [];
  for (const bar of [...bars].sort((a, b) => a.from_ms - b.from_ms)) {
    const lane = lanes.find((one) => one.at(-1)!.to_ms <= bar.from_ms);
    if (lane) lane.push(bar);
    else lanes.push([bar]);
  }
  return lanes;
}
