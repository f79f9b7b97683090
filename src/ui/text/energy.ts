import { fromSi, unitOf, type UnitSystem } from "../../core/units/units";
import { digits } from "../../core/units/format";

type Quantity = Readonly<{ energy_J: number | null; most_J?: number; formula: string; missing: readonly string[] }>;

/** A stored quantity in words: the figure when it is known, what is missing when it is not. */
export function energy(quantity: Quantity | null, units: UnitSystem): string {
  if (quantity === null) return "Amount not in the register: assume the worst";
  if (quantity.missing.length > 0) return `Amount unknown, ${quantity.missing.join(" and ")} missing: assume the worst`;
  if (quantity.energy_J === null) return "Measure it on the spot";
  const bound = quantity.most_J === undefined ? "" : ` let go at once, at most ${joules(quantity.most_J, units)}`;
  return `${joules(quantity.energy_J, units)}${bound} (${quantity.formula})`;
}

/** Three figures and a unit that fits: 352 J, 632 kJ, 1.95 MJ; British thermal units for those who read them. */
export function joules(value_J: number, units: UnitSystem): string {
  if (units === "us") {
    const unit = unitOf("energy", "us");
    return `${digits(fromSi(value_J, unit))} ${unit.symbol}`;
  }
  const [unit, size] = value_J >= 1e6 ? ["MJ", 1e6] : value_J >= 1e3 ? ["kJ", 1e3] : ["J", 1];
  return `${Number((value_J / Number(size)).toPrecision(3))} ${unit}`;
}
