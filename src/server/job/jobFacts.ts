import { and, eq, isNull, ne } from "drizzle-orm";
import type { JobFacts, JobLife } from "../../core/job/jobLife";
import type { PersonId } from "../../core/people/roles";
import type { Plan } from "../../core/plan/plan";
import type { Read } from "../../core/plant/problem";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { earthsOn, holds, isolations, items, jobIsolations, jobs, people, permits } from "../db/schema";
import { loadIsolation } from "../isolation/isolationStore";
import { liveJobs } from "../isolation/liveJobs";
import { wasMinor } from "../isolation/minorStore";
import { namesOf } from "../people/signIn";
import { lazily } from "../runtime/lazily";
import { plantAt } from "../plant/plantStore";
import { clashesHere } from "./clashesHere";
import { acceptedFor } from "./deviationStore";
import { minorFaultsOf } from "./minorRoute";

type Row = typeof jobs.$inferSelect;

export function jobLifeOf(row: Row): JobLife {
  return {
    number: row.number,
    state: row.state,
    askedBy: row.askedBy as PersonId,
    holder: row.holderId as PersonId,
    crew: row.crew,
  };
}

const noPlan = (): Read<Plan> => {
  throw new Error("no plan is asked of this");
};

/** What the core is told of a job, each fact measured when it is first asked for. */
export function jobFacts(
  tx: Tx,
  row: Row,
  revision = 0,
  plan: () => Read<Plan> = noPlan,
  now_ms: number = NaN,
): JobFacts {
  return lazily<JobFacts>({
    revision: () => revision,
    plan: () => plan,
    accepted: () => acceptedFor(tx, row.id),
    clashes: () => (made) =>
      clashesHere(tx, { number: row.number, mustPass: row.job.mustPass }, made, plantAt(tx, revision).graph),
    minorFaults: () => (made) => minorFaultsOf(tx, row, made, plantAt(tx, revision), now_ms),
    wasMinor: () => wasMinor(tx, row.id),
    standing: () => standingOf(tx, row.id),
    isKnown: () => (id) => tx.select({ id: people.id }).from(people).where(eq(people.id, id)).get() !== undefined,
    nameOf: () => namesOf(tx),
    peopleOn: () =>
      liveJobs(tx)
        .filter(({ number }) => number === row.number)
        .flatMap(({ peopleIds }) => peopleIds.map((id) => id as PersonId)),
    openPermits: () =>
      tx
        .select({ number: permits.number, state: permits.state })
        .from(permits)
        .where(eq(permits.jobId, row.id))
        .all()
        .filter(({ state }) => state !== "closed" && state !== "cancelled")
        .map(({ number }) => number),
    openIsolations: () => openIsolations(tx, row.id),
    left: () => stillInPlace(tx, row.id),
  });
}

function openIsolations(tx: Tx, jobId: string): string[] {
  return tx
    .select({ number: isolations.number })
    .from(jobIsolations)
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(and(eq(jobIsolations.jobId, jobId), ne(isolations.state, "restored")))
    .all()
    .map(({ number }) => number);
}

function standingOf(tx: Tx, jobId: string): JobFacts["standing"] {
  const [isolation] = openIsolations(tx, jobId);
  if (isolation === undefined) return null;
  return { isolation, stuck: loadIsolation(tx, isolation)!.life.steps.some((step) => step.stuck !== null) };
}

/** Locks, blinds and earths of a job's isolations that nobody took out. */
function stillInPlace(tx: Tx, jobId: string): string[] {
  const own = tx
    .select({ id: jobIsolations.isolationId })
    .from(jobIsolations)
    .where(eq(jobIsolations.jobId, jobId))
    .all()
    .map(({ id }) => id);
  const held = tx
    .select({ tag: items.tag, lock: holds.lock })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .where(and(isAmong(holds.isolationId, own), isNull(holds.liftedAt)))
    .all()
    .map(({ tag, lock }) => `lock ${lock} on ${tag}`);
  const earths = tx
    .select({ number: earthsOn.number, place: earthsOn.place })
    .from(earthsOn)
    .where(and(isAmong(earthsOn.isolationId, own), isNull(earthsOn.offAt)))
    .all()
    .map(({ number, place }) => `earth ${number} at ${place}`);
  return [...held, ...earths];
}
