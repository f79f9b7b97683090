import { familyOf, type Family } from "../requirement/grades";
import { narrowed, type BarrierField, type Pair } from "../barrier/pairs";
import type { Demand } from "./requirePairs";

/** Which positive devices count against a demand, as one word. */
export type Gate = Family | "flow or motion";

export function gateOf(demand: Demand, pair: Pair): Gate {
  return demand.family === "motion" && familyOf(pair.source.carrier) === "flow" ? "flow or motion" : demand.family;
}

/** Only the positive devices that count for this family. */
export function positiveField(field: BarrierField, gate: Gate): BarrierField {
  return narrowed(field, (item) => isPositive(field, item, gate));
}

const FAMILIES_OF: Readonly<Record<Gate, readonly Family[]>> = {
  flow: ["flow"],
  wire: ["wire"],
  motion: ["motion"],
  heat: ["heat"],
  radiation: ["radiation"],
  "flow or motion": ["flow", "motion"],
};

/** Separated, restrained: only what can be locked so. A blind takes no lock, and needs none. */
const NEEDS_LOCK: readonly Family[] = ["wire", "motion"];

export function isPositive({ graph }: BarrierField, item: number, gate: Gate): boolean {
  const device = graph.plant.items[item]?.device;
  if (!device?.positive) return false;
  return device.stops.some((carrier) => {
    const family = familyOf(carrier);
    return FAMILIES_OF[gate].includes(family) && (device.lockable || !NEEDS_LOCK.includes(family));
  });
}
