import { asc, eq } from "drizzle-orm";
import { standingFault } from "../../core/isolation/heldNow";
import type { IsolationLife } from "../../core/isolation/isolation";
import { nextAct, type NextAct } from "../../core/job/nextAct";
import type { PersonId } from "../../core/people/roles";
import type { NotHeld } from "../../core/refusal/notHeld";
import type { Db, Tx } from "../db/database";
import { whileUnchanged } from "../db/whileUnchanged";
import { jobs } from "../db/schema";
import { walksUnderWay } from "../isolation/isolationStore";
import { asNow, isCountedOn } from "../isolation/verdictStore";
import { namesOf } from "../people/signIn";
import { currentPlant } from "../plant/plantStore";
import { locksDueOf, looksAt, permitsOf, reviewOf, standingIsolations } from "./jobParts";

/** An open job with what is next on it, and no more than that takes. */
export type OpenJob = Readonly<{
  number: string;
  title: string;
  places: readonly string[];
  windowFrom_ms: number;
  windowTo_ms: number;
  hasIsolation: boolean;
  /** Something is isolated for it, or is being brought back. */
  isUnderWay: boolean;
  next: NextAct | null;
  /** Why its isolation may not be counted on, on the register of today; null where it may, and where none stands. */
  planFault: NotHeld | null;
  permits: readonly Readonly<{ number: string; state: string }>[];
  /** Who asked for it, who holds it, and its crew. */
  people: readonly PersonId[];
  /** When it is asked whether its isolation stays, and when its locks are read; null where nobody counts on one. */
  reviewDue_ms: number | null;
  locksDue_ms: number | null;
}>;

/** The rows of open jobs, in the order of their numbers: asked once for all that look at one moment. */
export const openRows = whileUnchanged((tx: Tx) =>
  tx.select().from(jobs).where(eq(jobs.state, "open")).orderBy(asc(jobs.number)).all(),
);

/** Every open job, in the order of their numbers. Cost: nine queries, however many. */
export function openJobs(db: Db, now_ms: number): OpenJob[] {
  const plant = currentPlant(db);
  if (plant === null) return [];
  const rows = openRows(db);
  const ids = rows.map(({ id }) => id);
  const standing = standingIsolations(db, ids);
  const isolationIds = [...new Set([...standing.values()].map(({ id }) => id))];
  const walkOf = walksUnderWay(db, isolationIds, [...standing.values()]);
  const written = permitsOf(db, ids, now_ms);
  const looks = looksAt(db, isolationIds);
  const nameOf = namesOf(db);
  return rows.map((row): OpenJob => {
    const stands = standing.get(row.id);
    const isolation: IsolationLife | null = stands
      ? { number: stands.number, state: stands.state, steps: walkOf(stands.id) }
      : null;
    const lives = written(row.id).map(({ life }) => life);
    const review = stands ? reviewOf(stands, looks(stands.id), now_ms, nameOf) : null;
    const locksDue_ms = stands ? locksDueOf(stands) : null;
    const fault = stands && isCountedOn(stands.state) ? standingFault(asNow(stands, 0, plant.revision)) : null;
    return {
      number: row.number,
      title: row.title,
      places: row.job.faces.map(({ place }) => place),
      windowFrom_ms: row.windowFrom,
      windowTo_ms: row.windowTo,
      hasIsolation: isolation !== null,
      isUnderWay: isolation !== null && isolation.state !== "restored",
      next: nextAct(row, isolation, lives, now_ms, review?.due_ms ?? null, fault, locksDue_ms),
      planFault: fault,
      permits: lives.map(({ number, state }) => ({ number, state })),
      people: [...new Set([row.askedBy, row.holderId, ...row.crew])] as PersonId[],
      reviewDue_ms: review?.due_ms ?? null,
      locksDue_ms,
    };
  });
}
