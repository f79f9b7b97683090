/** Molar mass of dry air, kg/mol. */
export const AIR_kg_mol = 0.02896;

/**
 * Gases and vapours a coordinator meets. Lower flammable limits in fractions of the air by volume, by set: `us` is the
 * NIOSH Pocket Guide, `european` IEC 60079-20-1; both from memory. Where a set has no figure of its own the other's is
 * used. Molar masses are sums of atomic weights.
 */
export type Substance = Readonly<{
  name: string;
  molar_kg: number;
  lfl?: Readonly<{ us?: number; european?: number }>;
  /** A hydrocarbon infrared sensor does not see it, or not reliably. From memory. */
  infraredBlind?: boolean;
  /** Greatest fraction for entry, whatever its share of the flammable limit, with its source. */
  toxic?: ToxicLimit;
}>;

/** Over the shift, or at any moment (a ceiling or a short-term limit); `short` is the second where both are known. */
export type ToxicLimit = Readonly<{ limit: number; over: "long" | "short"; short?: number; source: string }>;

const NIOSH = "NIOSH Pocket Guide, from memory";
export const SUBSTANCES: readonly Substance[] = [
  { name: "methane", molar_kg: 0.01604, lfl: { us: 0.05, european: 0.044 } },
  { name: "propane", molar_kg: 0.0441, lfl: { us: 0.021, european: 0.017 } },
  { name: "hydrogen", molar_kg: 0.002016, lfl: { us: 0.04 }, infraredBlind: true },
  { name: "acetylene", molar_kg: 0.02604, lfl: { us: 0.025, european: 0.023 }, infraredBlind: true },
  {
    name: "carbon monoxide",
    molar_kg: 0.02801,
    lfl: { us: 0.125, european: 0.109 },
    infraredBlind: true,
    toxic: { limit: 35e-6, over: "long", short: 200e-6, source: `${NIOSH}: 35 ppm over the shift, 200 ceiling` },
  },
  {
    name: "hydrogen sulphide",
    molar_kg: 0.03408,
    lfl: { us: 0.04 },
    infraredBlind: true,
    toxic: { limit: 10e-6, over: "short", source: `${NIOSH}: 10 ppm ceiling` },
  },
  {
    name: "ammonia",
    molar_kg: 0.01703,
    lfl: { us: 0.15 },
    infraredBlind: true,
    toxic: {
      limit: 25e-6,
      over: "long",
      short: 35e-6,
      source: `${NIOSH}: 25 ppm over the shift; 300 ppm is dangerous to life`,
    },
  },
  {
    name: "hexane",
    molar_kg: 0.08618,
    lfl: { us: 0.011, european: 0.01 },
    toxic: { limit: 50e-6, over: "long", source: `${NIOSH}: 50 ppm over the shift; 1100 ppm is dangerous to life` },
  },
  { name: "petrol vapour", molar_kg: 0.072, lfl: { us: 0.014 } },
  { name: "nitrogen", molar_kg: 0.02801 },
  {
    name: "carbon dioxide",
    molar_kg: 0.04401,
    toxic: {
      limit: 5000e-6,
      over: "long",
      short: 30_000e-6,
      source: `${NIOSH}: 5000 ppm over the shift; 40000 ppm is dangerous to life`,
    },
  },
  { name: "ozone", molar_kg: 0.048, toxic: { limit: 0.1e-6, over: "short", source: `${NIOSH}: 0.1 ppm ceiling` } },
  {
    name: "nitrogen dioxide",
    molar_kg: 0.04601,
    toxic: { limit: 1e-6, over: "short", source: `${NIOSH}: 1 ppm short-term` },
  },
  { name: "chlorine", molar_kg: 0.0709, toxic: { limit: 0.5e-6, over: "short", source: `${NIOSH}: 0.5 ppm ceiling` } },
  {
    name: "sulphur dioxide",
    molar_kg: 0.06406,
    toxic: { limit: 2e-6, over: "long", short: 5e-6, source: `${NIOSH}: 2 ppm over the shift` },
  },
  {
    name: "methanol",
    molar_kg: 0.03204,
    lfl: { us: 0.06 },
    toxic: { limit: 200e-6, over: "long", short: 250e-6, source: `${NIOSH}: 200 ppm over the shift` },
  },
  { name: "argon", molar_kg: 0.03995 },
];

export const LFL_SETS = ["lower", "us", "european"] as const;
export type LflSet = (typeof LFL_SETS)[number];

/** Lower flammable limit as a fraction of 1; undefined for what does not burn. The lower of the two sets by default. */
export function lowerLimit({ lfl }: Substance, set: LflSet = "lower"): number | undefined {
  if (lfl === undefined) return undefined;
  const known = [lfl.us, lfl.european].filter((value) => value !== undefined);
  return set === "lower" ? Math.min(...known) : (lfl[set] ?? known[0]);
}

export function substance(name: string): Substance | undefined {
  return SUBSTANCES.find((one) => one.name === name);
}

/** Of the gases that may be there, those that are read by name; what only burns is read as such. */
export function readByName(gases: readonly string[]): string[] {
  return gases.filter((gas) => substance(gas)?.toxic !== undefined);
}

/** Weight of a gas against air, M/28.96. Source: arithmetic, ideal gases at one temperature. */
export function densityAgainstAir(molar_kg: number): number {
  return molar_kg / AIR_kg_mol;
}

/** Where it gathers. Within 5 % of air's weight it goes where the air goes. Common practice, no source. */
export function gathers(relative: number): "rises" | "mixes" | "sinks" {
  return relative < 0.95 ? "rises" : relative > 1.05 ? "sinks" : "mixes";
}

/** Gases that poison or defeat a sensor, and what to do. Common practice, no source. */
export function sensorRefusal(p: {
  sensor: "catalytic" | "infrared";
  gas: string;
  /** Fraction of oxygen in the space. */
  oxygen: number;
  silicones: boolean;
}): string | null {
  if (p.sensor === "catalytic" && p.oxygen < 0.1) {
    return "a catalytic sensor needs some 10 % oxygen to read: use infrared, or draw through a diluting tube";
  }
  if (p.sensor === "catalytic" && p.silicones) {
    return "silicones poison a catalytic sensor: use infrared, and bump-test before each use";
  }
  if (p.sensor === "infrared" && substance(p.gas)?.infraredBlind) {
    return `infrared does not see ${p.gas}: use a catalytic or a ${p.gas} sensor`;
  }
  return null;
}
