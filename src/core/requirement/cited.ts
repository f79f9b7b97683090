/** What a rule is about that the site did not make itself. */
export const TOPICS = [
  "energy control",
  "confined spaces",
  "hot work",
  "fire watch",
  "electrical work",
  "work at height",
] as const;
export type Topic = (typeof TOPICS)[number];

const PRACTICE = "practice";

type Laws = Readonly<Partial<Record<Topic, string>>>;

const AMERICAN: Laws = {
  "energy control": "29 CFR 1910.147",
  "confined spaces": "29 CFR 1910.146",
  "hot work": "29 CFR 1910.252(a)(2)",
  "fire watch": "NFPA 51B",
  "electrical work": "29 CFR 1910.333",
  "work at height": "29 CFR 1910.28",
};
const BRITISH: Laws = {
  "energy control": "HSG253, The safe isolation of plant and equipment",
  "confined spaces": "Confined Spaces Regulations 1997, approved code of practice",
  "electrical work": "Electricity at Work Regulations 1989",
  "work at height": "Work at Height Regulations 2005",
};

/** By profile. The strict one is no country's: where its rule was first read is what it cites. All from memory. */
const CITED: Readonly<Record<string, Laws>> = { strict: AMERICAN, "us-style": AMERICAN, "uk-style": BRITISH };

/**
 * What a profile cites for a topic: its own law, never another country's; `paragraph` is one of the American laws and said with these
 * only. Practice where the profile has no law of its own that is known here.
 */
export function cited({ id }: Readonly<{ id: string }>, topic: Topic, paragraph = ""): string {
  const laws = CITED[id];
  const law = laws?.[topic];
  return law === undefined ? PRACTICE : `${law}${laws === AMERICAN ? paragraph : ""}, from memory`;
}
