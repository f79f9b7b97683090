import { and, asc, eq, gte, inArray, isNull, lt, or, sql } from "drizzle-orm";
import {
  countSteps,
  valueAt,
  type JobTrack,
  type LockTrack,
  type PermitTrack,
  type SiteTracks,
  type Steps,
} from "../../core/board/tracks";
import { headSteps } from "../../core/board/heads";
import { HOT_WORK } from "../../core/fire/hotWork";
import { jobHazardsSchema } from "../../core/hazard/jobHazards";
import { keepOutOf } from "../../core/permit/around/crossChecks";
import { staysOf } from "../../core/permit/people/entries";
import { entriesOf, type LogEntry } from "../../core/permit/record/permitLog";
import { PERMIT_STATES, type PermitLife, type PermitState } from "../../core/permit/record/permitTypes";
import type { Job } from "../../core/request/jobFile";
import { database, type Db } from "../db/database";
import { isAmong } from "../db/isAmong";
import { holds, items, jobs, ledger, permits } from "../db/schema";
import { openPermits } from "../permit/openPermits";
import { loadPermits } from "../permit/permitStore";
import { currentPlant, type CurrentPlant } from "../plant/plantStore";
import { grouped } from "../runtime/grouped";
import { spotOfWork, spotsOf } from "../plant/spots";

/**
 * What was so, and what is planned, between two moments: the states of permits by their rows in the ledger, people and gas
 * by the permits' logs, locks by when each was hung and taken off.
 *
 * Cost: some ten queries, and what touches the time between.
 */
export function siteTracks(
  window: Readonly<{ from_ms: number; to_ms: number }>,
  now_ms: number,
  db: Db = database(),
  /** Numbers of jobs for which something is isolated. */
  underWay: ReadonlySet<string> = new Set(),
): SiteTracks {
  const plant = currentPlant(db);
  const spot = spotsOf(plant);
  const open = openPermits(db, now_ms)
    .map(({ now, row }) => ({ life: now, jobId: row.jobId }))
    .filter(({ life }) => life.validFrom_ms < window.to_ms);
  const isOpen = new Set(open.map(({ life }) => life.number));
  const ended = numbersEnded(db, window).filter((number) => !isOpen.has(number));
  const { statesOf, over } = fromLedger(db, [...isOpen, ...ended], window.from_ms);
  const closed = loadPermits(
    db,
    ended.filter((number) => wasOutIn(window, statesOf(number))),
  ).map(({ life, row }) => ({ life, jobId: row.jobId }));
  const shown = [...open, ...closed];
  const rows = jobRows(
    db,
    shown.map(({ jobId }) => jobId),
    window,
    [...over.keys()],
  );
  const jobOf = new Map(rows.map((row) => [row.id, row]));
  return {
    permits: shown.flatMap(({ life, jobId }) => {
      const job = jobOf.get(jobId);
      return job ? [permitTrack(life, statesOf(life.number), job, { plant, spot })] : [];
    }),
    jobs: rows.map((row) => jobTrack(row, over.get(row.number) ?? null, underWay.has(row.number), spot)),
    locks: lockTracks(db, window.from_ms, spot),
    heads: headSteps(shown.map(({ life }) => life)),
  };
}

type JobRow = Readonly<{
  id: string;
  number: string;
  title: string;
  job: Job;
  hazards: string;
  windowFrom: number;
  windowTo: number;
  askedAt: number;
  state: string;
}>;

/** Jobs with a permit that is shown, those whose window touches the time, and those that were closed in it. */
function jobRows(
  db: Db,
  ids: readonly string[],
  { from_ms, to_ms }: Readonly<{ from_ms: number; to_ms: number }>,
  closed: readonly string[],
): JobRow[] {
  const { id, number, title, job, hazards, windowFrom, windowTo, askedAt, state } = jobs;
  return db
    .select({ id, number, title, job, hazards, windowFrom, windowTo, askedAt, state })
    .from(jobs)
    .where(
      or(
        isAmong(jobs.id, [...new Set(ids)]),
        isAmong(jobs.number, closed),
        and(eq(jobs.state, "open"), lt(jobs.windowFrom, to_ms), gte(jobs.windowTo, from_ms)),
      ),
    )
    .orderBy(asc(jobs.number))
    .all();
}

const rowState = sql<string | null>`json_extract(${ledger.body}, '$.answer.answer.state')`;

/** Somebody could be under it at some moment of the window. */
function wasOutIn(
  { from_ms, to_ms }: Readonly<{ from_ms: number; to_ms: number }>,
  states: Steps<PermitState>,
): boolean {
  const atFirst = valueAt(states, from_ms);
  const later = states.filter(([at_ms]) => at_ms >= from_ms && at_ms < to_ms).map(([, state]) => state);
  return [...(atFirst === undefined ? [] : [atFirst]), ...later].some((state) => !NOT_OUT.includes(state));
}
const NOT_OUT: readonly PermitState[] = ["draft", "checked", "authorised", "closed", "cancelled", "work done"];

const DAY_MS = 86_400_000;
/** Acts after which nobody works under a permit any more. */
const ENDING = ["permit.hand-back", "permit.end-watch", "permit.close", "permit.cancel", "permit.end-alone"];
/** How soon after the window began a permit that had expired before is looked for to be ended. */
const ENDED_WITHIN_MS = 14 * DAY_MS;

/**
 * Permits that are over now and may have been out in a window: by their time, and by when they were ended. Not found is only
 * one that had expired before the window and was ended more than two weeks after it began. Cost: one query by two indexes.
 */
function numbersEnded(db: Db, { from_ms, to_ms }: Readonly<{ from_ms: number; to_ms: number }>): string[] {
  const ended = db
    .select({ number: ledger.subject })
    .from(ledger)
    .where(
      and(
        gte(ledger.recordedAt, from_ms),
        lt(ledger.recordedAt, from_ms + ENDED_WITHIN_MS),
        eq(ledger.outcome, "done"),
        inArray(ledger.type, [...ENDING]),
      ),
    );
  const isOver = sql`+${permits.state} IN ('closed', 'cancelled', 'work done')`;
  return db
    .select({ number: permits.number })
    .from(permits)
    .where(
      or(
        and(isOver, lt(permits.validFrom, to_ms), gte(permits.validTo, from_ms)),
        and(isOver, inArray(permits.number, ended)),
      ),
    )
    .all()
    .map(({ number }) => number);
}

const STATES: ReadonlySet<string> = new Set(PERMIT_STATES);

const JOB_OVER: readonly string[] = ["job.close", "job.withdraw"];

type FromLedger = Readonly<{
  /** The states that permits went through. */
  statesOf: (number: string) => Steps<PermitState>;
  /** Jobs that were closed or withdrawn since, and when. */
  over: ReadonlyMap<string, number>;
}>;

/** What rows of the ledger say of these permits, and of jobs that ended since a moment. Cost: one query by two indexes. */
function fromLedger(db: Db, numbers: readonly string[], since_ms: number): FromLedger {
  const rows = db
    .select({ seq: ledger.seq, type: ledger.type, subject: ledger.subject, at: ledger.doneAt, state: rowState })
    .from(ledger)
    .where(
      or(
        and(isAmong(ledger.subject, numbers), eq(ledger.outcome, "done")),
        and(gte(ledger.recordedAt, since_ms), inArray(ledger.type, [...JOB_OVER]), eq(ledger.outcome, "done")),
      ),
    )
    .all()
    // Ordered here: asked to order by its key, the database reads the whole ledger.
    .sort((a, b) => a.seq - b.seq);
  const of = grouped(rows, ({ subject }) => subject);
  return {
    over: new Map(rows.filter(({ type }) => JOB_OVER.includes(type)).map(({ subject, at }) => [subject, at])),
    statesOf: (number) => {
      const steps: [number, PermitState][] = [];
      let last_ms = 0;
      for (const { type, at, state } of of(number)) {
        // A lock's removal has states of its own, under the permit's number and by some of the same words.
        if (!type.startsWith("permit.") || state === null || !STATES.has(state)) continue;
        // What is written down late cannot have come before what it follows.
        last_ms = Math.max(last_ms, at);
        if (steps.at(-1)?.[1] !== state) steps.push([last_ms, state as PermitState]);
      }
      return steps;
    },
  };
}

function jobTrack(
  row: JobRow,
  over_ms: number | null,
  isUnderWay: boolean,
  spot: ReturnType<typeof spotsOf>,
): JobTrack {
  const places = row.job.faces.map(({ place }) => place);
  return {
    number: row.number,
    title: row.title,
    spot: places.map(spot).find(({ isKnown }) => isKnown) ?? spot(places[0] ?? ""),
    from_ms: row.windowFrom,
    to_ms: row.windowTo,
    asked_ms: row.askedAt,
    isUnderWay,
    over_ms: row.state === "open" ? null : (over_ms ?? row.askedAt),
    lifts: liftsOf(row).map(({ what, place }) => ({ what, spot: spot(place) })),
  };
}

function liftsOf({ hazards }: Pick<JobRow, "hazards">) {
  return hazards === "" ? [] : (jobHazardsSchema.parse(JSON.parse(hazards)).conditions?.lifts ?? []);
}

function permitTrack(
  life: PermitLife,
  states: Steps<PermitState>,
  job: JobRow,
  { plant, spot }: Readonly<{ plant: CurrentPlant | null; spot: ReturnType<typeof spotsOf> }>,
): PermitTrack {
  const { details, log } = life;
  const { faces } = job.job;
  const keepOut_m = keepOutOf(details).distance_m;
  return {
    number: life.number,
    job: job.number,
    title: job.title,
    kind: details.kind,
    spot: spotOfWork(
      plant,
      spot,
      details,
      faces.map(({ place }) => place),
    ),
    validFrom_ms: life.validFrom_ms,
    validTo_ms: life.validTo_ms,
    states,
    on: countSteps(life.signOns.map(({ on_ms, off_ms }) => ({ from_ms: on_ms, to_ms: off_ms }))),
    inside: countSteps(staysOf(log).map(({ in_ms, out_ms }) => ({ from_ms: in_ms, to_ms: out_ms }))),
    purging: purging(log),
    reaches: [
      ...(details.kind === "hot work" ? [{ what: "flame" as const, reach_m: HOT_WORK.clear_m }] : []),
      ...(keepOut_m > 0 ? [{ what: "keep-out" as const, reach_m: keepOut_m }] : []),
      ...(details.kind === "confined space entry" ? [{ what: "exhaust" as const, reach_m: HOT_WORK.clear_m }] : []),
    ],
    opens:
      details.kind === "line break"
        ? faces.map(({ place }) => place)
        : faces.filter(({ how }) => how.includes("open") && details.kind !== "general").map(({ place }) => place),
  };
}

function purging(log: readonly LogEntry[]): Steps<boolean> {
  return entriesOf(log, "purge begun", "purge ended", "purge broken", "ventilation begun", "ventilation ended").map(
    ({ at_ms, type }) => [at_ms, type.endsWith("begun")] as const,
  );
}

/** Devices with locks now or since a moment, by tag. Cost: one query. */
function lockTracks(db: Db, from_ms: number, spot: ReturnType<typeof spotsOf>): LockTrack[] {
  const rows = db
    .select({ tag: items.tag, from: holds.lockedAt, to: holds.liftedAt })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .where(or(isNull(holds.liftedAt), gte(holds.liftedAt, from_ms)))
    .orderBy(asc(items.tag), asc(holds.lockedAt))
    .all();
  const hung = new Map<string, (readonly [number, number | null])[]>();
  for (const { tag, from, to } of rows) {
    const known = hung.get(tag) ?? [];
    hung.set(tag, known);
    // Several isolations may hold one device: it is locked while any lock hangs.
    const last = known.at(-1);
    if (last && (last[1] === null || last[1] >= from)) {
      known[known.length - 1] = [last[0], last[1] === null || to === null ? null : Math.max(last[1], to)];
    } else known.push([from, to]);
  }
  return [...hung].map(([tag, stays]) => ({ tag, spot: spot(tag), hung: stays }));
}
