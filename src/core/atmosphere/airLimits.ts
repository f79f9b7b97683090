import { lowerLimit, substance } from "./substances";
import { TEST_ORDER } from "./testPoints";

/** What a gas test read. Oxygen and toxics are fractions of 1; flammable is a fraction of the lower limit. */
export type AirReading = Readonly<{
  oxygen: number | null;
  flammable: number | null;
  toxics: readonly Readonly<{ gas: string; fraction: number | null }>[];
}>;

/** Limits for being in a space. A site may tighten them; past the profile it needs a reason. */
export type AirLimits = Readonly<{
  oxygen: Readonly<{ least: number; most: number }>;
  /** Fraction of the lower flammable limit that must not be reached; 0 asks for none at all. */
  flammableBelow: number;
  toxics: readonly Readonly<{ gas: string; most: number; source: string }>[];
  source: string;
}>;

const OSHA = "29 CFR 1910.146(b), from memory";
const toxic = (gas: string, most: number, source: string) => ({ gas, most, source });

/** Limits for entry by school. Toxic limits are for the long term unless said. */
export const ENTRY_LIMITS = {
  "us-style": {
    oxygen: { least: 0.195, most: 0.235 },
    flammableBelow: 0.1,
    toxics: [
      toxic("hydrogen sulphide", 10e-6, "NIOSH REL ceiling, from memory"),
      toxic("carbon monoxide", 35e-6, "NIOSH REL over the shift, from memory"),
    ],
    source: OSHA,
  },
  "uk-style": {
    oxygen: { least: 0.195, most: 0.235 },
    flammableBelow: 0.1,
    toxics: [
      toxic("hydrogen sulphide", 5e-6, "EH40 long-term (10 ppm short-term), from memory"),
      toxic("carbon monoxide", 20e-6, "EH40 long-term (100 ppm short-term), from memory"),
    ],
    source: OSHA,
  },
} as const satisfies Record<string, AirLimits>;

/** The stricter of every school's figures. */
export const STRICT_ENTRY: AirLimits = {
  ...ENTRY_LIMITS["uk-style"],
  source: `${OSHA}; the lower of NIOSH and EH40 for toxics`,
};

/** Hot work inside equipment: no flammable reading at all, and no more than 22 % oxygen. Site rule, common practice. */
export const HOT_WORK_LIMITS: AirLimits = {
  oxygen: { least: 0.195, most: 0.22 },
  flammableBelow: 0,
  toxics: STRICT_ENTRY.toxics,
  source: "site rule, common practice",
};

/** Oxygen below this is explained before anyone enters: something else is in the air. Common practice. */
const EXPLAIN_BELOW = 0.208;
const AIR_OXYGEN = 0.209;

export type AirJudgement = Readonly<{ fit: boolean; against: readonly string[]; explain: readonly string[] }>;

/**
 * Is this air fit to be in? A reading that is missing is against it. Every fault is listed in the order of testing.
 * A gas without a limit of its own is judged by its substance's toxic limit where one is known, else it is against.
 */
export function judgeAir(reading: AirReading, limits: AirLimits): AirJudgement {
  const against: string[] = [];
  const explain: string[] = [];
  const percent = (fraction: number) => `${Number((fraction * 100).toFixed(2))} %`;
  for (const test of TEST_ORDER) {
    if (test === "oxygen") {
      const { oxygen } = reading;
      if (oxygen === null || !Number.isFinite(oxygen)) against.push("oxygen was not read");
      else if (oxygen < limits.oxygen.least)
        against.push(`oxygen ${percent(oxygen)} is below ${percent(limits.oxygen.least)}`);
      else if (oxygen > limits.oxygen.most)
        against.push(`oxygen ${percent(oxygen)} is above ${percent(limits.oxygen.most)}`);
      else if (oxygen < EXPLAIN_BELOW) {
        const other = (AIR_OXYGEN - oxygen) / AIR_OXYGEN;
        explain.push(
          `oxygen ${percent(oxygen)} means some ${percent(other)} of the air is something else: find out what`,
        );
      }
    } else if (test === "flammable") {
      const { flammable } = reading;
      if (flammable === null || !Number.isFinite(flammable)) against.push("flammable was not read");
      else if (flammable > 0 && flammable >= limits.flammableBelow) {
        against.push(
          `flammable ${percent(flammable)} of the lower limit: ${limits.flammableBelow === 0 ? "none is accepted" : `must be below ${percent(limits.flammableBelow)}`}`,
        );
      }
    } else {
      for (const { gas, fraction } of reading.toxics) {
        const limit = limits.toxics.find((one) => one.gas === gas)?.most ?? substance(gas)?.toxic?.limit;
        const ppm = (value: number) => `${Number((value * 1e6).toFixed(1))} ppm`;
        if (fraction === null || !Number.isFinite(fraction)) against.push(`${gas} was not read`);
        else if (limit === undefined) against.push(`${gas} has no limit in the profile: a person must set one`);
        else if (fraction > limit) against.push(`${gas} ${ppm(fraction)} is above ${ppm(limit)}`);
      }
    }
  }
  return { fit: against.length === 0, against, explain };
}

/**
 * A tenth of the lower flammable limit as a fraction of the air: what a flammable reading lets pass, and whether that is
 * already more than a person may breathe. Ten per cent of the limit of hexane is 1,100 ppm, of ammonia 15,000.
 */
export function tenthOfLimit(gas: string): { fraction: number; aboveToxic: boolean } | null {
  const found = substance(gas);
  const limit = found && lowerLimit(found, "us");
  if (found === undefined || limit === undefined) return null;
  return { fraction: limit / 10, aboveToxic: found.toxic !== undefined && limit / 10 > found.toxic.limit };
}
