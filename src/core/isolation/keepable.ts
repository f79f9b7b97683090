import type { PlannedStep } from "../procedure/steps";

/**
 * Steps on the way back that only say what was seen or said: nothing that protects anybody comes off, opens or turns by
 * them. Common practice, no source.
 */
const SEEN_OR_SAID: ReadonlySet<PlannedStep["kind"]> = new Set<PlannedStep["kind"]>([
  "clear",
  "count people",
  "guards",
  "walk line",
  "tell all",
  "watch",
  // They kept people from work that is over, and the plant runs.
  "take barriers away",
]);

/**
 * Whether a step may be done first and signed later, on a round or while there is no network: on the way to an isolation,
 * where each adds a barrier or a proof that counts only once it is signed; and what was only seen or said on the way back.
 * What takes a lock, an earth, a blind or a pin off, opens or closes a path, or starts something asks the server first.
 */
export function mayBeSignedLater({ phase, kind }: Pick<PlannedStep, "phase" | "kind">): boolean {
  // What is turned to its hatch moves: it is no barrier yet.
  if (kind === "position") return false;
  return phase === "isolate" || (phase === "restore" && SEEN_OR_SAID.has(kind));
}
