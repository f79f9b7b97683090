import { z } from "zod";
import { HOWS } from "../request/jobFile";
import { CARRIERS } from "../plant/carriers";
import { FAMILIES, GRADES, isGradeOf } from "./grades";
import { AFTER_WATCHES } from "../fire/hotWork";

/**
 * A site's rules as data, so that a site can read, edit and sign them. Every row that fits a way of meeting an energy
 * applies and the strictest wins; where none fits, the strictest grade of all.
 */
const rowSchema = z
  .object({
    id: z.string().min(1),
    family: z.enum(FAMILIES),
    when: z
      .object({
        /** Any of these ways of meeting the face. */
        how: z.array(z.enum(HOWS)).optional(),
        /** What the source supplies, any of. */
        supplied: z.array(z.enum(CARRIERS)).optional(),
        suppliedFamily: z.array(z.enum(FAMILIES)).optional(),
        /** As what it arrives, any of. */
        arrives: z.array(z.enum(CARRIERS)).optional(),
        /** Contents at the source. Contents that nobody wrote down fit every one of these but `harmless`. */
        contents: z.enum(["harmless", "harmful", "may burn or harm", "high pressure and harmful"]).optional(),
        /** The voltage of the face's item is above this, or not written down. */
        above_V: z.number().optional(),
        /** The job outlasts one shift. */
        longerThanShift: z.literal(true).optional(),
      })
      .strict(),
    /** What the row asks; `one better` raises what the other rows ask by one. */
    asks: z.union([z.enum(GRADES as [(typeof GRADES)[number]]), z.literal("one better")]),
    reason: z.string().min(1),
    /** A published standard, or "practice". */
    source: z.string().min(1),
  })
  .refine((row) => row.asks === "one better" || isGradeOf(row.family, row.asks), {
    error: "the grade is not of this family",
  });

const waitSchema = z.object({
  governs: z.enum(["longer", "rule", "sum"]),
  reason: z.string().min(1),
  source: z.string().min(1),
});

const measureSchema = z.object({ id: z.string(), families: z.array(z.enum(FAMILIES)), words: z.string() });

export const profileSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1),
  /** Contents above these are harmful whatever they are. */
  hotAbove_C: z.number(),
  highPressureAbove_Pa: z.number(),
  /** Harmful contents above this ask for positive isolation to be opened. */
  positiveAbove_Pa: z.number(),
  /** Links walked longer ago than this are taken as not walked, in days. */
  walkedWithin_days: z.number().positive(),
  /** Where a rule of thumb and a sum disagree, which is waited for, and why. */
  waits: z.object({ purge: waitSchema, capacitor: waitSchema }),
  /** The air is tested again no later than this while people are in a space or work hot, in minutes. */
  airRetest_min: z.number().positive(),
  /** An isolation that stays is looked at again no later than this, in hours. */
  reviewEvery_h: z.number().positive(),
  /** The locks of an isolation that stands are read at their points no later than this, in hours. */
  lockCheckEvery_h: z.number().positive(),
  /** Whose lock goes on the box before any other and comes off after every other. */
  firstOn: z.array(z.enum(["coordinator", "lead"])),
  /** Points that somebody else looks at again once they are locked. */
  verified: z.enum(["harmful and high voltage", "every point", "none"]),
  /** A proof is done again before people go on when it is older than this, in hours. */
  proofGoodFor_h: z.number().positive(),
  /** And when nobody was there for longer than this, in minutes. */
  absence_min: z.number().positive(),
  /** A leak test is held at least so long, in minutes. */
  leakTest_min: z.number().positive(),
  /** A permit goes on past a shift change only when it is revalidated within so many minutes. */
  revalidateWithin_min: z.number().positive(),
  /** Whether the end of a permit that runs may be put off. */
  extension: z.enum(["once", "never"]),
  /** Flammable reading that hot work in the open air may have, as a fraction of the lower limit; inside always none. */
  openHotBelow: z.number().min(0).max(0.1),
  /** From this height on people are held against falling, in metres. */
  fallAbove_m: z.number().min(0),
  /** What a permit is displayed on where the work is. */
  displayed: z.enum(["paper", "paper or screen"]),
  /** A rescue was rehearsed no longer ago than this, in days. */
  rehearsedWithin_days: z.number().positive(),
  /** Id of the watch after hot work. */
  afterWatch: z.enum(AFTER_WATCHES.map(({ id }) => id) as [string, ...string[]]),
  rows: z.array(rowSchema).min(1),
  /** What can be done instead, where a route falls short and a person accepts it. */
  measures: z.array(measureSchema).min(1),
});

export type RuleProfile = z.output<typeof profileSchema>;
export type RuleRow = RuleProfile["rows"][number];
