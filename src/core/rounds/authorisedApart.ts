import type { PermitDetails } from "../permit/kinds/details";
import type { AskContext } from "../permit/requirements/ask";
import { approvalReasons } from "../permit/requirements/every";

/** Above it rules of its own apply: 1 kV AC, IEC 60038. */
const HIGH_VOLTAGE_V = 1000;

/**
 * Why a permit is authorised at the desk, apart from being issued on the spot; null where one signature on the spot may be
 * both: never for flame, entry, opening of lines, live or high voltage, pressure or a bypass, nor where something was
 * accepted below the rules, another permit is touched, or somebody else has to approve. Common practice, no source.
 */
export function authorisedApart({ permit, facts }: Pick<AskContext, "permit" | "facts">): string | null {
  const { details } = permit;
  if (isHeavy(details)) return `it is for ${named(details)}`;
  const [approval] = approvalReasons({ permit, facts });
  if (approval !== undefined) return `a safety approver decides: ${approval}`;
  if (facts.acceptedUntil_ms !== null || facts.standIns.length > 0) return "its isolation was accepted below the rules";
  if (facts.clashes.length > 0) return "it touches other permits";
  return null;
}

function isHeavy(details: PermitDetails): boolean {
  switch (details.kind) {
    case "general":
    case "work at height":
      return false;
    case "electrical work":
      return details.live || details.sanction || details.voltage_V >= HIGH_VOLTAGE_V;
    case "hot work":
    case "confined space entry":
    case "line break":
    case "pressure test":
    case "safeguard bypass":
    case "minor isolation":
      return true;
  }
}

function named(details: PermitDetails): string {
  if (details.kind !== "electrical work") return details.kind;
  if (details.live) return "work on live conductors";
  return details.sanction ? "a test with the earths off" : "high voltage";
}
