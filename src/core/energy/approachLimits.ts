/**
 * How near a person may come to live conductors, in metres, by the voltage between them. `restricted`: nearer only when
 * qualified and shielded; `limited`: nobody unqualified. One table: the permit and the bench both read it.
 */
export type ApproachLimit = Readonly<{ upTo_V: number; restricted_m: number; limited_m: number; source: string }>;

const NFPA_70E = "NFPA 70E-2021 table 130.4, fixed circuit parts, from memory";
const PRACTICE = "practice";

/** At and below this voltage no limit is given by the table; the site still keeps hands away. From memory. */
export const NO_LIMIT_UP_TO_V = 50;

const US: readonly ApproachLimit[] = [
  { upTo_V: 150, restricted_m: 0, limited_m: 1.07, source: NFPA_70E },
  { upTo_V: 750, restricted_m: 0.3, limited_m: 1.07, source: NFPA_70E },
  { upTo_V: 15_000, restricted_m: 0.66, limited_m: 1.5, source: NFPA_70E },
  { upTo_V: 36_000, restricted_m: 0.78, limited_m: 1.83, source: NFPA_70E },
];

/** A working clearance of 0.7 m at 10 kV. Common practice, no source. */
const CLEARANCE: readonly ApproachLimit[] = [
  { upTo_V: 1000, restricted_m: 0.3, limited_m: 1, source: PRACTICE },
  { upTo_V: 10_000, restricted_m: 0.7, limited_m: 1.5, source: PRACTICE },
  { upTo_V: 36_000, restricted_m: 1.2, limited_m: 2, source: PRACTICE },
];

const SCHOOLS: Readonly<Record<string, readonly ApproachLimit[]>> = { "us-style": US, "uk-style": CLEARANCE };

/** The rule profiles that the table is read by; strict takes the farther of the others. */
export const APPROACH_PROFILES = ["strict", "us-style", "uk-style"] as const;

/**
 * The limit of a profile at a voltage; the strict profile takes the farther of both schools. Null where neither school
 * gives a figure: below the first voltage, or above the last, where a person must say.
 */
export function approachLimit(profile: string, voltage_V: number): ApproachLimit | null {
  if (voltage_V <= NO_LIMIT_UP_TO_V) return null;
  const schools = SCHOOLS[profile] ? [SCHOOLS[profile]] : [US, CLEARANCE];
  const found = schools.flatMap((bands) => bands.find((band) => voltage_V <= band.upTo_V) ?? []);
  if (found.length < schools.length) return null;
  return {
    upTo_V: Math.min(...found.map((band) => band.upTo_V)),
    restricted_m: Math.max(...found.map((band) => band.restricted_m)),
    limited_m: Math.max(...found.map((band) => band.limited_m)),
    source: [...new Set(found.map((band) => band.source))].join("; "),
  };
}
