import type { Plan } from "./plan";
import type { Shortfall } from "../judge/routes";

/** What a person accepted for one way. */
export type Accepted = Readonly<{
  way: string;
  requiredGrade: string;
  acceptedGrade: string;
  acceptedDepth: number;
  measures: readonly string[];
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
          one.measures.length > 0,
      ),
  );
}
