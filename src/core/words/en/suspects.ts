import type { Suspect } from "../../plan/suspects";

/** One place to look, as a sentence. */
export function suspectSentence(suspect: Suspect): string {
  switch (suspect.code) {
    case "alone":
      return `${suspect.device} alone stands in the way: it passes, or it is not the device that was locked.`;
    case "path":
      return suspect.depth === 0
        ? `${suspect.source} reaches it by the plan: nothing on that path could be isolated.`
        : `From ${suspect.source} (${suspect.carrier}), past ${suspect.points.join(" and ")}.`;
    case "stored":
      return `What is stored was let go and came back, or was never empty: ${suspect.sources.join(", ")}.`;
    case "stored beyond":
      return `What is stored farther off, if ${suspect.points.join(" or ")} passes: ${suspect.sources.join(", ")}.`;
    case "bleeds":
      return `A bleed is plugged: ${suspect.bleeds.join(", ")}.`;
    case "not in the register":
      return "Something that the register does not have: a hose, an interlock, a line nobody drew.";
  }
}
