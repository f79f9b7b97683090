import { outsideForJob } from "./outsideForJob";
import { randomUUID } from "node:crypto";
import { asc, eq } from "drizzle-orm";
import { z } from "zod";
import { fitting, wayOf } from "../../core/plan/deviations";
import { type Job, OBJECTIVES, SCHOOLS } from "../../core/request/jobFile";
import type { Tx } from "../db/database";
import { deviations, jobs } from "../db/schema";
import { loadIsolation } from "../isolation/isolationStore";
import { decideJob } from "../../core/job/jobLife";
import { time_ms } from "./jobActs";
import { jobFacts, jobLifeOf } from "./jobFacts";
import { currentPlant, type CurrentPlant } from "../plant/plantStore";
import { nextJob } from "../isolation/nextJob";
import { plannedFor, stillPlanned, type Planned } from "./planned";
import { defineAct } from "../act/act";

const reason = z.string("the reason is missing").trim().min(3, "write the reason").max(500, "at most 500 characters");

/** A planner's change to a plan before it is approved: a device pinned in, struck out, kept passing, or none of them. */
export const adjustPlan = defineAct({
  type: "plan.adjust",
  words: "change a plan",
  roles: ["coordinator"],
  pin: false,
  input: z.object({
    job: z.string(),
    device: z.string("the device is missing").trim().min(1, "name a device").max(80),
    to: z.enum(["pinned", "struck", "passing", "left to the engine"], "say what it is to be"),
    reason,
  }),
  prepare: async (db, input): Promise<Planned | null> => {
    const row = db.select().from(jobs).where(eq(jobs.number, input.job)).get();
    const plant = currentPlant(db);
    return row === undefined || plant === null ? null : plannedFor(db, plant.revision, adjusted(row.job, input));
  },
  run: ({ tx }, input, prepared) => {
    const found = jobAndPlant(tx, input.job);
    if (found === null) return unknownJob(input.job);
    const { row, plant } = found;
    const subject = row.number;
    const changed = adjusted(row.job, input);
    const facts = jobFacts(tx, row, plant.revision, () => stillPlanned(tx, prepared, plant.revision, changed));
    const decided = decideJob(jobLifeOf(row), { type: "adjust" }, facts);
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    const made = facts.plan();
    tx.update(jobs).set({ job: changed }).where(eq(jobs.id, row.id)).run();
    return { ok: true, subject, answer: { job: subject, points: made.ok ? made.value.points.length : 0 } };
  },
});

/** A job with a device pinned in, struck out, kept passing, or none of them. */
function adjusted(job: Job, { device, to }: Readonly<{ device: string; to: string }>): Job {
  const without = (tags: readonly string[]) => tags.filter((tag) => tag !== device);
  return {
    ...job,
    pinned: [...without(job.pinned), ...(to === "pinned" ? [device] : [])],
    struck: [...without(job.struck), ...(to === "struck" ? [device] : [])],
    mustPass: [...without(job.mustPass), ...(to === "passing" ? [device] : [])],
  };
}

/** One person answers for a way that the plant cannot hold as asked, with what is done instead. */
export const acceptDeviation = defineAct({
  type: "deviation.accept",
  words: "accept a deviation",
  roles: ["approver"],
  pin: true,
  input: z.object({
    job: z.string(),
    objective: z.enum(OBJECTIVES),
    school: z.enum(SCHOOLS),
    /** Every way is named: nobody accepts what they have not read. */
    ways: z.array(z.string()).min(1, "name at least one way").max(200),
    measures: z.array(z.string()).min(1, "choose at least one measure").max(20),
    reason,
    /** The end of the job's window where nothing else is said. */
    until_ms: time_ms("Until when").optional(),
  }),
  prepare: async (db, input): Promise<Planned | null> => {
    const found = jobAndPlant(db, input.job);
    return found && plannedFor(db, found.plant.revision, jobToHold(db, found.row, input));
  },
  run: ({ tx, person, now_ms }, input, prepared) => {
    const found = jobAndPlant(tx, input.job);
    if (found === null) return unknownJob(input.job);
    const { row, plant } = found;
    const subject = row.number;
    const facts = jobFacts(tx, row, plant.revision, () =>
      stillPlanned(tx, prepared, plant.revision, jobToHold(tx, row, input)),
    );
    const { ways, measures } = input;
    const outside = outsideForJob(tx, person.id, placesOf(row), now_ms);
    const command = { type: "accept deviation", by: person.id, ways, measures, outside } as const;
    const decided = decideJob(jobLifeOf(row), command, facts);
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    const made = facts.plan();
    if (!made.ok) throw new Error(`a deviation of job ${subject} was accepted without a plan`);
    for (const way of input.ways) {
      const shortfall = made.value.shortfalls.find((one) => wayOf(one) === way)!;
      tx.insert(deviations)
        .values({
          id: randomUUID(),
          jobId: row.id,
          way,
          requiredGrade: shortfall.requiredGrade ?? "",
          acceptedGrade: shortfall.grade,
          acceptedDepth: shortfall.available,
          measures: fitting(shortfall, measures),
          reason: input.reason,
          plantRevision: plant.revision,
          acceptedBy: person.id,
          acceptedAt: now_ms,
          until: input.until_ms ?? row.windowTo,
        })
        .run();
    }
    return { ok: true, subject, answer: { job: subject, ways: input.ways.length } };
  },
});

/** What was accepted is looked at again, and accepted for longer: all of it, by somebody who did not ask for the job. */
export const renewDeviations = defineAct({
  type: "deviation.renew",
  words: "accept deviations for longer",
  roles: ["approver"],
  pin: true,
  input: z.object({ job: z.string(), until_ms: time_ms("Until when"), reason }),
  run: ({ tx, person, now_ms }, input) => {
    const found = jobAndPlant(tx, input.job);
    if (found === null) return unknownJob(input.job);
    const { row } = found;
    const subject = row.number;
    const outside = outsideForJob(tx, person.id, placesOf(row), now_ms);
    const times = { at_ms: now_ms, until_ms: input.until_ms };
    const command = { type: "renew deviations", by: person.id, ...times, outside } as const;
    const decided = decideJob(jobLifeOf(row), command, jobFacts(tx, row));
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    const rows = tx
      .select()
      .from(deviations)
      .where(eq(deviations.jobId, row.id))
      .orderBy(asc(deviations.acceptedAt))
      .all();
    const last = [...new Map(rows.map((one) => [one.way, one])).values()];
    for (const one of last) {
      tx.insert(deviations)
        .values({
          ...one,
          id: randomUUID(),
          reason: input.reason,
          acceptedBy: person.id,
          acceptedAt: now_ms,
          until: input.until_ms,
        })
        .run();
    }
    return { ok: true, subject, answer: { job: subject, ways: last.length } };
  },
});

type JobRow = typeof jobs.$inferSelect;

/** The job whose plan falls short: as chosen, or as an isolation that stands with a stuck step would go on with it. */
function jobToHold(tx: Tx, row: JobRow, chosen: Readonly<{ objective: Job["objective"]; school: Job["school"] }>): Job {
  const { standing } = jobFacts(tx, row);
  return standing
    ? nextJob(tx, loadIsolation(tx, standing.isolation)!).job
    : { ...row.job, objective: chosen.objective, school: chosen.school };
}

function jobAndPlant(tx: Tx, number: string): Readonly<{ row: JobRow; plant: CurrentPlant }> | null {
  const row = tx.select().from(jobs).where(eq(jobs.number, number)).get();
  const plant = currentPlant(tx);
  return row === undefined || plant === null ? null : { row, plant };
}

function unknownJob(name: string) {
  return { ok: false, subject: name, refusal: { code: "unknown", what: "job", name } } as const;
}

const placesOf = ({ job }: JobRow): string[] => job.faces.map(({ place }) => place);
