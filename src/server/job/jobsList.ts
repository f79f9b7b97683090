import { and, asc, count, desc, eq, sql } from "drizzle-orm";
import { JOB_STATES, type JobState } from "../../core/job/jobLife";
import { foundBy, inOrder, pageOf, placeOf, type Page, type SortKey } from "../../core/listed";
import { byNumber } from "../db/byNumber";
import { database } from "../db/database";
import { jobs, people } from "../db/schema";
import { pointCounts, walksUnderWay } from "../isolation/isolationStore";
import { currentPlant } from "../plant/plantStore";
import { jobViews, type JobView } from "./jobView";
import { openNumbers } from "./board";

/** An open job as the list shows it. */
export type OpenJob = Pick<JobView, "number" | "title" | "next" | "held" | "permits" | "windowTo_ms" | "holder"> &
  Readonly<{
    places: readonly string[];
    /** How many points its isolation has; 0 where none stands. */
    points: number;
    on: number;
  }>;

/** One that is over: nothing of it changes any more. */
export type PastJob = Readonly<{
  number: string;
  title: string;
  state: JobState;
  holder: string;
  places: readonly string[];
  windowTo_ms: number;
}>;

/** `urgent` is by what cannot wait, then by number. */
export const OPEN_JOB_SORTS = ["urgent", "number", "holder", "on", "until"] as const;
export const PAST_JOB_SORTS = ["number", "holder", "until"] as const;
export const JOBS_PAGE = 100;
/** States in which a job is over. */
export const PAST_STATES = JOB_STATES.filter((state) => state !== "open");

type Asked<Sort extends string> = Readonly<{ find: string; sort: Sort; down: boolean; page: number }>;
const AT_FIRST = { find: "", sort: "urgent", down: false, page: 1 } as const;

const openKeys: Readonly<Record<(typeof OPEN_JOB_SORTS)[number], (job: JobView) => SortKey>> = {
  urgent: ({ next }) => Number(!(next?.urgent ?? false)),
  number: ({ number }) => number,
  holder: ({ holder }) => holder,
  on: ({ permits }) => peopleOnAll(permits),
  until: ({ windowTo_ms }) => windowTo_ms,
};
const peopleOnAll = (permits: JobView["permits"]) => permits.reduce((sum, { on }) => sum + on, 0);

/** Every open job is looked at, for any may be urgent; a page of them is shown. Cost: a bounded number of queries. */
export function openJobsList(
  now_ms: number,
  asked: Asked<(typeof OPEN_JOB_SORTS)[number]> = AT_FIRST,
): Page<OpenJob> & Readonly<{ openCount: number; hasPlant: boolean }> {
  const db = database();
  const views = jobViews(openNumbers(db), now_ms, walksUnderWay);
  const found = foundBy(views, asked.find, ({ number, title, holder, job, permits }) =>
    [number, title, holder, ...job.faces.map(({ place }) => place), ...permits.map((one) => one.number)].join(" "),
  );
  const { rows, ...page } = pageOf(inOrder(found, openKeys[asked.sort], asked.down), asked.page, JOBS_PAGE);
  const pointsOf = pointCounts(
    db,
    rows.flatMap(({ isolation }) => isolation?.number ?? []),
  );
  return {
    ...page,
    rows: rows.map((view) => ({
      number: view.number,
      title: view.title,
      next: view.next,
      held: view.held,
      permits: view.permits,
      windowTo_ms: view.windowTo_ms,
      holder: view.holder,
      places: view.job.faces.map(({ place }) => place),
      points: view.isolation === null ? 0 : pointsOf(view.isolation.number),
      on: peopleOnAll(view.permits),
    })),
    openCount: views.length,
    hasPlant: currentPlant(db) !== null,
  };
}

const PAST_SORTED_BY = {
  number: byNumber(jobs.number),
  holder: people.name,
  until: jobs.windowTo,
};

/** The jobs that are over in one way: only the page that is shown is read. */
export function pastJobsList(state: JobState, asked: Asked<(typeof PAST_JOB_SORTS)[number]>): Page<PastJob> {
  const db = database();
  const words = asked.find.toLowerCase().split(/\s+/).filter(Boolean);
  const places = sql`(SELECT group_concat(json_extract(value, '$.place'), ' ') FROM json_each(${jobs.job}, '$.faces'))`;
  const text = sql`folded(${jobs.number} || ' ' || ${jobs.title} || ' ' || ${people.name} || ' ' || ${places})`;
  const wanted = and(eq(jobs.state, state), ...words.map((word) => sql`instr(${text}, ${word}) > 0`));
  const found =
    db.select({ n: count() }).from(jobs).innerJoin(people, eq(people.id, jobs.holderId)).where(wanted).get()?.n ?? 0;
  const { page, pages, from } = placeOf(found, asked.page, JOBS_PAGE);
  const by = PAST_SORTED_BY[asked.sort];
  const rows = db
    .select({ job: jobs, holder: people.name })
    .from(jobs)
    .innerJoin(people, eq(people.id, jobs.holderId))
    .where(wanted)
    .orderBy(asked.down ? desc(by) : asc(by), desc(byNumber(jobs.number)))
    .limit(JOBS_PAGE)
    .offset(from)
    .all();
  return {
    rows: rows.map(({ job, holder }) => ({
      number: job.number,
      title: job.title,
      state: job.state,
      holder,
      places: job.job.faces.map(({ place }) => place),
      windowTo_ms: job.windowTo,
    })),
    found,
    page,
    pages,
  };
}
