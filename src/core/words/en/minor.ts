import type { MinorCondition, MinorFault } from "../../refusal/minorFault";
import type { Refusal } from "../../refusal/refusal";

/** Each condition of a minor isolation as it is where it is met. */
export const MINOR_WORDS: Readonly<Record<MinorCondition, string>> = {
  "no stored energy": "no energy stays stored behind the point, and none builds up again",
  "one source": "one source, at one point that is easily found",
  "cut off by it": "that point cuts everything off",
  "locked out": "the point takes a lock",
  "one lock": "one lock does it",
  "own control": "one isolator does all of it and keeps the key",
  "no hazard to others": "nothing else stops by it, and nobody else is put at risk",
  "no accident": "the machine never started or stayed live against expectation",
  "kind of energy": "only electricity, and what turns by it, reaches the work",
  "low voltage": "at most 1000 V",
  "kind of work": "nobody enters, and nothing gets hot",
  "no permit of a kind": "the hazards ask for no permit of a kind of its own",
  "no other step": "nothing to do but tell, stop, lock, prove and try",
  "one shift": "begun and ended within one shift",
  "not shared": "no other isolation holds the point",
};

/** What stands against it: the condition, and by what it is not met. */
export function minorFaultWords({ condition, evidence }: MinorFault): string {
  const more = evidence.length > MOST ? ` and ${evidence.length - MOST} more` : "";
  return `not so that ${MINOR_WORDS[condition]}: ${evidence.slice(0, MOST).join(", ")}${more}`;
}
const MOST = 4;

type ShortRoute = Extract<Refusal, { code: "short route" | "not minor" | "works alone" }>;

export function shortRouteSentence(refusal: ShortRoute): string {
  switch (refusal.code) {
    case "short route":
      return refusal.isMinor
        ? `${refusal.what} is a minor isolation: one person begins and ends it alone. For anything else give it up and plan the job in full.`
        : `${refusal.what} is no minor isolation, so nobody begins or ends it alone.`;
    case "not minor":
      return `Job ${refusal.job} is no minor isolation: ${refusal.faults.map(minorFaultWords).join("; ")}. Approve its plan in full.`;
    case "works alone":
      return `${refusal.who} works alone under this minor isolation, and their lock is theirs: only they can do “${refusal.step}”.`;
  }
}
