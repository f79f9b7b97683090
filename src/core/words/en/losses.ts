import type { AlsoStops, LossKind } from "../../losses/alsoStops";
import type { Loss } from "../../losses/fedNoMore";

/** Of several at once, as a clause. */
export const LOSS_CLAUSES: Readonly<Record<LossKind, string>> = {
  "cannot deliver": "running against a shut end",
  "runs dry": "running dry",
  "backs up": "backing up",
  unprotected: "without protection",
  "locked in": "liquid locked in, that expands when it warms",
};

/** What happens to it, and what to do: said after its tag. */
export function lossSentence(row: AlsoStops): string {
  const by = row.by.join(" and ");
  switch (row.kind) {
    case "cannot deliver":
      return `would run on against a shut end behind ${by}. Stop it first, or line up another way out.`;
    case "runs dry":
      return `would run on with nothing coming through ${by}. Stop it first, or line up another way in.`;
    case "backs up":
      return `has no way off once ${by} is shut: ${row.others.join(", ")} would back up into it. Stop what empties there.`;
    case "unprotected":
      return `goes on without ${row.others.join(", ")}, cut off by ${by}. Take it down first, or protect it another way.`;
    case "locked in":
      return `would stand shut in full of liquid between ${by}, with no relief and no bleed opened. It expands when it warms, by some 3 bar for each kelvin with water and 10 with oil: drain it or leave it a relief.`;
  }
}

export function darkSentence({ loses }: Loss): string {
  return `loses its ${loses.join(", ")}.`;
}
