import { fromSi, toSi, unitOf, type Quantity, type UnitSystem } from "../../core/units/units";

/** What a proof's limit is measured in, as the core writes it, and which quantity that is. */
const QUANTITY: Readonly<Record<string, Quantity>> = {
  bar: "gauge",
  "°C": "temperature",
  "mm moved": "bore",
  "mm left": "bore",
};

/** A reading in the person's unit, for a limit that the core gives in its own. Volts and doses are the same everywhere. */
export function readingUnit(limitUnit: string, units: UnitSystem) {
  const quantity = QUANTITY[limitUnit];
  if (quantity === undefined) {
    return { symbol: limitUnit, toLimit: (value: number) => value, fromLimit: (value: number) => value };
  }
  const [own, kept] = [unitOf(quantity, units), unitOf(quantity, "metric")];
  return {
    symbol: units === "metric" ? limitUnit : limitUnit.replace(kept.symbol, own.symbol),
    toLimit: (value: number) => fromSi(toSi(value, own), kept),
    fromLimit: (value: number) => Number(fromSi(toSi(value, kept), own).toPrecision(4)),
  };
}
