/**
 * What a catalytic sensor calibrated on methane must be multiplied by to read another gas. From memory of makers' tables,
 * which differ by a third among themselves: the higher of those remembered stands here. The maker's sheet of the very sensor
 * wins.
 */
const TIMES_METHANE: Readonly<Record<string, number>> = {
  methane: 1,
  hydrogen: 1.3,
  ammonia: 0.9,
  "carbon monoxide": 1.3,
  "hydrogen sulphide": 2.5,
  acetylene: 1.9,
  methanol: 1.7,
  propane: 2,
  hexane: 2.7,
  "petrol vapour": 2.6,
};

/** Factor for a gas nobody knows: the greatest there is. */
const GREATEST = Math.max(...Object.values(TIMES_METHANE));

/**
 * The factor by which a reading is raised, for what is there and what the sensor was calibrated on. Never below 1: a reading
 * is never made less than it is. `ofMaker` is the figure of the sensor's own sheet.
 */
export function correctionFor(gas: string, calibratedOn: string, ofMaker?: number): number {
  const table = (TIMES_METHANE[gas] ?? GREATEST) / (TIMES_METHANE[calibratedOn] ?? 1);
  return Math.max(1, ofMaker ?? table);
}

/** Oxygen of clean dry air, as a fraction. */
export const DRY_AIR_O2 = 0.2095;
/** What meters are set to in clean air. */
const SET_TO_O2 = 0.209;

/**
 * Gas that a gap of oxygen may hide, as a fraction of the air: all that was pushed aside. A bound for what displaces only; what
 * burns or rots takes oxygen and leaves little gas.
 */
export function hiddenGas(oxygen: number): number {
  return Math.max(0, (SET_TO_O2 - oxygen) / SET_TO_O2);
}

/** Vapour pressure of water, in Pa, between 0 and 60 °C (Magnus, by Alduchov and Eskridge 1996, from memory). */
export function waterVapour_Pa(temperature_C: number): number {
  return 610.94 * Math.exp((17.625 * temperature_C) / (temperature_C + 243.04));
}

/** What clean air reads in oxygen when it is as wet as it can be, as a fraction. */
export function wetAirOxygen(temperature_C: number, ambient_Pa = 101_325): number {
  return DRY_AIR_O2 * (1 - waterVapour_Pa(temperature_C) / ambient_Pa);
}
