import { fromSi, unitOf, type Quantity, type UnitSystem } from "../../core/units/units";

/** How a quantity stands on an axis: values in SI become what is written, and the unit is said once. */
export type Axis = Readonly<{ label: string; of: (value_SI: number) => number }>;

const TIMES = [
  { upTo_s: 300, unit: "s", size_s: 1 },
  { upTo_s: 3 * 3600, unit: "min", size_s: 60 },
  { upTo_s: 3 * 86_400, unit: "h", size_s: 3600 },
  { upTo_s: Infinity, unit: "d", size_s: 86_400 },
] as const;

/** Time is written in the unit that suits its length; everything else in the person's. */
export function axisFor(words: string, quantity: Quantity, most_SI: number, units: UnitSystem): Axis {
  if (quantity === "duration" || quantity === "seconds") {
    const { unit, size_s } = TIMES.find(({ upTo_s }) => most_SI <= upTo_s)!;
    return { label: `${words}, ${unit}`, of: (value) => value / size_s };
  }
  const unit = unitOf(quantity, units);
  return { label: unit.symbol === "" ? words : `${words}, ${unit.symbol}`, of: (value) => fromSi(value, unit) };
}
