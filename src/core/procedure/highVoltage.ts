import type { Carrier } from "../plant/carriers";

/** High voltage, V, as rules and registers draw the line. */
export const HIGH_VOLTAGE_V = 1000;

/** High voltage stands here, or power of which nobody wrote down the voltage. */
export function isHighVoltage(voltage_V: number | undefined, carriers: readonly Carrier[]): boolean {
  return voltage_V === undefined ? carriers.includes("power") : voltage_V > HIGH_VOLTAGE_V;
}
