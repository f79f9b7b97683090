import type { Carrier } from "../plant/carriers";
import type { Item } from "../plant/plant";

/**
 * How good a route's isolation is, by depth and devices alone. Nothing is proved yet and bleeds are not judged, so no
 * grade better than an unproved one is given for what flows.
 */
export function unprovedGrade(carrier: Carrier, depth: number, barriers: readonly Item[]): string {
  if (depth === 0) return "none";
  switch (carrier) {
    case "fluid":
    case "bulk":
    case "hydraulic":
    case "pneumatic":
      return depth >= 2 ? "unproved double" : "unproved single";
    case "power":
    case "control":
      return barriers.some((item) => item.device?.lockable) ? "locked isolating device" : "tagged only";
    case "shaft":
    case "gravity":
      return "drive isolated only";
    case "heat":
      return "isolated";
    case "radiation":
      return "none";
  }
}
