import { HOSE_BORE_MAX_m } from "../atmosphere/sampleWait";
import { LOCK_SCHOOLS } from "../gear/hasps";

/** The hands that steps need: by competence, and anybody for telling, stopping and clearing up. */
export const CREWS = ["electrical", "mechanical", "process", "anybody"] as const;
export type Crew = (typeof CREWS)[number];

/** A bound on a figure, SI: above, at least, at most. */
export type Bound = Readonly<{ above?: number; least?: number; most: number; whole?: true }>;

const figure = (most: number): Bound => ({ above: 0, most });
const whole = (least: number, most: number): Bound => ({ least, most, whole: true });

/** How many hands a crew may have. */
export const CREW_BOUND: Bound = whole(1, 20);

/** What each figure of a set-up may be, SI. */
export const BOUNDS = {
  blower_m3_s: figure(100),
  bends: whole(0, 10),
  mixing: { least: 1, most: 10 },
  inert_m3_s: figure(100),
  /** Behind a drain or a bleed, to where its contents may go; 0 where they run free. */
  drainHose_m: { least: 0, most: 1000 },
  pumpOut_m3_s: figure(10),
  /** Washing, steaming or raking out, each time. */
  clean_s: figure(30 * 86_400),
  hose_m: figure(200),
  hoseBore_m: figure(HOSE_BORE_MAX_m),
  pump_m3_s: figure(0.1),
  t90_s: figure(600),
  /** Instruments that read at once. Not said: as many as a round of twenty minutes asks. */
  testers: whole(1, 100),
  ambient_C: { least: -60, most: 60 },
  /** The work itself, between sign-on and the return. */
  work_s: figure(90 * 86_400),
  people: whole(1, 200),
} as const satisfies Readonly<Record<string, Bound>>;

/** What is wrong with a figure, in words that follow its name; null where nothing is. */
export function figureFault(value: unknown, { above, least, most, whole }: Bound): string | null {
  const isNumber = typeof value === "number" && Number.isFinite(value);
  if (whole && !(isNumber && Number.isSafeInteger(value))) return "must be a whole number";
  if (!isNumber) return "must be a number";
  if (above !== undefined && value <= above) return `must be above ${above}`;
  if (least !== undefined && value < least) return `must be at least ${least}`;
  return value > most ? `must be at most ${most}` : null;
}

/** What a job is carried out with. Everything may be missing: then the worse is assumed, and said. SI throughout. */
export type Setup = Readonly<Partial<Record<keyof typeof BOUNDS, number>>> &
  Readonly<{ crews?: Readonly<Partial<Record<Crew, number>>>; lockSchool?: (typeof LOCK_SCHOOLS)[number] }>;
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
