import { asc, desc, eq, inArray } from "drizzle-orm";
import { database } from "../db/database";
import { jobs, permits } from "../db/schema";
import { dueUnder, type Due } from "../../core/permit/life/due";
import { isRunOut } from "../../core/permit/life/permitLife";
import { peopleOn } from "../../core/permit/record/permitTypes";
import { permitsNow } from "../permit/permitFacts";
import { currentPlant } from "../plant/plantStore";
import { jobView, planOf, stalenessOf, type JobView } from "./jobView";

/** Open jobs first, each whole; then the closed ones of late. */
export function board(now_ms: number): {
  open: JobView[];
  closed: { number: string; title: string }[];
  hasPlant: boolean;
  /** Jobs whose standing points no longer hold on the register of today. */
  alarms: string[];
} {
  const db = database();
  const open = db
    .select({ number: jobs.number })
    .from(jobs)
    .where(eq(jobs.state, "open"))
    .orderBy(asc(jobs.number))
    .all()
    .flatMap(({ number }) => jobView(number, now_ms) ?? []);
  const closed = db
    .select({ number: jobs.number, title: jobs.title })
    .from(jobs)
    .where(eq(jobs.state, "closed"))
    .orderBy(desc(jobs.number))
    .limit(20)
    .all();
  const alarms = open
    .filter((view) => view.isolation !== null && view.held.length > 0)
    .filter((view) => {
      const stale = stalenessOf(view, planOf(view, "work"));
      return stale !== null && (stale.lit.length > 0 || stale.short.length > 0);
    })
    .map(({ number }) => number);
  return { open, closed, hasPlant: currentPlant(db) !== null, alarms };
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

export function stripPermits(now_ms: number): StripPermit[] {
  const db = database();
  const rows = db
    .select({ number: permits.number, title: jobs.title })
    .from(permits)
    .innerJoin(jobs, eq(jobs.id, permits.jobId))
    .where(inArray(permits.state, ["issued", "live", "suspended", "run out", "watching"]))
    .orderBy(asc(permits.validTo))
    .all();
  const titles = new Map(rows.map(({ number, title }) => [number, title]));
  return permitsNow(
    db,
    rows.map(({ number }) => number),
    now_ms,
  ).map(({ now, facts }) => ({
    number: now.number,
    title: titles.get(now.number)!,
    kind: now.details.kind,
    from_ms: now.validFrom_ms,
    to_ms: now.validTo_ms,
    state: now.state,
    runOut: now.state === "run out" || (now.state !== "watching" && isRunOut(now, now_ms)),
    on: peopleOn(now).length,
    due: dueUnder({ permit: now, facts, now_ms }),
  }));
}
