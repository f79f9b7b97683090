import type { Refusal } from "../../refusal/refusal";

/** Why nobody requests work by a procedure, as a clause. The codes are those of core/library. */
const UNUSABLE = {
  "not approved": "it is not approved by two people yet",
  superseded: "a newer version took its place",
  withdrawn: "it was withdrawn",
  "inspection overdue": "its yearly inspection is overdue",
  "found unsound": "its last inspection found that it is not right",
} as const;

export function unusableWords(why: keyof typeof UNUSABLE): string {
  return UNUSABLE[why];
}

type Signing = Extract<
  Refusal,
  {
    code:
      | "own procedure"
      | "two people"
      | "nobody watched"
      | "inspecting oneself"
      | "procedure not usable"
      | "procedure differs"
      | "by no procedure";
  }
>;

/** Why somebody does not sign or inspect a procedure, or has none to leave. */
export function procedureSentence(refusal: Signing): string {
  switch (refusal.code) {
    case "own procedure":
      return `You wrote this version of ${refusal.procedure}. Two others approve it: one for the trade, one for the equipment.`;
    case "two people":
      return `You signed ${refusal.procedure} already. Somebody else signs for the other part.`;
    case "nobody watched":
      return `Who was watched while they worked by ${refusal.procedure} is missing. Name at least one person.`;
    case "inspecting oneself":
      return `An inspection of ${refusal.procedure} is by somebody who looks on, not by one of those who are watched.`;
    case "procedure differs":
      return `Today's plan is not as ${refusal.procedure} says. Read the differences, then tick that you did.`;
    case "by no procedure":
      return `Job ${refusal.job} was not asked for by a procedure, so there is none to leave.`;
    case "procedure not usable":
      return `Nobody requests work by ${refusal.procedure}: ${refusal.why}. Request it without the procedure, or see to that first.`;
  }
}
