import { z } from "zod";
import { HOSE_BORE_MAX_m } from "../atmosphere/sampleWait";
import { LOCK_SCHOOLS } from "../gear/hasps";

/** The hands that steps need: by competence, and anybody for telling, stopping and clearing up. */
export const CREWS = ["electrical", "mechanical", "process", "anybody"] as const;
export type Crew = (typeof CREWS)[number];

const figure = (most: number) =>
  z.number({ error: "must be a number" }).gt(0, "must be above 0").max(most, `must be at most ${most}`);
const whole = (least: number, most: number) =>
  z
    .number({ error: "must be a whole number" })
    .int("must be a whole number")
    .min(least, `must be at least ${least}`)
    .max(most, `must be at most ${most}`);

/** What a job is carried out with. Everything may be missing: then the worse is assumed, and said. SI throughout. */
export const setupSchema = z.strictObject({
  blower_m3_s: figure(100).optional(),
  bends: whole(0, 10).optional(),
  mixing: figure(10).min(1, "must be at least 1").optional(),
  inert_m3_s: figure(100).optional(),
  hose_m: figure(200).optional(),
  hoseBore_m: figure(HOSE_BORE_MAX_m).optional(),
  pump_m3_s: figure(0.1).optional(),
  t90_s: figure(600).optional(),
  ambient_C: z
    .number({ error: "must be a number" })
    .min(-60, "must be at least -60")
    .max(60, "must be at most 60")
    .optional(),
  crews: z.partialRecord(z.enum(CREWS), whole(1, 20)).optional(),
  /** The work itself, between sign-on and the return. */
  work_s: figure(90 * 86_400).optional(),
  people: whole(1, 200).optional(),
  lockSchool: z.enum(LOCK_SCHOOLS).optional(),
});

export type Setup = z.output<typeof setupSchema>;
export type SetupKey = Exclude<keyof Setup, "crews">;

/** What is taken where nobody has said, on the slow side. Common practice, no source. */
export const ASSUMED = {
  blower_m3_s: 0.2,
  bends: 2,
  mixing: 5,
  inert_m3_s: 0.02,
  hose_m: 15,
  hoseBore_m: 0.004,
  pump_m3_s: 0.4e-3 / 60,
  t90_s: 60,
  ambient_C: 30,
  work_s: 4 * 3600,
  people: 2,
  lockSchool: "on the box",
} as const satisfies Required<Omit<Setup, "crews">>;

/** What a missing figure is called when it is asked for. */
export const SETUP_WORDS: Readonly<Record<SetupKey, string>> = {
  blower_m3_s: "the blower's rated flow",
  bends: "bends in the blower's hose",
  mixing: "how well the air mixes",
  inert_m3_s: "flow of the inert gas",
  hose_m: "length of the sampling hose",
  hoseBore_m: "bore of the sampling hose",
  pump_m3_s: "flow of the sampling pump",
  t90_s: "T90 of the instrument",
  ambient_C: "temperature around it",
  work_s: "how long the work takes",
  people: "how many people work",
  lockSchool: "where people hang their locks",
};

/** The figure that was set up, or the assumed one. */
export function settled<K extends SetupKey>(setup: Setup, key: K): NonNullable<Setup[K]> {
  return (setup[key] ?? ASSUMED[key]) as NonNullable<Setup[K]>;
}

/** People of a crew: one unless said. */
export function crewSize(setup: Setup, crew: Crew): number {
  return setup.crews?.[crew] ?? 1;
}
