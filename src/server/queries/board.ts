import { asc, desc, eq, notInArray } from "drizzle-orm";
import { database } from "../db/database";
import { jobs, permits } from "../db/schema";
import { isRunOut, peopleOn } from "../../core/permit/permitLife";
import { loadPermit, permitFacts } from "../store/permitStore";
import { currentPlant } from "../store/plantStore";
import { namesOf } from "../signIn";
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

/** What the shift strip shows: permits that bind somebody now. */
export type StripPermit = Readonly<{
  number: string;
  title: string;
  from_ms: number;
  to_ms: number;
  state: string;
  runOut: boolean;
  on: number;
}>;

export function stripPermits(now_ms: number): StripPermit[] {
  const db = database();
  return db
    .select({ number: permits.number, title: jobs.title })
    .from(permits)
    .innerJoin(jobs, eq(jobs.id, permits.jobId))
    .where(notInArray(permits.state, ["closed", "cancelled", "handed back"]))
    .orderBy(asc(permits.validTo))
    .all()
    .map(({ number, title }) => {
      const { life } = loadPermit(db, number)!;
      return {
        number,
        title,
        from_ms: life.validFrom_ms,
        to_ms: life.validTo_ms,
        state: life.state,
        runOut: isRunOut(life, now_ms),
        on: peopleOn(life).length,
      };
    });
}

export type PermitView = NonNullable<ReturnType<typeof permitView>>;

/** One permit with its job and its people; null when there is no such permit. */
export function permitView(number: string, now_ms: number) {
  const db = database();
  const stored = loadPermit(db, number);
  if (stored === null) return null;
  const { row, life } = stored;
  const job = db.select({ number: jobs.number }).from(jobs).where(eq(jobs.id, row.jobId)).get();
  const view = job ? jobView(job.number, now_ms) : null;
  if (view === null) return null;
  const nameOf = namesOf(db);
  return {
    number: life.number,
    state: life.state,
    runOut: isRunOut(life, now_ms),
    words: row.words,
    hazards: row.hazards,
    precautions: row.precautions,
    validFrom_ms: life.validFrom_ms,
    validTo_ms: life.validTo_ms,
    holder: nameOf(life.holder),
    holderId: life.holder as string,
    issuer: life.issuer ? nameOf(life.issuer) : null,
    closedBy: life.closedBy ? nameOf(life.closedBy) : null,
    plantRevision: row.plantRevision,
    ruleProfile: row.ruleProfile,
    engineVersion: row.engineVersion,
    signOns: life.signOns.map((signOn) => ({
      ...signOn,
      name: nameOf(signOn.person),
      personId: signOn.person as string,
    })),
    pointsToLock: permitFacts(db, stored, now_ms).pointsToLock,
    stale: view.stale,
    job: view,
  };
}
