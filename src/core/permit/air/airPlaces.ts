import { ENTRY_LIMITS, HOT_WORK_LIMITS, STRICT_ENTRY, type AirLimits } from "../../atmosphere/airLimits";
import { testPoints } from "../../atmosphere/testPoints";
import type { RuleProfile } from "../../requirement/profile";
import type { PermitDetails } from "../kinds/details";

/**
 * What the air of a permit's work must be: for entry by the profile, the strict one where it says nothing; in equipment
 * that is worked on with a flame the strictest; in the open what the profile allows.
 */
export function airLimitsFor(details: PermitDetails, profile: Pick<RuleProfile, "id" | "openHotBelow">): AirLimits {
  const known = Object.entries(ENTRY_LIMITS).find(([id]) => id === profile.id);
  if (details.kind !== "hot work") return known?.[1] ?? STRICT_ENTRY;
  return details.inEquipment ? HOT_WORK_LIMITS : { ...HOT_WORK_LIMITS, flammableBelow: profile.openHotBelow };
}

/** The places where air is read, in the order in which they are read; none where the permit reads no air. */
export function airPlaces(details: PermitDetails): string[] {
  switch (details.kind) {
    case "hot work":
      return [...details.points];
    case "confined space entry":
      return testPoints(details).map(({ kind, where, depth_m, travel_m }) =>
        kind === "column"
          ? `${where}, ${metres(depth_m)} down${travel_m > 0 ? `, ${metres(travel_m)} in` : ""}`
          : where,
      );
    case "general":
    case "line break":
    case "electrical work":
    case "work at height":
    case "pressure test":
    case "safeguard bypass":
      return [];
  }
}

function metres(value: number): string {
  return `${Number(value.toFixed(1))} m`;
}
