import { AFTER_WATCHES, checksDue_s, HOT_WORK, needsApprover } from "../../fire/hotWork";
import type { Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number } from "../fields";

export const clearZone = calculator({
  name: "hot-work-zone",
  task: "Work with flame and sparks",
  title: "How far to clear for hot work",
  fields: {
    height_m: number("Height above the floor below", "length", { min: 0, max: 500, example: 6 }),
    welders: number("People with a flame or arc", "count", { min: 1, max: 100, whole: true, example: 1 }),
    permits: number("on so many permits", "count", { min: 1, max: 100, whole: true, example: 1 }),
  },
  compute: ({ height_m, welders, permits }): Calculation => ({
    results: [
      { key: "clear_m", words: "Clear or cover sideways to", quantity: "length", value: HOT_WORK.clear_m },
      {
        key: "cylinders_m",
        words: "Cylinders from the work, at least",
        quantity: "length",
        value: HOT_WORK.cylinders_m,
      },
      { key: "longest_s", words: "A permit lasts at most", quantity: "duration", value: HOT_WORK.longest_s },
    ],
    governs: "clear_m",
    ...(needsApprover(welders, permits)
      ? { because: "Several people with a flame on one permit: a safety approver accepts that first." }
      : {}),
    formula: "35 ft (10.7 m) sideways; everything below an opening through which sparks fall; both sides of a wall",
    source: "29 CFR 1910.252(a)(2) and NFPA 51B, from memory; cylinders 25 ft practice",
    validity: "Sparks from a height fly further, and wind carries them: look where they can land.",
    warnings:
      height_m > 0 ? ["Cover openings; clear what is below; a watcher for each level that sparks can reach."] : [],
    picture: {
      kind: "reach",
      rings: [
        { radius_m: HOT_WORK.clear_m, words: "clear or covered" },
        { radius_m: HOT_WORK.cylinders_m, words: "no cylinders" },
      ],
    },
  }),
});

const WATCH_IDS = AFTER_WATCHES.map(({ id }) => id) as [string, ...string[]];

export const afterWatch = calculator({
  name: "after-watch",
  task: "Work with flame and sparks",
  title: "How long to watch after hot work",
  fields: { rule: choice("Rule or class of area", WATCH_IDS) },
  compute: ({ rule }): Calculation => {
    const watch = AFTER_WATCHES.find(({ id }) => id === rule)!;
    const due = checksDue_s(watch);
    return {
      results: [
        { key: "total_s", words: "Watch ends after", quantity: "duration", value: watch.continuous_s + watch.checks_s },
        { key: "continuous_s", words: "of it without a break", quantity: "duration", value: watch.continuous_s },
        { key: "checks", words: "then checks", quantity: "count", value: due.length },
      ],
      governs: "total_s",
      formula: `${watch.words}${watch.finalCheck ? ", signed by safety" : ""}`,
      source: watch.source,
      validity: "From the end of the work, breaks included. The control room is told when it ends.",
      warnings: [],
      picture: {
        kind: "bars",
        quantity: "duration",
        log: false,
        rows: AFTER_WATCHES.map((one) => ({
          words: one.id,
          value: one.continuous_s + one.checks_s,
          governs: one.id === rule,
        })),
      },
      also: { checks_due_s: due, finalCheck: watch.finalCheck },
    };
  },
});

export const leakingCylinder = calculator({
  name: "leaking-cylinder",
  task: "Work with flame and sparks",
  title: "Where to put a leaking cylinder",
  fields: { gas: choice("Its gas", ["not flammable", "flammable"]) },
  compute: ({ gas }): Calculation => {
    const distance_m = gas === "flammable" ? HOT_WORK.leakingFlammableCylinder_m : HOT_WORK.leakingCylinder_m;
    return {
      results: [
        { key: "distance_m", words: "In the open, from people and ignition", quantity: "length", value: distance_m },
      ],
      governs: "distance_m",
      formula: "at least 100 ft (30 m); 100 m for flammable gas",
      source: "practice",
      validity: "Only where it can be moved without being near the leak. Up the wind, and call for help.",
      warnings: [],
      picture: { kind: "reach", rings: [{ radius_m: distance_m, words: "nobody, no ignition" }] },
    };
  },
});
