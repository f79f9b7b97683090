import { randomUUID } from "node:crypto";
import { and, eq, ne } from "drizzle-orm";
import { z } from "zod";
import { wayOf } from "../../core/plan/deviations";
import { jobSchema, type Job, OBJECTIVES, SCHOOLS } from "../../core/request/jobFile";
import type { Tx } from "../db/database";
import { deviations, isolations, jobIsolations, jobs } from "../db/schema";
import { loadIsolation } from "../isolation/isolationStore";
import { currentPlant } from "../plant/plantStore";
import { nextJob } from "../isolation/nextJob";
import { plannedFor, stillPlanned, type Planned } from "./planned";
import { defineAct, type ActOutcome } from "../act/act";

const reason = z.string("the reason is missing").trim().min(3, "write the reason").max(500, "at most 500 characters");

/** A planner's change to a plan before it is approved: a device pinned in, struck out, or neither. */
export const adjustPlan = defineAct({
  type: "plan.adjust",
  words: "change a plan",
  roles: ["coordinator"],
  pin: false,
  input: z.object({
    job: z.string(),
    device: z.string("the device is missing").trim().min(1, "name a device").max(80),
    to: z.enum(["pinned", "struck", "left to the engine"]),
    reason,
  }),
  prepare: async (db, input): Promise<Planned | null> => {
    const row = db.select().from(jobs).where(eq(jobs.number, input.job)).get();
    const plant = currentPlant(db);
    return row === undefined || plant === null
      ? null
      : plannedFor(db, plant.revision, jobSchema.parse(adjusted(row.job, input)));
  },
  run: ({ tx }, input, prepared) => {
    const found = openJob(tx, input.job);
    if (!found.ok) return found;
    const changed = adjusted(found.row.job, input);
    const made = stillPlanned(tx, prepared, found.plant.revision, jobSchema.parse(changed));
    if (!made.ok) {
      const why = made.problems[0]?.message ?? "it cannot be used";
      return { ok: false, subject: found.row.number, refusal: { code: "device not usable", why } };
    }
    tx.update(jobs)
      .set({ job: JSON.stringify(changed) })
      .where(eq(jobs.id, found.row.id))
      .run();
    return { ok: true, subject: found.row.number, answer: { job: found.row.number, points: made.value.points.length } };
  },
});

/** A job with a device pinned in, struck out, or neither. */
function adjusted(asked: string, { device, to }: Readonly<{ device: string; to: string }>): Record<string, unknown> {
  const raw = JSON.parse(asked) as Record<string, unknown>;
  const job = jobSchema.parse(raw);
  const without = (tags: readonly string[]) => tags.filter((tag) => tag !== device);
  return {
    ...raw,
    pinned: [...without(job.pinned), ...(to === "pinned" ? [device] : [])],
    struck: [...without(job.struck), ...(to === "struck" ? [device] : [])],
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
  }),
  prepare: async (db, input): Promise<Planned | null> => {
    const found = openJob(db, input.job, true);
    return found.ok ? plannedFor(db, found.plant.revision, jobToHold(db, found, input)) : null;
  },
  run: ({ tx, person, now_ms }, input, prepared) => {
    const found = openJob(tx, input.job, true);
    if (!found.ok) return found;
    const { row, plant } = found;
    const subject = row.number;
    if (row.askedBy === person.id) return { ok: false, subject, refusal: { code: "accepting one's own deviation" } };
    const made = stillPlanned(tx, prepared, plant.revision, jobToHold(tx, found, input));
    if (!made.ok) return { ok: false, subject, refusal: { code: "unknown", what: "place", name: subject } };
    for (const way of input.ways) {
      const shortfall = made.value.shortfalls.find((one) => wayOf(one) === way);
      if (shortfall === undefined) return { ok: false, subject, refusal: { code: "no such shortfall", way } };
      tx.insert(deviations)
        .values({
          id: randomUUID(),
          jobId: row.id,
          way,
          requiredGrade: shortfall.requiredGrade ?? "",
          acceptedGrade: shortfall.grade,
          acceptedDepth: shortfall.available,
          measures: JSON.stringify(input.measures),
          reason: input.reason,
          plantRevision: plant.revision,
          acceptedBy: person.id,
          acceptedAt: now_ms,
        })
        .run();
    }
    return { ok: true, subject, answer: { job: subject, ways: input.ways.length } };
  },
});

type OpenJob = Extract<ReturnType<typeof openJob>, { ok: true }>;

/** The job whose plan falls short: as chosen, or as an isolation with a stuck step would go on with it. */
function jobToHold(
  tx: Tx,
  { row, standing }: OpenJob,
  chosen: Readonly<{ objective: Job["objective"]; school: Job["school"] }>,
): Job {
  return standing
    ? nextJob(tx, loadIsolation(tx, standing)!).job
    : jobSchema.parse({ ...JSON.parse(row.job), objective: chosen.objective, school: chosen.school });
}

/** A job whose plan may still change: open, with a plant, and nothing standing on it but what is being planned again. */
function openJob(tx: Tx, number: string, orStuck = false) {
  const row = tx.select().from(jobs).where(eq(jobs.number, number)).get();
  const plant = currentPlant(tx);
  const refused = (refusal: Extract<ActOutcome, { ok: false }>["refusal"]) =>
    ({ ok: false, subject: number, refusal }) as const;
  if (row === undefined || plant === null) return refused({ code: "unknown", what: "job", name: number });
  if (row.state !== "open") {
    return refused({ code: "wrong state", what: `Job ${number}`, state: row.state, needs: "open" });
  }
  const standing = tx
    .select({ number: isolations.number })
    .from(jobIsolations)
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(and(eq(jobIsolations.jobId, row.id), ne(isolations.state, "restored")))
    .get();
  const isStuck =
    orStuck && standing && loadIsolation(tx, standing.number)?.life.steps.some((step) => step.stuck !== null);
  if (standing && !isStuck)
    return refused({ code: "already done", what: `Approving isolation ${standing.number} of this job` });
  return { ok: true, row, plant, standing: standing?.number ?? null } as const;
}
