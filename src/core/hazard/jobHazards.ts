import { z } from "zod";

/** Job hazard analysis: what the program proposes, what people made of it, and what is still open. */

export const OWNERS = ["holder", "coordinator", "issuer", "gas tester", "fire watch", "attendant", "crew"] as const;
/** Who sees to the controls. */
export type Owner = (typeof OWNERS)[number];

/** A hazard with what is done about it. */
export type Hazard = Readonly<{
  id: string;
  hazard: string;
  controls: readonly string[];
  owner: Owner;
  /** What in the job or the plant it was found from. */
  because: string;
  source: string;
}>;

const said = { by: z.string(), at_ms: z.number() };

/** Heaviest lift for one person by hand, in kilograms: 50 lb. Common practice, no source. */
export const ONE_PERSON_kg = 22.68;

const decision = z.object({
  id: z.string(),
  verdict: z.enum(["kept", "changed", "rejected", "added"]),
  hazard: z.string(),
  controls: z.array(z.string()),
  owner: z.enum(OWNERS),
  reason: z.string(),
  ...said,
});
const question = z.object({
  id: z.string(),
  words: z.string(),
  ...said,
  answer: z.object({ words: z.string(), ...said }).nullable(),
});
export const liftSchema = z.object({ what: z.string(), mass_kg: z.number(), people: z.number(), place: z.string() });
const conditions = z.object({
  weather: z.string(),
  wind_m_s: z.number().nullable(),
  thunder: z.boolean(),
  ice: z.boolean(),
  tools: z.array(z.string()),
  /** Tools and gear looked at before the work. */
  inspected: z.array(z.string()),
  lifts: z.array(liftSchema),
  ...said,
});

export const jobHazardsSchema = z.object({
  decisions: z.array(decision),
  questions: z.array(question),
  conditions: conditions.nullable(),
});

export type JobHazards = z.output<typeof jobHazardsSchema>;
export type HazardDecision = z.output<typeof decision>;
export type Conditions = z.output<typeof conditions>;

export const NO_HAZARDS: JobHazards = { decisions: [], questions: [], conditions: null };

/** What was decided last of each hazard; a proposal whose words have changed since is open again. */
export function decisionsOf(all: JobHazards): ReadonlyMap<string, HazardDecision> {
  return new Map(all.decisions.map((one) => [one.id, one]));
}

/** Everything that a person still has to say, in words; empty when the analysis is complete. */
export function openHazards(all: JobHazards, proposed: readonly Hazard[]): string[] {
  const decided = decisionsOf(all);
  const open = proposed.filter(({ id }) => !decided.has(id)).map(({ hazard }) => hazard);
  const asked = all.questions.filter(({ answer }) => answer === null).map(({ words }) => `answer to “${words}”`);
  const { conditions } = all;
  const said = conditions === null ? ["weather, tools and lifts"] : [];
  const heavy = (conditions?.lifts ?? [])
    .filter(({ mass_kg, people }) => mass_kg > ONE_PERSON_kg * people)
    .map(
      ({ what, mass_kg, people }) =>
        `${what}: ${mass_kg} kg is too much for ${people === 1 ? "one person" : `${people} people`} by hand`,
    );
  const unseen = (conditions?.tools ?? [])
    .filter((tool) => !conditions!.inspected.includes(tool))
    .map((tool) => `${tool} looked at`);
  return [...open, ...asked, ...said, ...heavy, ...unseen];
}
