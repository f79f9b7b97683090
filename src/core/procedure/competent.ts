import type { Competence } from "../people/roles";
import type { PlannedStep } from "./steps";

/** What a step needs that somebody has not; null where they may do it. At high voltage it takes both. */
export function competenceMissing(
  { competence, highVoltage }: Pick<PlannedStep, "competence" | "highVoltage">,
  has: readonly Competence[],
): Competence | null {
  if (competence !== null && !has.includes(competence)) return competence;
  return highVoltage && !has.includes("high-voltage") ? "high-voltage" : null;
}
