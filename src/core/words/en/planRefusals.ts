import { notHeldClause } from "./notHeld";
import type { Refusal } from "../../refusal/refusal";

type Of<Code extends Refusal["code"]> = Extract<Refusal, { code: Code }>;

/** Why nobody goes on or starts on an isolation, and what makes it hold again. */
export const notHeldSentence = ({ why }: Of<"not held">): string =>
  `${notHeldClause(why)}. Nobody goes on or starts on it. ${
    why.code === "plan fell"
      ? "Plan its points anew, or correct the register."
      : why.code === "locks not found"
        ? "Hang it again; then another person reads it there, and it is proved again."
        : "Wait until it is judged."
  }`;

/** What today's plant has against a procedure. */
export const procedureUnsafeWords = ({ procedure, otherWork, lost, short }: Of<"procedure unsafe">): string =>
  `By ${procedure} this cannot be isolated today: ${[
    otherWork ? "the work asked for is other than the procedure's" : "",
    lost.length > 0 ? `${lost.join(", ")} no longer there or no longer a barrier` : "",
    short.length > 0 ? `energy gets past it from ${short.join(", ")}` : "",
  ]
    .filter(Boolean)
    .join("; ")}. Go on without the procedure, then write a new version.`;
