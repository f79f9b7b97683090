import { lowerLimit, substance, type ToxicLimit } from "./substances";
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
  toxics: readonly Readonly<{ gas: string; most: number; over: ToxicLimit["over"]; short?: number; source: string }>[];
  source: string;
}>;

const OSHA = "29 CFR 1910.146(b), from memory";
const toxic = (gas: string, most: number, over: ToxicLimit["over"], source: string, short?: number) => ({
  gas,
  most,
  over,
  source,
  ...(short === undefined ? {} : { short }),
});

/** Limits for entry by school. Toxic limits are for the long term unless said. */
export const ENTRY_LIMITS = {
  "us-style": {
    oxygen: { least: 0.195, most: 0.235 },
    flammableBelow: 0.1,
    toxics: [
      toxic("hydrogen sulphide", 10e-6, "short", "NIOSH REL ceiling, from memory"),
      toxic("carbon monoxide", 35e-6, "long", "NIOSH REL over the shift, from memory", 200e-6),
    ],
    source: OSHA,
  },
  "uk-style": {
    oxygen: { least: 0.195, most: 0.235 },
    flammableBelow: 0.1,
    toxics: [
      toxic("hydrogen sulphide", 5e-6, "long", "EH40 long-term (10 ppm short-term), from memory", 10e-6),
      toxic("carbon monoxide", 20e-6, "long", "EH40 long-term (100 ppm short-term), from memory", 100e-6),
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

/** Oxygen outside these is explained before anyone enters: something else is in the air, or too much of it. Common practice. */
const EXPLAIN_OXYGEN = { least: 0.208, most: 0.215 } as const;
const AIR_OXYGEN = 0.209;
/** A zero band wider than this, as a fraction of the lower limit, cannot show that there is nothing. Common practice. */
export const WIDEST_ZERO_BAND = 0.02;

/**
 * What is known of the instrument that shows a reading: how far it may be off, and inside which band it says nothing at
 * all. Oxygen and toxics as fractions of the air, flammable of the lower limit.
 */
export type Shown = Readonly<{
  error: Readonly<{ oxygen: number; flammable: number; toxic: number }>;
  /** Null where nobody wrote it down, or it was not zeroed in fresh air this shift: then it cannot show nil. */
  zero: Readonly<{ flammable: number | null; toxic: number | null }>;
  /** What a flammable reading is multiplied by for the gas that is there; 1 where not said. */
  flammableTimes?: number;
  /** Mean of each gas over the shift, for limits over the shift; the current reading where nothing else is known. */
  mean?: (gas: string, now: number) => number;
}>;

/** A figure taken as it stands: for sums of the bench, never for a permit. */
export const EXACT: Shown = { error: { oxygen: 0, flammable: 0, toxic: 0 }, zero: { flammable: 0, toxic: 0 } };

export type AirJudgement = Readonly<{ fit: boolean; against: readonly string[]; explain: readonly string[] }>;

/**
 * Is this air fit to be in? A reading that is missing is against it. Every fault is listed in the order of testing. The
 * instrument's error is added at the oxygen limits and wherever a limit is above zero, and a flammable reading is raised for the gas
 * that is there; nothing at all is shown only by a
 * reading inside a zero band that is stated and narrow. Poisons add up, like with like: current readings against ceilings
 * and short-term limits, means against limits over the shift.
 *
 * A gas without a limit of its own is judged by its substance's toxic limit where one is known, else it is against.
 */
export function judgeAir(reading: AirReading, limits: AirLimits, by: Shown = EXACT): AirJudgement {
  const against: string[] = [];
  const explain: string[] = [];
  for (const test of TEST_ORDER) {
    if (test === "oxygen") judgeOxygen(reading.oxygen, limits, by, against, explain);
    else if (test === "flammable") judgeFlammable(reading.flammable, limits, by, against, explain);
    else judgeToxics(reading.toxics, limits, by, against);
  }
  return { fit: against.length === 0, against, explain };
}

const percent = (fraction: number) => `${Number((fraction * 100).toFixed(2))} %`;
const ppm = (fraction: number) => `${Number((fraction * 1e6).toFixed(1))} ppm`;
const offBy = (error: number, of: (fraction: number) => string) => (error > 0 ? ` (may be off by ${of(error)})` : "");

function judgeOxygen(oxygen: number | null, limits: AirLimits, by: Shown, against: string[], explain: string[]): void {
  if (oxygen === null || !Number.isFinite(oxygen)) return void against.push("oxygen was not read");
  const { oxygen: error } = by.error;
  const { least, most } = limits.oxygen;
  if (oxygen - error < least) {
    return void against.push(`oxygen ${percent(oxygen)}${offBy(error, percent)} is below ${percent(least)}`);
  }
  if (oxygen + error > most) {
    return void against.push(`oxygen ${percent(oxygen)}${offBy(error, percent)} is above ${percent(most)}`);
  }
  if (oxygen < EXPLAIN_OXYGEN.least) {
    const other = (AIR_OXYGEN - oxygen) / AIR_OXYGEN;
    explain.push(`oxygen ${percent(oxygen)} means some ${percent(other)} of the air is something else: find out what`);
  } else if (oxygen > EXPLAIN_OXYGEN.most) {
    explain.push(`oxygen ${percent(oxygen)} is more than air has: find out where it comes from`);
  }
}

function judgeFlammable(
  flammable: number | null,
  limits: AirLimits,
  by: Shown,
  against: string[],
  explain: string[],
): void {
  if (flammable === null || !Number.isFinite(flammable)) return void against.push("flammable was not read");
  const { flammableBelow } = limits;
  const { flammable: error } = by.error;
  const { flammable: band } = by.zero;
  const canShowNil = band !== null && band <= WIDEST_ZERO_BAND;
  const isNil = canShowNil && flammable <= band;
  if (flammableBelow === 0) {
    if (!canShowNil) against.push("flammable: this instrument cannot show that there is none");
    else if (!isNil) against.push(`flammable ${percent(flammable)} of the lower limit: none is accepted`);
    return;
  }
  const { flammableTimes: times = 1 } = by;
  if ((flammable + error) * times >= flammableBelow) {
    const raised = times > 1 ? `, which may be ${percent(flammable * times)} of what is there` : "";
    against.push(
      `flammable ${percent(flammable)} of the lower limit${raised}${offBy(error * times, percent)}: must be below ${percent(flammableBelow)}`,
    );
  } else if (!isNil && flammable > 0) {
    explain.push(`flammable ${percent(flammable)} of the lower limit: find out what gives it off`);
  }
}

type Limit = Readonly<{ most: number; over: ToxicLimit["over"]; short?: number }>;

function judgeToxics(toxics: AirReading["toxics"], limits: AirLimits, by: Shown, against: string[]): void {
  const sums = { short: 0, long: 0 };
  let count = 0;
  for (const { gas, fraction } of toxics) {
    const limit = limitOf(gas, limits);
    if (fraction === null || !Number.isFinite(fraction)) against.push(`${gas} was not read`);
    else if (limit === null) against.push(`${gas} has no limit in the profile: a person must set one`);
    else {
      const isNothing = by.zero.toxic !== null && fraction <= by.zero.toxic;
      if (fraction + by.error.toxic > limit.most) {
        against.push(`${gas} ${ppm(fraction)}${offBy(by.error.toxic, ppm)} is above ${ppm(limit.most)}`);
      }
      if (isNothing) continue;
      count++;
      const short = limit.over === "short" ? limit.most : limit.short;
      if (short !== undefined) sums.short += fraction / short;
      if (limit.over === "long") sums.long += (by.mean?.(gas, fraction) ?? fraction) / limit.most;
    }
  }
  if (count < 2) return;
  for (const [over, words] of [
    ["short", "at this moment"],
    ["long", "over the shift"],
  ] as const) {
    if (sums[over] >= 1) {
      against.push(`the poisons together are ${percent(sums[over])} of what may be breathed ${words}`);
    }
  }
}

function limitOf(gas: string, limits: AirLimits): Limit | null {
  const own = limits.toxics.find((one) => one.gas === gas);
  if (own) return own;
  const known = substance(gas)?.toxic;
  return known ? { most: known.limit, over: known.over, ...(known.short ? { short: known.short } : {}) } : null;
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
