import { shiftFault } from "../../core/job/outlastsShift";
import { longestShift_h } from "../../core/schedule/shifts";
import { eq } from "drizzle-orm";
import { z } from "zod";
import { decideJob } from "../../core/job/jobLife";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { PersonId } from "../../core/people/roles";
import { shiftHours } from "../runtime/siteTime";
import { defineAct } from "../act/act";
import { jobs } from "../db/schema";
import { currentPlant } from "../plant/plantStore";
import { ASK_ENDS, askEnds, askFields, CARRIERS_LEFT_OUT, carriersExplained, jobAsked, line } from "./jobActs";
import { jobFacts, jobLifeOf } from "./jobFacts";

/**
 * What is asked for, written anew. Other places, or other ways of meeting them, make another plan: nothing may stand yet, and
 * the hazards are gone through anew.
 */
export const changeJob = defineAct({
  type: "job.change",
  words: "change a request",
  roles: ["coordinator", "holder", "issuer"],
  pin: false,
  input: z
    .object({ job: z.string(), ...askFields })
    .refine(askEnds, ASK_ENDS)
    .refine(carriersExplained, CARRIERS_LEFT_OUT),
  run: ({ tx }, input) => {
    const subject = input.job;
    const row = tx.select().from(jobs).where(eq(jobs.number, subject)).get();
    const plant = currentPlant(tx);
    if (row === undefined || plant === null) {
      return { ok: false, subject, refusal: { code: "unknown", what: "job", name: subject } };
    }
    const strange = input.faces.find(({ place }) => !plant.graph.places.resolveFace(place).ok);
    if (strange) return { ok: false, subject, refusal: { code: "unknown", what: "place", name: strange.place } };
    const tooLong = shiftFault(input, longestShift_h(shiftHours()));
    if (tooLong) return { ok: false, subject, refusal: tooLong };
    const asked = jobAsked(input);
    // What the planner wished for its plan stays; what is asked may change.
    const job = { ...row.job, faces: asked.faces, profile: asked.profile, longerThanShift: asked.longerThanShift };
    const replanned = canonicalJson(job) !== canonicalJson(row.job);
    const command = { type: "change", holder: input.holder as PersonId, replanned } as const;
    const decided = decideJob(jobLifeOf(row), command, jobFacts(tx, row));
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    tx.update(jobs)
      .set({
        title: input.title,
        work: input.work,
        job,
        windowFrom: input.windowFrom_ms,
        windowTo: input.windowTo_ms,
        holderId: decided.value.holder,
        ...(replanned ? { hazards: "" } : {}),
      })
      .where(eq(jobs.id, row.id))
      .run();
    return { ok: true, subject, answer: { job: subject } };
  },
});

/** Nobody does it after all. It stays in the record. */
export const withdrawJob = defineAct({
  type: "job.withdraw",
  words: "withdraw a job",
  roles: ["coordinator", "holder", "issuer"],
  pin: true,
  input: z.object({ job: z.string(), words: line("Why it is withdrawn", 500) }),
  run: ({ tx }, input) => {
    const subject = input.job;
    const row = tx.select().from(jobs).where(eq(jobs.number, subject)).get();
    if (row === undefined) return { ok: false, subject, refusal: { code: "unknown", what: "job", name: subject } };
    const decided = decideJob(jobLifeOf(row), { type: "withdraw" }, jobFacts(tx, row));
    if (!decided.ok) return { ok: false, subject, refusal: decided.refusal };
    tx.update(jobs).set({ state: decided.value.state }).where(eq(jobs.id, row.id)).run();
    return { ok: true, subject, answer: { job: subject } };
  },
});
