import type { Refusal } from "../../refusal/refusal";

type Code =
  | "nobody there"
  | "not of the roll"
  | "not present at crew"
  | "crew round of another"
  | "crew round over"
  | "crew screen";

/** Why a crew, or whoever stands by, is refused at the screen at the box. */
export function crewSentence(refusal: Extract<Refusal, { code: Code }>): string {
  switch (refusal.code) {
    case "nobody there":
      return `Nobody is on permit ${refusal.permit}, on duty there or inside: there is no roll to call.`;
    case "not of the roll":
      return `${refusal.who} is not on permit ${refusal.permit}, on duty there or inside, and is not called. Load the page again.`;
    case "not present at crew":
      return `At the box of ${refusal.permit} stands ${refusal.may.join(" or ")}: who leads or issued the work asks each of the crew where it is. Fetch one of them, or sign on by yourself on your own device.`;
    case "crew round of another":
      return `Crew round ${refusal.crew} is ${refusal.lead}'s, for ${refusal.permit}. Nothing was signed; load the page again.`;
    case "crew round over":
      return `Crew round ${refusal.crew} ${refusal.idle ? "is over: nobody came or went for ten minutes" : "was ended"}. ${refusal.lead} begins another with their PIN; nobody was signed on.`;
    case "crew screen":
      return `This screen stands at the box for crew round ${refusal.crew}. To ${refusal.act}, take another device, or end the crew round first.`;
  }
}
