import type { RuleProfile } from "../requirement/profile";
import type { Plan } from "./plan";
import type { Shortfall } from "../judge/routes";

/** What a person accepted for one way. */
export type Accepted = Readonly<{
  way: string;
  requiredGrade: string;
  acceptedGrade: string;
  acceptedDepth: number;
  measures: readonly string[];
  /** Until when; then somebody looks at it again. Missing where it is only judged now. */
  until_ms?: number;
}>;

/** A way by name: its source, what that supplies, and the face. */
export function wayOf({ source, carrier, face }: Pick<Shortfall, "source" | "carrier" | "face">): string {
  return `${source} ${carrier} ${face}`;
}

/**
 * Shortfalls that nobody has accepted as they are now: for the same grade asked and given, with as many barriers. A plan
 * that got worse since asks again.
 */
export function shortfallsNotAccepted(plan: Pick<Plan, "shortfalls">, accepted: readonly Accepted[]): Shortfall[] {
  return plan.shortfalls.filter(
    (shortfall) =>
      !accepted.some(
        (one) =>
          one.way === wayOf(shortfall) &&
          one.requiredGrade === (shortfall.requiredGrade ?? "") &&
          one.acceptedGrade === shortfall.grade &&
          one.acceptedDepth <= shortfall.available &&
          fitting(shortfall, one.measures).length > 0,
      ),
  );
}

/** Of the measures that were chosen, those that can stand in for this way: a survey holds no valve shut. */
export function fitting(shortfall: Pick<Shortfall, "measures">, measures: readonly string[]): string[] {
  return measures.filter((one) => shortfall.measures.includes(one));
}

/** What stands in at one work location for barriers that are not there: work to be done, and kept up. */
export type StandIn = Readonly<{
  /** Of the profile's measures. */
  measure: string;
  words: string;
  face: string;
  /** Sources of the paths it answers for. */
  sources: readonly string[];
}>;

/**
 * The measures that were accepted for what this plan falls short of, each once for a work location however many paths it
 * answers for. Paths that no longer fall short, and acceptances of a worse plan than this, ask for nothing.
 */
export function standInsOf(
  plan: Pick<Plan, "shortfalls">,
  accepted: readonly Accepted[],
  profile: Pick<RuleProfile, "measures">,
): StandIn[] {
  const found = new Map<string, { measure: string; words: string; face: string; sources: string[] }>();
  for (const shortfall of plan.shortfalls) {
    for (const one of accepted) {
      if (one.way !== wayOf(shortfall)) continue;
      for (const measure of fitting(shortfall, one.measures)) {
        const key = `${measure} ${shortfall.face}`;
        const words = profile.measures.find(({ id }) => id === measure)?.words ?? measure;
        const known = found.get(key) ?? { measure, words, face: shortfall.face, sources: [] };
        if (!known.sources.includes(shortfall.source)) known.sources.push(shortfall.source);
        found.set(key, known);
      }
    }
  }
  return [...found.values()];
}

/**
 * Until when what was accepted for these paths holds, in ms: the earliest of them, each by its last acceptance. Null where
 * nothing was.
 */
export function acceptedUntil_ms(
  plans: readonly Pick<Plan, "shortfalls">[],
  accepted: readonly Accepted[],
): number | null {
  const ways = [...new Set(plans.flatMap(({ shortfalls }) => shortfalls.map(wayOf)))];
  const until = ways.flatMap((way) => {
    const own = accepted.flatMap((one) => (one.way === way && one.until_ms !== undefined ? [one.until_ms] : []));
    return own.length === 0 ? [] : [Math.max(...own)];
  });
  return until.length === 0 ? null : Math.min(...until);
}
