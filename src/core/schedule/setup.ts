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
  /** Behind a drain or a bleed, to where its contents may go; 0 where they run free. */
  drainHose_m: z
    .number({ error: "must be a number" })
    .min(0, "must be at least 0")
    .max(1000, "must be at most 1000")
    .optional(),
  pumpOut_m3_s: figure(10).optional(),
  /** Washing, steaming or raking out, each time. */
  clean_s: figure(30 * 86_400).optional(),
  hose_m: figure(200).optional(),
  hoseBore_m: figure(HOSE_BORE_MAX_m).optional(),
  pump_m3_s: figure(0.1).optional(),
  t90_s: figure(600).optional(),
  /** Instruments that read at once. Not said: as many as a round of twenty minutes asks. */
  testers: whole(1, 100).optional(),
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
  drainHose_m: 10,
  pumpOut_m3_s: 0.001,
  clean_s: 4 * 3600,
  hose_m: 15,
  hoseBore_m: 0.004,
  pump_m3_s: 0.4e-3 / 60,
  t90_s: 60,
  testers: null,
  ambient_C: 30,
  work_s: 4 * 3600,
  people: 2,
  lockSchool: "on the box",
} as const satisfies Required<Omit<Setup, "crews" | "testers">> & { testers: null };

/** What a missing figure is called when it is asked for. */
export const SETUP_WORDS: Readonly<Record<SetupKey, string>> = {
  blower_m3_s: "the blower's rated flow",
  bends: "bends in the blower's hose",
  mixing: "how well the air mixes",
  inert_m3_s: "flow of the inert gas",
  drainHose_m: "length of the hose behind a drain",
  pumpOut_m3_s: "flow of the pump that empties",
  clean_s: "how long cleaning takes, each time",
  hose_m: "length of the sampling hose",
  hoseBore_m: "bore of the sampling hose",
  pump_m3_s: "flow of the sampling pump",
  t90_s: "T90 of the instrument",
  testers: "instruments that read at once, each with a tester",
  ambient_C: "temperature around it",
  work_s: "how long the work takes",
  people: "how many people work",
  lockSchool: "where people hang their locks",
};

/** The figure that was set up, or the assumed one; of testers there is none to assume. */
export function settled<K extends Exclude<SetupKey, "testers">>(setup: Setup, key: K): NonNullable<Setup[K]> {
  return (setup[key] ?? ASSUMED[key]) as NonNullable<Setup[K]>;
}

/** People of a crew: one unless said. */
export function crewSize(setup: Setup, crew: Crew): number {
  return setup.crews?.[crew] ?? 1;
}
