import type { PermitRequired } from "../../hazard/permitsRequired";
import type { PermitKind } from "../kinds/kinds";
import type { PermitFacts, PermitState } from "../record/permitTypes";
import { known, type AskContext, type AskMaker } from "./ask";

/** A permit in these states was issued, and nobody took that back. */
const ISSUED: ReadonlySet<PermitState> = new Set<PermitState>([
  "issued",
  "live",
  "suspended",
  "run out",
  "watching",
  "work done",
  "closed",
]);

/** By these people come to a place; whatever else is done there is done under them too. */
const WAYS_THERE: readonly PermitKind[] = ["confined space entry", "work at height"];

/**
 * The kinds that must have been issued for the job before work under this permit begins. A general permit covers none of
 * them, so it waits for all. Any other covers its own, and waits for those by which people come to where it is done: but
 * nobody has to be let into a space for its flanges to be opened from outside, nor anywhere for a safeguard to be bypassed.
 * Common practice, no source.
 */
export function neededBefore(kind: PermitKind, required: readonly PermitRequired[]): PermitRequired[] {
  const others = required.filter((one) => one.kind !== kind && one.kind !== "general");
  if (kind === "general") return others;
  if (kind === "safeguard bypass") return [];
  const own = required.find((one) => one.kind === kind)?.places ?? null;
  return others.filter(
    (one) =>
      WAYS_THERE.includes(one.kind) &&
      !(kind === "line break" && one.kind === "confined space entry") &&
      (own === null || one.places === null || one.places.some((place) => own.includes(place))),
  );
}

export const otherPermits: AskMaker = ({ permit, facts }: AskContext) =>
  known("other permits", "The other permits that its job requires are issued", missing(permit.details.kind, facts), {
    before: "accept",
  });

function missing(kind: PermitKind, facts: PermitFacts): string | null {
  if (facts.required === null) return "no register says which are required";
  const without = neededBefore(kind, facts.required).filter(
    (one) => !facts.ofJob.some((permit) => permit.kind === one.kind && ISSUED.has(permit.state)),
  );
  return without.length === 0
    ? null
    : `none was issued for ${without.map((one) => `${one.kind} (${one.because})`).join(", ")}`;
}
