import type { Stage } from "../../core/job/nextAct";

/** What each stage of a job is called. */
export const STAGE_WORDS: Readonly<Record<Stage, string>> = {
  ask: "Request",
  energies: "Energy sources",
  hazards: "Hazards",
  points: "Isolation points",
  time: "Schedule",
  kit: "Tools and gear",
  walk: "Isolate",
  permits: "Permits",
  return: "Restore",
};

/** The same in the string of lamps, where room is short. */
export const STAGE_SHORT: Readonly<Record<Stage, string>> = {
  ...STAGE_WORDS,
  energies: "Energy",
  points: "Points",
  kit: "Tools",
};
