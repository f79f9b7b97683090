import type { PersonId } from "../../people/roles";
import { refuse } from "../../refusal/result";
import type { PermitFacts } from "../record/permitTypes";

/**
 * Why somebody of another firm may not begin, whether they sign on, take a post or accept a permit: they were not shown this
 * site, or too long ago. Null for whoever may.
 */
export function inductionFault(person: PersonId, facts: Pick<PermitFacts, "notInducted" | "nameOf" | "timeOf">) {
  const missing = facts.notInducted(person);
  if (missing === null) return null;
  const since = missing.since_ms === null ? null : facts.timeOf(missing.since_ms);
  return refuse({ code: "not inducted", who: facts.nameOf(person), firm: missing.firm, since });
}
