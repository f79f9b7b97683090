import { SHIFT_CONTACT_C } from "../energy/coolDown";
import type { PlannedStep } from "../procedure/steps";
import type { GearKind } from "../gear/gear";

/** What a step asks of the person who does it, besides doing it. */
export type Asks = Readonly<{
  plate: boolean;
  lock: boolean;
  /** Voltage between every one of these, with a tester proved before and after. */
  pairs: readonly string[];
  /** One reading, judged with the instrument's error. */
  reading: Readonly<{ most: number; unit: string; instrument: GearKind | null }> | null;
  ways: readonly string[];
  earths: "apply" | "remove" | null;
  /** The personal locks seen on the box. */
  locksCounted: boolean;
  peopleCounted: boolean;
  leakTest: boolean;
  /** The door that this proof lets people open, in m across: what holds it while it is let go is asked where much may push on it. */
  opening_m: number | null;
  /** Something to be written down, in these words. */
  words: string | null;
}>;

const NOTHING: Asks = {
  plate: false,
  lock: false,
  pairs: [],
  reading: null,
  ways: [],
  earths: null,
  locksCounted: false,
  peopleCounted: false,
  leakTest: false,
  opening_m: null,
  words: null,
};

/** Above this, insulating gloves in date are asked for besides the tester. Common practice. */
export const GLOVES_ABOVE_V = 1000;

/** Also the fields of its form: the screen and the decision cannot differ. Cost: constant. */
export function asksOf(step: PlannedStep): Asks {
  const asks = { ...NOTHING, plate: step.plate !== null };
  switch (step.kind) {
    case "lock":
      return { ...asks, lock: true };
    case "prove":
      if (step.limit === null) return asks;
      if (step.limit.unit === "V") {
        return { ...asks, pairs: step.pairs && step.pairs.length > 0 ? step.pairs : ["every pair, the highest"] };
      }
      return {
        ...asks,
        reading: { ...step.limit, instrument: instrumentFor(step.limit.unit) },
        opening_m: step.opening_m ?? null,
      };
    case "cool":
      return { ...asks, reading: { most: SHIFT_CONTACT_C, unit: "°C", instrument: "thermometer" } };
    case "empty":
      return {
        ...asks,
        reading: { most: 0, unit: "mm left", instrument: null },
        words: "Where it went, and who agreed to it",
      };
    case "clean":
      return { ...asks, words: "With what, for how long, and where the washings went" };
    case "certify":
      return { ...asks, words: "Number of the certificate, and who wrote it" };
    // No plan asks for it any more: the permit does, point by point. One of before says what it rests on.
    case "test air":
      return { ...asks, words: "Instrument, and what it read at each point" };
    case "restrain":
      return { ...asks, words: "What holds it" };
    case "try start":
      return { ...asks, ways: step.ways ?? [] };
    case "earth":
      return { ...asks, earths: "apply" };
    case "remove earth":
      return { ...asks, earths: "remove" };
    case "unlock":
      // Alone there is no box on which the locks of others hang.
      return { ...asks, locksCounted: step.alone !== true };
    case "open box":
      return { ...asks, locksCounted: true };
    case "count people":
      return { ...asks, peopleCounted: true };
    case "leak test":
      return { ...asks, leakTest: true };
    case "tell":
    case "tell all":
      return { ...asks, words: "Who was told" };
    case "accept losses":
      return { ...asks, words: "What is done about each" };
    case "stand in":
      return { ...asks, words: "Who does it, where, and what was found" };
    case "end stand-in":
      return { ...asks, words: "What was put back" };
    case "hand over":
      return { ...asks, words: "Who takes it" };
    case "test run":
      return { ...asks, words: "What was seen" };
    case "position":
      return { ...asks, words: "Who was at the controls, and what holds it" };
    case "bar off":
    case "take barriers away":
    case "stop":
    case "run down":
    case "verify":
    case "bleed":
    case "release":
    case "inert":
    case "purge":
    case "discharge":
    case "close box":
    case "clear":
    case "guards":
    case "take pin out":
    case "take short off":
    case "close bleed":
    case "cap":
    case "walk line":
    case "start":
    case "watch":
      return asks;
  }
}

/** What reads this unit; null where eyes and hands do. */
function instrumentFor(unit: string): GearKind | null {
  switch (unit) {
    case "bar":
      return "pressure gauge";
    case "°C":
      return "thermometer";
    case "µSv/h":
      return "survey meter";
    default:
      return null;
  }
}
