import { shiftFault } from "../../core/job/outlastsShift";
import { longestShift_h } from "../../core/schedule/shifts";
import { randomUUID } from "node:crypto";
import { count, eq } from "drizzle-orm";
import { z } from "zod";
import { minorSteps } from "../../core/minor/minorSteps";
import { stepsOf } from "../../core/procedure/sequence";
import { HOWS, jobSchema, OBJECTIVES, PROFILE_IDS, SCHOOLS, type Job, type JobInput } from "../../core/request/jobFile";
import { CARRIERS } from "../../core/plant/carriers";
import { momentOf } from "../../core/units/moment";
import { decideJob } from "../../core/job/jobLife";
import type { PersonId } from "../../core/people/roles";
import { jobFacts, jobLifeOf } from "./jobFacts";
import { ENGINE_VERSION } from "../../core/version";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import {
  boxIsolations,
  isolations,
  jobIsolations,
  jobs,
  lockBoxes,
  people,
  permits,
  steps as stepsTable,
} from "../db/schema";
import { approvalFault } from "../../core/library/differences";
import { whyUnusable } from "../../core/library/procedureLife";
import { unusableWords } from "../../core/words/en/procedures";
import { saveJobHazards } from "../hazard/hazardStore";
import { byProcedure, decidedBy, pointsToInclude, type ByProcedure } from "../library/byProcedure";
import { approvedVersion } from "../library/procedureStore";
import { standInsFor } from "./deviationStore";
import { plannedFor, stillPlanned, type Planned } from "./planned";
import { currentPlant } from "../plant/plantStore";
import { shiftHours } from "../runtime/siteTime";
import { defineAct, PrepareAgain } from "../act/act";

export const line = (words: string, most: number) =>
  z
    .string(`${words} is missing`)
    .trim()
    .min(1, `${words} is missing`)
    .max(most, `${words} is longer than ${most} characters`);
export const time_ms = (words: string) => momentOf(`${words} is not a date and time`);

const yes = z.union([z.boolean(), z.literal("on").transform(() => true)]).default(false);

/** What a job asks for. */
export const askFields = {
  title: line("What is to be done", 120),
  work: line("The description", 2000),
  faces: z
    .array(
      z.object({
        place: line("The place", 100),
        how: z.array(z.enum(HOWS)).min(1, "say how people meet it"),
        carriers: z.array(z.enum(CARRIERS)).min(1).optional(),
        reason: z.string().trim().max(500).optional(),
      }),
    )
    .min(1, "name at least one work face")
    .max(20, "at most 20 work faces"),
  profile: z.enum(PROFILE_IDS).default("strict"),
  longerThanShift: z.boolean("say whether it outlasts one shift"),
  windowFrom_ms: time_ms("The start"),
  windowTo_ms: time_ms("The end"),
  holder: line("The holder", 60),
};
type Asked = z.output<z.ZodObject<typeof askFields>>;

export const askEnds = (job: Pick<Asked, "windowFrom_ms" | "windowTo_ms">) => job.windowTo_ms > job.windowFrom_ms;
export const ASK_ENDS = { path: ["windowTo_ms"], error: "it must end after it starts" };
export const carriersExplained = (job: Pick<Asked, "faces">) =>
  job.faces.every((face) => !face.carriers || face.reason);
export const CARRIERS_LEFT_OUT = { path: ["faces"], error: "carriers may be left out only with a reason" };

/** The job that the engine is asked about. */
export function jobAsked({
  faces,
  profile,
  longerThanShift,
}: Pick<Asked, "faces" | "profile" | "longerThanShift">): Job {
  return jobSchema.parse({
    format: "heavy-lantern/job",
    version: 1,
    faces,
    profile,
    longerThanShift,
  } satisfies JobInput);
}

export const askForJob = defineAct({
  type: "job.ask",
  words: "request a job",
  roles: ["coordinator", "holder", "issuer"],
  pin: false,
  input: z
    .object({
      ...askFields,
      crew: z.array(z.string()).max(60, "at most 60 people"),
      /** The job whose request this one repeats. */
      like: z.string().max(20).nullish(),
      /** The isolation procedure by which it is asked for. */
      procedure: z.string().max(20).nullish(),
    })
    .refine(askEnds, ASK_ENDS)
    .refine(carriersExplained, CARRIERS_LEFT_OUT),
  run: ({ tx, person, now_ms }, input) => {
    const plant = currentPlant(tx);
    const unknown = (what: string, name: string) =>
      ({ ok: false, subject: "", refusal: { code: "unknown", what, name } }) as const;
    if (plant === null) return unknown("plant register", "yet: import one first");
    for (const face of input.faces) {
      if (!plant.graph.places.resolveFace(face.place).ok) return unknown("place", face.place);
    }
    const known = new Set(
      tx
        .select({ id: people.id })
        .from(people)
        .where(isAmong(people.id, [...input.crew, input.holder]))
        .all()
        .map(({ id }) => id),
    );
    const stranger = [...input.crew, input.holder].find((id) => !known.has(id));
    if (stranger !== undefined) return unknown("person", stranger);
    const like = input.like ? tx.select().from(jobs).where(eq(jobs.number, input.like)).get() : undefined;
    if (input.like && like === undefined) return unknown("job", input.like);
    const version = input.procedure ? approvedVersion(tx, input.procedure) : null;
    if (input.procedure && version === null) return unknown("approved procedure", input.procedure);
    const unusable = version === null ? null : whyUnusable(version.life, now_ms);
    if (version !== null && unusable !== null) {
      const refusal = {
        code: "procedure not usable",
        procedure: version.life.number,
        why: unusableWords(unusable),
      } as const;
      return { ok: false, subject: version.life.number, refusal };
    }
    const tooLong = shiftFault(input, longestShift_h(shiftHours()));
    if (tooLong) return { ok: false, subject: "", refusal: tooLong };
    const asked = jobAsked(input);
    const job = version === null ? asked : { ...asked, pinned: pointsToInclude(plant, version) };
    const number = nextNumber(tx, jobs, "J");
    const id = randomUUID();
    tx.insert(jobs)
      .values({
        id,
        number,
        title: input.title,
        work: input.work,
        job,
        windowFrom: input.windowFrom_ms,
        windowTo: input.windowTo_ms,
        crew: [...new Set(input.crew)].map((id) => id as PersonId),
        holderId: input.holder,
        askedBy: person.id,
        askedAt: now_ms,
        state: "open",
        like: like?.number ?? null,
        // What it was carried out with is a start for today's schedule; hazards are gone through anew.
        setup: like?.setup ?? {},
        procedure: version?.life.number ?? null,
        procedureVersion: version?.life.version ?? null,
      })
      .run();
    if (version !== null) {
      const row = tx.select().from(jobs).where(eq(jobs.id, id)).get()!;
      saveJobHazards(tx, number, decidedBy(row, plant, version, { by: person.id, at_ms: now_ms }));
    }
    return { ok: true, subject: number, answer: { job: number } };
  },
});

export const approveIsolation = defineAct({
  type: "isolation.approve",
  words: "approve an isolation",
  roles: ["coordinator"],
  pin: true,
  input: z
    .object({
      job: z.string(),
      objective: z.enum(OBJECTIVES).default("effort"),
      school: z.enum(SCHOOLS),
      plantRevision: z.number().int(),
      /** What today's plan has otherwise than the procedure by which the job was asked for was read. */
      readDifferences: z.union([z.boolean(), z.literal("on").transform(() => true)]).default(false),
      /** By the short route one person isolates, works and restores alone. */
      route: z.enum(["full", "short"], "must be full or short").default("full"),
      /** What no register knows, and whoever approves the short route answers for. */
      noOthersAtRisk: yes,
      noAccidents: yes,
    })
    .refine(({ route, noOthersAtRisk }) => route === "full" || noOthersAtRisk, {
      path: ["noOthersAtRisk"],
      error: "say that nobody else is put at risk by it, or approve it in full",
    })
    .refine(({ route, noAccidents }) => route === "full" || noAccidents, {
      path: ["noAccidents"],
      error: "say that it never started or stayed live against expectation, or approve it in full",
    }),
  prepare: async (db, input): Promise<Approved | null> => {
    const row = db.select().from(jobs).where(eq(jobs.number, input.job)).get();
    const plant = currentPlant(db);
    // Approved as it was shown: on another register it is refused.
    if (row === undefined || plant?.revision !== input.plantRevision) return null;
    const job = chosenJob(row.job, input);
    const planned = await plannedFor(db, plant.revision, job);
    const by = planned.made.ok
      ? await byProcedure(db, row, { revision: plant.revision, job: row.job, plan: planned.made.value })
      : null;
    return { planned, by, procedure: row.procedure };
  },
  run: ({ tx, person, now_ms }, input, prepared) => {
    const row = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    const plant = currentPlant(tx);
    if (row === undefined || plant === null) {
      return { ok: false, subject: input.job, refusal: { code: "unknown", what: "job", name: input.job } };
    }
    const subject = row.number;
    const job = chosenJob(row.job, input);
    if (prepared !== null) {
      // As it was worked out, and nobody left or changed the procedure meanwhile.
      stillPlanned(tx, prepared.planned, plant.revision, job);
      if (prepared.procedure !== row.procedure) throw new PrepareAgain();
      const { by } = prepared;
      const fault = by && approvalFault(by.version.life.number, by.differences, input.readDifferences);
      if (fault) return { ok: false, subject, refusal: fault };
    }
    const stillThe = () => stillPlanned(tx, prepared?.planned ?? null, plant.revision, job);
    const facts = jobFacts(tx, row, plant.revision, stillThe, now_ms);
    const shown = { type: "approve", shownOn: input.plantRevision } as const;
    const isShort = input.route === "short";
    const decided = decideJob(jobLifeOf(row), isShort ? { ...shown, route: "short" } : shown, facts);
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    const made = facts.plan();
    if (!made.ok) throw new Error(`job ${subject} was approved without a plan`);
    const isolationId = randomUUID();
    const number = nextNumber(tx, isolations, "S");
    tx.insert(isolations)
      .values({
        id: isolationId,
        number,
        state: "isolating",
        plan: made.value,
        plantRevision: plant.revision,
        ruleProfile: made.value.profile,
        engineVersion: ENGINE_VERSION,
        inputs: job,
        approvedBy: person.id,
        approvedAt: now_ms,
      })
      .run();
    tx.insert(jobIsolations).values({ jobId: row.id, isolationId }).run();
    const steps = stepsOf(made.value, plant.graph, job.faces, standInsFor(tx, row.id, made.value));
    (isShort ? minorSteps(steps) : steps).forEach((step, position) => {
      tx.insert(stepsTable).values({ isolationId, stepId: step.id, position, step }).run();
    });
    const boxId = randomUUID();
    const box = nextNumber(tx, lockBoxes, "B");
    tx.insert(lockBoxes).values({ id: boxId, number: box, state: "open" }).run();
    tx.insert(boxIsolations).values({ boxId, isolationId }).run();
    return { ok: true, subject: number, answer: { isolation: number, box } };
  },
});

/** What is worked out before the transaction: the plan, and how the procedure by which the job was asked for fares today. */
type Approved = Readonly<{ planned: Planned; by: ByProcedure | null; procedure: string | null }>;

/** The plan is made without the procedure after all: the job is a request like any other, and its points are the engine's. */
export const leaveProcedure = defineAct({
  type: "job.leave-procedure",
  words: "go on without the procedure",
  roles: ["coordinator"],
  pin: false,
  input: z.object({ job: z.string().max(20) }),
  run: ({ tx }, input) => {
    const row = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    if (row === undefined)
      return { ok: false, subject: input.job, refusal: { code: "unknown", what: "job", name: input.job } };
    const subject = row.number;
    const command = { type: "leave procedure", procedure: row.procedure } as const;
    const decided = decideJob(jobLifeOf(row), command, jobFacts(tx, row));
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    tx.update(jobs)
      .set({ procedure: null, procedureVersion: null, job: { ...row.job, pinned: [] } })
      .where(eq(jobs.id, row.id))
      .run();
    return { ok: true, subject, answer: { job: subject, left: row.procedure } };
  },
});

/** The job as asked, with the objective and school that were chosen for its plan. */
function chosenJob(asked: Job, chosen: Readonly<{ objective: Job["objective"]; school: Job["school"] }>): Job {
  return { ...asked, school: chosen.school, objective: chosen.objective };
}

/** Who may sign on: the next shift, somebody instead of another. Nobody is taken out while they are on. */
export const changeCrew = defineAct({
  type: "job.crew",
  words: "change the crew of a job",
  roles: ["coordinator", "issuer", "holder"],
  pin: false,
  input: z.object({
    job: z.string(),
    crew: z.array(z.string()).min(1, "name at least one person").max(200, "at most 200 people"),
  }),
  run: ({ tx }, input) => {
    const subject = input.job;
    const row = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    if (row === undefined) return { ok: false, subject, refusal: { code: "unknown", what: "job", name: subject } };
    const crew = input.crew.map((id) => id as PersonId);
    const decided = decideJob(jobLifeOf(row), { type: "change crew", crew }, jobFacts(tx, row));
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    tx.update(jobs).set({ crew: decided.value.crew }).where(eq(jobs.id, row.id)).run();
    return { ok: true, subject, answer: { job: subject, crew: decided.value.crew.length } };
  },
});

export const closeJob = defineAct({
  type: "job.close",
  words: "close a job",
  // Who worked alone by the short route closes it themselves; the decision says whose it is.
  roles: ["coordinator", "isolator"],
  pin: true,
  input: z.object({ job: z.string() }),
  run: ({ tx, person }, input) => {
    const row = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    if (row === undefined)
      return { ok: false, subject: input.job, refusal: { code: "unknown", what: "job", name: input.job } };
    const subject = row.number;
    const decided = decideJob(jobLifeOf(row), { type: "close", by: person.id, roles: person.roles }, jobFacts(tx, row));
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    tx.update(jobs).set({ state: decided.value.state }).where(eq(jobs.id, row.id)).run();
    return { ok: true, subject, answer: { job: subject } };
  },
});

/** Running numbers, one row of them for each kind of thing; nothing is ever removed, so counting is enough. */
export function nextNumber(
  tx: Tx,
  table: typeof jobs | typeof isolations | typeof lockBoxes | typeof permits,
  letter: string,
): string {
  const found = tx.select({ n: count() }).from(table).get();
  return `${letter}-${String((found?.n ?? 0) + 1).padStart(4, "0")}`;
}
