import type { Conflict, ConflictKind } from "../../conflict/pair";
import type { WayOut } from "../../conflict/waysOut";
import { duration } from "../../units/format";

/** How near, in whole metres; somewhere unknown counts as near and is said to be unknown. */
type Near = (distance_m: number | null) => string;

/** What touches what, in one sentence. `nameOf` gives people's names; `near` writes a distance in the reader's units. */
export function conflictSentence(conflict: Conflict, nameOf: (id: string) => string, near: Near): string {
  const { of, with: other, what, reached, distance_m } = conflict;
  const at = reached.join(", ");
  const how = near(distance_m);
  const words: Record<ConflictKind, string> = {
    "flame and open end": `The flame of ${of} (${what}) reaches ${at}, which ${other} opens ${how}.`,
    "flame and exhaust": `${other} blows out ${at} within reach of the flame of ${of} (${what}) ${how}.`,
    "inside the keep-out distance": `${at} of ${other} lies inside the keep-out distance of the gas test of ${of} (${what}) ${how}.`,
    "lift over people": `${of} lifts ${what} over or beside ${at} of ${other} ${how}.`,
    "work overhead": `${of} works overhead (${what}); below it is ${at} of ${other} ${how}.`,
    "needed and stopped": `${of} stops ${at}, which ${other} needs to go on.`,
    "same people": `${reached.map(nameOf).join(", ")} ${reached.length === 1 ? "is" : "are"} in the crew of both ${of} and ${other}.`,
    "same gear": `${at} ${reached.length === 1 ? "is" : "are"} with both ${of} and ${other}.`,
    "same place": `${of} and ${other} both work at ${at}.`,
  };
  return words[conflict.kind];
}

/** What rule finds it. */
export const CONFLICT_RULES: Readonly<Record<ConflictKind, string>> = {
  "flame and open end": "35 ft about hot work, farther on floors below",
  "flame and exhaust": "35 ft about hot work, farther on floors below",
  "inside the keep-out distance": "keep-out distance by the gas energy of the test",
  "lift over people": "nobody within 6 m under a lift; common practice",
  "work overhead": "nobody within 6 m below work at height; common practice",
  "needed and stopped": "what a job was planned to need stays in service",
  "same people": "one person works in one place; common practice",
  "same gear": "one numbered thing is in one place",
  "same place": "who leads says who goes first; common practice",
};

export function wayOutWords(
  way: WayOut,
  timeOf: (at_ms: number) => string,
  length: (metres: number) => string,
): string {
  switch (way.way) {
    case "shift":
      return `Begin ${way.job} ${duration(way.by_ms / 1000)} later, ${timeOf(way.from_ms)}`;
    case "screen the flame":
      return "Screen the flame on all sides, and below it";
    case "blind the open end":
      return `Blind or cap ${way.at.join(", ")} first`;
    case "lead the exhaust away":
      return way.by_m === null
        ? "Lead the exhaust away from the flame"
        : `Lead the exhaust ${length(way.by_m)} farther away`;
    case "another person":
      return "Name another person for one of them";
    case "another one of its kind":
      return "Take another one of its kind";
    case "feed it otherwise":
      return `Feed ${way.what.join(", ")} otherwise while it lasts`;
    case "keep them clear":
      return "Bar the place and keep people clear while it lasts";
  }
}
