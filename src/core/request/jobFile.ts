import { z } from "zod";
import { CARRIERS, type Carrier } from "../plant/carriers";
import { parseJson } from "../plant/readPlantJson";
import type { Problem, Read } from "../plant/problem";

export const JOB_FORMAT = "heavy-lantern/job";

/** How people meet a work face. */
export const HOWS = ["open", "touch", "enter", "hot", "near"] as const;
export type How = (typeof HOWS)[number];

export const SCHOOLS = ["work", "supply"] as const;
/** The two schools of where to cut: nearest the work, or at the earliest point of supply. */
export type School = (typeof SCHOOLS)[number];

export const OBJECTIVES = ["effort", "balanced", "fewest locks", "least outage", "quickest"] as const;
/** What the cheapest set is cheapest in. */
export type Objective = (typeof OBJECTIVES)[number];

/** The shipped rule profiles, see rules/profiles.ts. */
export const PROFILE_IDS = ["strict", "us-style", "uk-style"] as const;

const tags = z.array(z.string({ error: "must be a list of tags" }), { error: "must be a list of tags" }).default([]);

const carrier = z.enum(CARRIERS, {
  error: (issue) => `unknown carrier ${JSON.stringify(issue.input)}; one of ${CARRIERS.join(", ")}`,
});
const depth = z
  .number({ error: "must be a whole number of barriers, 0 to 9" })
  .int("must be a whole number of barriers, 0 to 9")
  .min(0, "must be a whole number of barriers, 0 to 9")
  .max(9, "must be a whole number of barriers, 0 to 9");

const faceSchema = z.looseObject({
  place: z.string({ error: "must be a tag" }).min(1, "must not be empty"),
  /** Missing means every way: the strictest. */
  how: z
    .array(z.enum(HOWS, { error: `must be among ${HOWS.join(", ")}` }))
    .min(1, "must name at least one way")
    .default([...HOWS]),
  /** The carriers that matter there; missing means all. */
  carriers: z.array(carrier).min(1, "must name at least one carrier").optional(),
  reason: z.string().optional(),
});

export const jobSchema = z.looseObject({
  format: z.literal(JOB_FORMAT, { error: `must be "${JOB_FORMAT}"` }),
  version: z.literal(1, { error: "must be 1" }),
  faces: z.array(faceSchema, { error: "must be a list" }).min(1, "must name at least one work face"),
  /** Overrides the table of required grades with a plain depth per carrier supplied; 0 when not named. */
  require: z
    .looseObject({}, { error: "must be a depth per carrier" })
    .transform((raw, context): Partial<Record<Carrier, number>> => {
      const out: Partial<Record<Carrier, number>> = {};
      for (const [key, value] of Object.entries(raw)) {
        const name = carrier.safeParse(key);
        const k = depth.safeParse(value);
        const fault = name.success ? k.error : name.error;
        if (fault) context.addIssue({ code: "custom", path: [key], message: fault.issues[0]?.message });
        else if (name.success && k.success) out[name.data] = k.data;
      }
      return out;
    })
    .optional(),
  objective: z.enum(OBJECTIVES, { error: `must be ${OBJECTIVES.join(", ")}` }).default("effort"),
  /** Id of the rule profile that says what each way asks. */
  profile: z.enum(PROFILE_IDS, { error: `must be ${PROFILE_IDS.join(", ")}` }).default("strict"),
  /** The job outlasts one shift; where nobody says, it is taken so, for that asks more of the isolation. */
  longerThanShift: z.boolean({ error: "must be true or false" }).default(true),
  /** Devices that the planner wants isolated whatever the engine would choose. */
  pinned: tags,
  /** Devices that cannot be used: broken, out of reach. They count as no barrier for this job. */
  struck: tags,
  /** Devices that must stay passing while the job lasts: a purge, ventilation, a temporary supply. */
  mustPass: tags,
  school: z.enum(SCHOOLS, { error: "must be work or supply" }).default("work"),
  isolated: z.array(z.string({ error: "must be a list of tags" }), { error: "must be a list of tags" }).default([]),
});

export type Job = z.output<typeof jobSchema>;
export type JobInput = z.input<typeof jobSchema>;
export type Face = Job["faces"][number];

/** A job from the text of a `job.json`. */
export function readJobJson(text: string, file: string): Read<Job> {
  const json = parseJson(text, file);
  return json.ok ? readJobValue(json.value, file) : json;
}

export function readJobValue(raw: unknown, file: string): Read<Job> {
  const parsed = jobSchema.safeParse(raw);
  if (parsed.success) return { ok: true, value: parsed.data, warnings: [] };
  const problems = parsed.error.issues.map((issue): Problem => {
    const [list, index, ...rest] = issue.path;
    if (list !== "faces" || typeof index !== "number") {
      return { file, field: issue.path.map(String).join(".") || undefined, message: issue.message };
    }
    return {
      file,
      tag: faceName(raw, index),
      field: ["faces", index + 1, ...rest.map(String)].join("."),
      message: issue.message,
    };
  });
  return { ok: false, problems };
}

function faceName(raw: unknown, index: number): string | undefined {
  const face: unknown = (raw as { faces?: unknown[] }).faces?.[index];
  const place = typeof face === "object" && face !== null && "place" in face ? face.place : undefined;
  return typeof place === "string" ? place : undefined;
}
