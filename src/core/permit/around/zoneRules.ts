import { ruleSwitch } from "../kinds/ruleSwitch";

/** What lies in the zone of a flame, one rule a line; each has a test that fails without it. Common practice, no source. */
export const ZONE_RULES = {
  wall: "distance is measured to the wall, not to the middle",
  below: "what lies below is reached, unless the floor is known to be tight",
  farther: "higher work throws farther",
  above: "above it what hangs or vents there",
  unplaced: "what has no place is one line for its area, and only what can hold, vent or be what burns",
  names: "what burns by its name counts though nobody flagged it",
  oxygen: "oxygen is named",
  elsewhere: "ducts and conveyors lead sparks elsewhere",
  walls: "both sides of a wall",
  ends: "drains, vents and open ends",
  "under the flame": "the vessel under the torch is not covered, it is made gas-free",
} as const;

export type ZoneRule = keyof typeof ZONE_RULES;

export const { keeps, without } = ruleSwitch<ZoneRule>();
