import { z } from "zod";
import { carriedBy, HASP_HOLES, haspsFor, LOCK_SCHOOLS, personalLocks } from "../../gear/hasps";
import { HOT_WORK } from "../../fire/hotWork";
import { BadPrecedence, criticalPath } from "../../network/criticalPath";
import { NoFigure, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";

export const hasps = calculator({
  name: "hasps",
  task: "Blinds, locks and the day",
  title: "How many locks and hasps",
  fields: {
    people: number("People", "count", { min: 1, max: 1000, whole: true, example: 8 }),
    points: number("Points", "count", { min: 1, max: 1000, whole: true, example: 4 }),
    school: choice("Where people hang their own locks", LOCK_SCHOOLS),
    holes: number("Holes of a hasp", "count", { min: 2, max: 24, whole: true, default: HASP_HOLES }),
  },
  compute: ({ people, points, school, holes }): Calculation => {
    const locks = personalLocks({ people, points, school });
    // On a point the isolation's own lock hangs besides.
    const each = school === "on the box" ? people : people + 1;
    const at = haspsFor(each, holes);
    const places = school === "on the box" ? 1 : points;
    return {
      results: [
        { key: "hasps", words: "Hasps", quantity: "count", value: at * places },
        { key: "personal_locks", words: "Personal locks", quantity: "count", value: locks },
        { key: "carries", words: "One chain of hasps carries", quantity: "count", value: carriedBy(at, holes) },
      ],
      governs: "hasps",
      formula: "a 6-hole hasp on a 6-hole hasp carries 5 + 6 locks",
      source: "arithmetic, practice",
      validity: "One lock through each hole.",
      warnings: at > 2 ? ["More than two hasps in a chain: use a lock box."] : [],
      picture: {
        kind: "bars",
        quantity: "count",
        log: false,
        rows: [1, 2, 3].map((n) => ({
          words: n === 1 ? "1 hasp" : `${n} hasps`,
          value: carriedBy(n, holes),
          governs: n === at,
        })),
        line: { value: each, words: "locks to hang" },
      },
    };
  },
});

export const lift = calculator({
  name: "lift-load",
  task: "Blinds, locks and the day",
  title: "How many people lift this",
  fields: { mass_kg: size("Mass", "mass", { max: 1e6, example: 30 }) },
  compute: ({ mass_kg }): Calculation => {
    const people = Math.ceil(mass_kg / HOT_WORK.onePersonLift_kg - 1e-9);
    return {
      results: [
        {
          key: "people",
          words: "People, by the limit for one",
          quantity: "count",
          value: people <= 2 ? people : null,
          instead: "none: use lifting gear",
        },
      ],
      governs: "people",
      formula: "above 50 lb (23 kg): two people or a lifting aid",
      source: "practice",
      validity: "A load that is easy to hold, close to the body, on a level floor.",
      warnings:
        people > 2
          ? ["Above what people may lift: lifting gear, with its own plan for the lift."]
          : people > 1
            ? ["Two people or a lifting aid, agreed before the lift."]
            : [],
      picture: {
        kind: "bars",
        quantity: "mass",
        log: false,
        rows: [{ words: "this load", value: mass_kg, governs: true }],
        line: { value: HOT_WORK.onePersonLift_kg, words: "one person" },
      },
    };
  },
});

/** Ten years in seconds: a longer step is a slip. */
const LONGEST_s = 3.2e8;
const seconds = z
  .number({ error: (issue) => (issue.input === undefined ? "is missing" : "must be a number") })
  .min(0, "must be at least 0")
  .max(LONGEST_s, `must be at most ${LONGEST_s}`);
const id = z.string({ error: "must be text" }).min(1, "must not be empty");
const stepsSchema = z.strictObject({
  steps: z
    .array(z.strictObject({ id, duration_s: seconds, after: z.array(id, { error: "must be a list" }).default([]) }), {
      error: "must be a list of steps",
    })
    .min(1, "must not be empty")
    .max(20_000, "must have at most 20000 steps"),
});

export const criticalPathOf = calculator({
  name: "critical-path",
  task: "Blinds, locks and the day",
  title: "How long steps take together",
  fields: {},
  schema: stepsSchema,
  compute: (inputs): Calculation => {
    const { steps } = stepsSchema.parse(inputs);
    try {
      const path = criticalPath(steps);
      return {
        results: [{ key: "length_s", words: "All together", quantity: "duration", value: path.length_s }],
        governs: "length_s",
        formula: "longest chain of steps; earliest and latest start of each, slack between",
        source: "critical path method, textbook",
        validity: "As many hands as there are steps side by side. Crews make it longer.",
        warnings: [],
        also: { steps: path.steps, chain: path.chain },
      };
    } catch (error) {
      if (error instanceof BadPrecedence) throw new NoFigure("steps", error.message);
      throw error;
    }
  },
});
