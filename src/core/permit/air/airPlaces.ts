import { ENTRY_LIMITS, HOT_WORK_LIMITS, STRICT_ENTRY, type AirLimits } from "../../atmosphere/airLimits";
import { testPoints, widthOr } from "../../atmosphere/testPoints";
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
export type AirPlaces = Readonly<{
  /** Before the cover comes off; its reading is the first, and no later one depends on it. */
  cover: string | null;
  /** From outside, then from inside: all of them must stand. */
  points: readonly string[];
  /** Those that only somebody inside can reach. */
  inside: readonly string[];
}>;

const NOWHERE: AirPlaces = { cover: null, points: [], inside: [] };
/** Through a hole, a nozzle or an opened bleed; where there is none, under its edge lifted by a hand's width, from upwind. */
export const COVER_POINT = "through the closed cover";

export function airPlaces(details: PermitDetails): AirPlaces {
  switch (details.kind) {
    case "hot work":
      return { ...NOWHERE, points: [...details.points] };
    case "confined space entry": {
      const width_m = widthOr(details.width_m, details.travel_m);
      const all = testPoints({ ...details, width_m }).map(({ kind, where, depth_m, travel_m, aside_m }) => ({
        isInside: kind !== "column" || travel_m > 0 || aside_m > 0,
        name:
          kind === "column"
            ? `${where}, ${metres(depth_m)} down${travel_m > 0 ? `, ${metres(travel_m)} in` : ""}${aside_m > 0 ? `, ${metres(aside_m)} to the side` : ""}`
            : where,
      }));
      const outside = all.filter(({ isInside }) => !isInside).map(({ name }) => name);
      const inside = all.filter(({ isInside }) => isInside).map(({ name }) => name);
      return { cover: COVER_POINT, points: [...new Set([...outside, ...inside])], inside: [...new Set(inside)] };
    }
    case "general":
    case "line break":
    case "electrical work":
    case "work at height":
    case "pressure test":
    case "safeguard bypass":
    case "minor isolation":
      return NOWHERE;
  }
}

function metres(value: number): string {
  return `${Number(value.toFixed(1))} m`;
}
