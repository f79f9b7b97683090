import { familyOf, type Family } from "../requirement/grades";
import { narrowed, type BarrierField, type Pair } from "./pairs";
import type { Demand } from "./requirePairs";

/** Which positive devices count against a demand, as one word. */
export type Gate = Family | "flow or motion";

export function gateOf(demand: Demand, pair: Pair): Gate {
  return demand.family === "motion" && familyOf(pair.source.carrier) === "flow" ? "flow or motion" : demand.family;
}

/** Only the positive devices that count for this family. */
export function positiveField(field: BarrierField, gate: Gate): BarrierField {
  const families: readonly Family[] = gate === "flow or motion" ? ["flow", "motion"] : [gate];
  return narrowed(field, (item) => {
    const device = field.graph.plant.items[item]?.device;
    return device?.positive === true && device.stops.some((carrier) => families.includes(familyOf(carrier)));
  });
}
