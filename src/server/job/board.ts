import { desc, eq, ne } from "drizzle-orm";
import { database, type Tx } from "../db/database";
import { jobs } from "../db/schema";
import { dueUnder, type Due } from "../../core/permit/life/due";
import { isRunOut } from "../../core/permit/life/permitLife";
import { peopleOn, type PermitState } from "../../core/permit/record/permitTypes";
import { openPermits } from "../permit/openPermits";
import { pointCounts, walksUnderWay } from "../isolation/isolationStore";
import { currentPlant } from "../plant/plantStore";
import { jobViews, type JobView } from "./jobView";

/** A job as the board shows it. */
export type BoardJob = Pick<JobView, "number" | "title" | "next" | "held" | "permits" | "windowTo_ms"> &
  Readonly<{
    places: readonly string[];
    /** How many points its isolation has; 0 where none stands. */
    points: number;
  }>;

export type Board = Readonly<{
  /** One page of the open jobs, those that cannot wait first. */
  open: readonly BoardJob[];
  openCount: number;
  closed: readonly Readonly<{ number: string; title: string }>[];
  hasPlant: boolean;
}>;

export const BOARD_PAGE = 100;

/** Every open job is looked at, for any may be urgent; a page of them is shown. Then the closed ones of late. */
export function board(now_ms: number, page = 1): Board {
  const db = database();
  const views = jobViews(openNumbers(db), now_ms, walksUnderWay);
  const isUrgent = (view: JobView) => Number(view.next?.urgent ?? false);
  const shown = [...views].sort((a, b) => isUrgent(b) - isUrgent(a)).slice((page - 1) * BOARD_PAGE, page * BOARD_PAGE);
  const pointsOf = pointCounts(
    db,
    shown.flatMap(({ isolation }) => isolation?.number ?? []),
  );
  return {
    open: shown.map((view) => ({
      number: view.number,
      title: view.title,
      next: view.next,
      held: view.held,
      permits: view.permits,
      windowTo_ms: view.windowTo_ms,
      places: view.job.faces.map(({ place }) => place),
      points: view.isolation === null ? 0 : pointsOf(view.isolation.number),
    })),
    openCount: views.length,
    closed: db
      .select({ number: jobs.number, title: jobs.title })
      .from(jobs)
      .where(ne(jobs.state, "open"))
      .orderBy(desc(jobs.number))
      .limit(20)
      .all(),
    hasPlant: currentPlant(db) !== null,
  };
}

export function openNumbers(db: Tx): string[] {
  return db
    .select({ number: jobs.number })
    .from(jobs)
    .where(eq(jobs.state, "open"))
    .all()
    .map(({ number }) => number);
}

/** What the shift strip shows: permits that bind somebody now, and what falls due under them. */
export type StripPermit = Readonly<{
  number: string;
  title: string;
  kind: string;
  from_ms: number;
  to_ms: number;
  state: string;
  runOut: boolean;
  on: number;
  due: readonly Due[];
}>;

const ON_STRIP: readonly PermitState[] = ["issued", "live", "suspended", "run out", "watching"];

/** Bars that fit on the strip; of more there is a count, which leads to the register. */
const STRIP_BARS = 3;

/** The permits that bind somebody now: of those that end first what the strip shows, of the rest how many they are. */
export function stripPermits(now_ms: number): Readonly<{ bars: readonly StripPermit[]; more: number }> {
  const db = database();
  const binding = openPermits(db, now_ms)
    .filter(({ now }) => ON_STRIP.includes(now.state))
    .sort((a, b) => a.now.validTo_ms - b.now.validTo_ms);
  const shown = binding.slice(0, STRIP_BARS);
  const bars = shown.map(({ now, facts, title }) => ({
    number: now.number,
    title: title(),
    kind: now.details.kind,
    from_ms: now.validFrom_ms,
    to_ms: now.validTo_ms,
    state: now.state,
    runOut: now.state === "run out" || (now.state !== "watching" && isRunOut(now, now_ms)),
    on: peopleOn(now).length,
    due: dueUnder({ permit: now, facts, now_ms }),
  }));
  return { bars, more: binding.length - bars.length };
}
