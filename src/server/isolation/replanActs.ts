import { eq } from "drizzle-orm";
import { z } from "zod";
import { planFault } from "../../core/job/jobLife";
import { stepsOf } from "../../core/procedure/sequence";
import { STRIKES_OUT, STUCK_WHYS } from "../../core/isolation/isolation";
import type { Refusal } from "../../core/refusal/refusal";
import { isolations } from "../db/schema";
import { acceptedFor, standInsFor } from "../job/deviationStore";
import { loadIsolation } from "./isolationStore";
import { strike } from "../job/jobStore";
import { clashesHere } from "../job/clashesHere";
import { plannedFor, stillPlanned, type Planned } from "../job/planned";
import { nextJob, wantsNewPlan, whyNoPlan } from "./nextJob";
import { currentPlant } from "../plant/plantStore";
import { defineAct, type ActOutcome } from "../act/act";
import { by, changeIsolation } from "./isolationActs";

/** A step that cannot be done as planned. Its device is struck out at once: no plan counts on it until somebody says so. */
export const cannotDoStep = defineAct({
  type: "step.cannot",
  words: "say that a step cannot be done",
  roles: ["isolator", "operator", "coordinator"],
  pin: true,
  offline: true,
  input: z.object({
    isolation: z.string(),
    step: z.string(),
    why: z.enum(STUCK_WHYS, "choose what is wrong"),
    words: z
      .string("what you found is missing")
      .trim()
      .min(3, "write what you found")
      .max(500, "at most 500 characters"),
  }),
  run: (context, input) => {
    const { tx } = context;
    const stored = loadIsolation(tx, input.isolation);
    const outcome = changeIsolation(context, input.isolation, {
      ...by(context),
      type: "cannot",
      step: input.step,
      why: input.why,
      words: input.words,
    });
    const step = stored?.life.steps.find(({ id }) => id === input.step);
    if (outcome.ok && stored && step && STRIKES_OUT.has(step.kind)) strike(tx, stored, step.subject, true);
    return outcome;
  },
});

/** The engine's new plan in place of the old: what hangs stays, what is not proved any more is proved again. */
export const replan = defineAct({
  type: "isolation.re-plan",
  words: "approve a new plan for an isolation that is under way",
  roles: ["coordinator"],
  pin: true,
  input: z.object({ isolation: z.string(), plantRevision: z.number().int() }),
  prepare: async (db, input): Promise<Planned | null> => {
    const stored = loadIsolation(db, input.isolation);
    const plant = currentPlant(db);
    return stored === null || plant === null ? null : plannedFor(db, plant.revision, nextJob(db, stored).job);
  },
  run: (context, input, prepared): ActOutcome => {
    const { tx } = context;
    const subject = input.isolation;
    const refused = (refusal: Refusal) => ({ ok: false, subject, refusal }) as const;
    const stored = loadIsolation(tx, subject);
    const plant = currentPlant(tx);
    if (stored === null || plant === null) return refused({ code: "unknown", what: "isolation", name: subject });
    if (!wantsNewPlan(stored, plant.revision)) return refused({ code: "nothing stuck", isolation: subject });
    if (plant.revision !== input.plantRevision) {
      return refused({ code: "plant changed", planned: input.plantRevision, now: plant.revision });
    }
    const { job, jobId, jobNumber } = nextJob(tx, stored);
    const made = stillPlanned(tx, prepared, plant.revision, job);
    if (!made.ok) return refused({ code: "device not usable", why: whyNoPlan(made) });
    const next = { plan: made.value, job, jobId };
    const fault = planFault(next.plan, {
      accepted: acceptedFor(tx, next.jobId),
      clashes: (plan) => clashesHere(tx, { number: jobNumber, mustPass: job.mustPass }, plan, plant.graph),
    });
    if (fault) return refused(fault);
    const outcome = changeIsolation(context, subject, {
      ...by(context),
      type: "re-plan",
      steps: stepsOf(next.plan, plant.graph, next.job.faces, standInsFor(tx, next.jobId, next.plan)),
    });
    if (!outcome.ok) return outcome;
    tx.update(isolations)
      .set({ plan: next.plan, inputs: next.job, plantRevision: plant.revision, verdict: null })
      .where(eq(isolations.id, stored.row.id))
      .run();
    return { ...outcome, answer: { ...outcome.answer, points: next.plan.points.length } };
  },
});
