import type { Refusal } from "../../refusal/refusal";

type Of<Code extends Refusal["code"]> = Extract<Refusal, { code: Code }>;

/** Why somebody of another firm begins no work, and what is done about it. */
export const notInductedWords = ({ who, firm, since }: Of<"not inducted">): string =>
  since === null
    ? `Nobody wrote down that ${who}, of ${firm}, was shown this site. The coordinator enters the day until which the induction counts.`
    : `The site induction of ${who}, of ${firm}, counted until ${since}. They are shown the site again, and the coordinator enters the new day.`;

/** Why an issuer or approver does not sign here or now, and who does. */
export const notAppointedWords = (refusal: Of<"not appointed">): string =>
  `${refusal.who} is appointed ${forWhat(refusal)}, and may not ${refusal.act} ${outside(refusal)}. Whoever is appointed there does it; anybody may stop the work.`;

const forWhat = (refusal: Of<"not appointed">): string =>
  refusal.far === "area"
    ? `for ${refusal.areas.join(", ")}`
    : `for the shift from ${refusal.shifts.map((hour) => `${String(hour).padStart(2, "0")}:00`).join(" and the one from ")}`;

function outside(refusal: Of<"not appointed">): string {
  if (refusal.far === "shift") return `at ${refusal.at}`;
  return refusal.area === "" ? "where nobody wrote down the area of the work" : `in the area ${refusal.area}`;
}
