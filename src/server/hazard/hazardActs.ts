import { eq } from "drizzle-orm";
import { z } from "zod";
import { liftSchema, OWNERS, type JobHazards } from "../../core/hazard/jobHazards";
import { readNumber } from "../../core/units/readNumber";
import { jobs } from "../db/schema";
import { jobHazards, saveJobHazards } from "./hazardStore";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import { line } from "../job/jobActs";

const ROLES = ["coordinator", "issuer", "holder"] as const;
const lines = z
  .union([z.array(z.string()), z.string()], "write it as text, one a line")
  .transform((raw) => (typeof raw === "string" ? raw.split("\n") : raw).map((one) => one.trim()).filter(Boolean));
const yes = z.union([z.boolean(), z.literal("on").transform(() => true)]).default(false);

function change(
  { tx, person, now_ms }: ActContext,
  job: string,
  next: (hazards: JobHazards, said: Readonly<{ by: string; at_ms: number }>) => JobHazards | string,
): ActOutcome {
  const row = tx.select({ state: jobs.state }).from(jobs).where(eq(jobs.number, job)).get();
  // What was thought of beforehand stands as it was: afterwards nobody can have been briefed on it.
  if (row !== undefined && row.state !== "open") {
    const refusal = { code: "wrong state", what: `Job ${job}`, state: row.state, needs: "open" } as const;
    return { ok: false, subject: job, refusal };
  }
  const now = jobHazards(tx, job);
  if (now === null) return { ok: false, subject: job, refusal: { code: "unknown", what: "job", name: job } };
  const made = next(now.hazards, { by: person.id, at_ms: now_ms });
  if (typeof made === "string")
    return { ok: false, subject: job, refusal: { code: "unknown", what: "hazard", name: made } };
  saveJobHazards(tx, job, made);
  return { ok: true, subject: job, answer: { job, open: jobHazards(tx, job)!.open.length } };
}

/** Keeps, changes or rejects a proposed hazard; a rejection has its reason. */
export const decideHazard = defineAct({
  type: "hazard.decide",
  words: "decide a hazard",
  roles: ROLES,
  pin: false,
  input: z
    .object({
      job: z.string(),
      hazard: z.string(),
      verdict: z.enum(["kept", "changed", "rejected"], "keep it, change it or reject it"),
      controls: lines.optional(),
      owner: z.enum(OWNERS).optional(),
      reason: z.string().trim().max(500).default(""),
    })
    .refine(({ verdict, reason }) => verdict !== "rejected" || reason !== "", {
      path: ["reason"],
      error: "a hazard is rejected with a reason",
    })
    .refine(({ verdict, controls }) => verdict !== "changed" || (controls?.length ?? 0) > 0, {
      path: ["controls"],
      error: "say what is done about it",
    }),
  run: (context, input) => {
    const proposed = jobHazards(context.tx, input.job)?.proposed.find(({ id }) => id === input.hazard);
    return change(context, input.job, (hazards, said) => {
      if (proposed === undefined) return input.hazard;
      const decision = {
        id: proposed.id,
        verdict: input.verdict,
        hazard: proposed.hazard,
        controls: input.verdict === "changed" ? input.controls! : [...proposed.controls],
        owner: input.owner ?? proposed.owner,
        reason: input.reason,
        ...said,
      };
      return { ...hazards, decisions: [...hazards.decisions, decision] };
    });
  },
});

export const addHazard = defineAct({
  type: "hazard.add",
  words: "add a hazard",
  roles: [],
  pin: false,
  input: z.object({
    job: z.string(),
    hazard: line("The hazard", 200),
    controls: lines.refine((all) => all.length > 0, "say what is done about it"),
    owner: z.enum(OWNERS, "choose who sees to it"),
  }),
  run: (context, { job, hazard, controls, owner }) =>
    change(context, job, (hazards, said) => ({
      ...hazards,
      decisions: [
        ...hazards.decisions,
        { id: `added ${hazards.decisions.length + 1}`, verdict: "added", hazard, controls, owner, reason: "", ...said },
      ],
    })),
});

/** Anybody asks; the question is open until somebody answers it at the briefing. */
export const askQuestion = defineAct({
  type: "hazard.ask",
  words: "ask about the job's hazards",
  roles: [],
  pin: false,
  input: z.object({ job: z.string(), words: line("The question", 300) }),
  run: (context, { job, words }) =>
    change(context, job, (hazards, said) => ({
      ...hazards,
      questions: [...hazards.questions, { id: `q${hazards.questions.length + 1}`, words, ...said, answer: null }],
    })),
});

export const answerQuestion = defineAct({
  type: "hazard.answer",
  words: "answer a question",
  roles: [],
  pin: false,
  input: z.object({ job: z.string(), question: z.string(), words: line("The answer", 500) }),
  run: (context, { job, question, words }) =>
    change(context, job, (hazards, said) =>
      hazards.questions.some(({ id }) => id === question)
        ? {
            ...hazards,
            questions: hazards.questions.map((one) =>
              one.id === question ? { ...one, answer: { words, ...said } } : one,
            ),
          }
        : question,
    ),
});

/** "Gear unit, 80 kg, 2 people, P-204A": one lift a line; or as it stands in the ledger. */
const lifts = z.union([z.array(z.union([z.string(), liftSchema])), z.string()]).transform((raw, context) =>
  (typeof raw === "string" ? raw.split("\n") : raw).flatMap((one) => {
    if (typeof one !== "string") return [one];
    if (one.trim() === "") return [];
    const [what = "", mass = "", people = "", place = ""] = one.split(",").map((part) => part.trim());
    const read = readNumber(/kg$/i.test(mass) ? mass.slice(0, -"kg".length).trimEnd() : mass);
    const count = Number.parseInt(people, 10);
    if (what === "" || !read.ok || read.value <= 0 || !Number.isInteger(count) || count < 1) {
      context.addIssue({ code: "custom", message: `“${one.trim()}”: write what, how many kg, how many people, where` });
      return [];
    }
    return [{ what, mass_kg: read.value, people: count, place }];
  }),
);

export const sayConditions = defineAct({
  type: "hazard.conditions",
  words: "say weather, tools and lifts",
  roles: ROLES,
  pin: false,
  input: z.object({
    job: z.string(),
    weather: line("The weather", 200),
    wind_m_s: z
      .union([z.number(), z.string(), z.null()])
      .default("")
      .transform((raw, context) => {
        if (raw === "" || raw === null) return null;
        const read = typeof raw === "number" ? { ok: true as const, value: raw } : readNumber(raw);
        if (read.ok && read.value >= 0) return read.value;
        context.addIssue({ code: "custom", message: `The wind: ${read.ok ? "must not be below 0" : read.message}` });
        return z.NEVER;
      }),
    thunder: yes,
    ice: yes,
    tools: lines,
    inspected: lines.default([]),
    lifts: lifts.default([]),
  }),
  run: (context, { job, ...rest }) =>
    change(context, job, (hazards, said) => ({ ...hazards, conditions: { ...rest, ...said } })),
});

export const HAZARD_ACTS = [decideHazard, addHazard, askQuestion, answerQuestion, sayConditions];
