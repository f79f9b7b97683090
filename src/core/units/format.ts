import { fromSi, unitOf, type Quantity, type UnitSystem } from "./units";

/**
 * A figure as people read it: four significant digits, thousands kept together, no exponent below ten million.
 * A value that is no number is never written as one.
 */
export function digits(value: number): string {
  if (!Number.isFinite(value)) return "not a figure";
  const size = Math.abs(value);
  if (size === 0) return "0";
  if (size >= 1e7 || size < 1e-4) {
    const [mantissa = "", power = ""] = value.toExponential(2).split("e");
    return `${mantissa}·10${raised(Number(power))}`;
  }
  if (size >= 1000) return String(Math.round(value));
  return String(Number(value.toPrecision(size >= 100 ? 4 : 3)));
}

function raised(power: number): string {
  const marks = "⁰¹²³⁴⁵⁶⁷⁸⁹";
  return [...String(power)].map((sign) => (sign === "-" ? "⁻" : marks[Number(sign)]!)).join("");
}

/** A quantity held in SI, in the person's unit, with the unit. */
export function figure(value_SI: number, quantity: Quantity, system: UnitSystem): string {
  if (quantity === "duration") return duration(value_SI);
  const unit = unitOf(quantity, system);
  const shown = digits(fromSi(value_SI, unit));
  return unit.symbol === "" ? shown : `${shown}${unit.symbol === "%" ? " %" : ` ${unit.symbol}`}`;
}

/** How far something reaches, in whole units and never less than it does. */
export function reachFigure(reach_m: number, system: UnitSystem): string {
  const unit = unitOf("length", system);
  return `${Math.ceil(fromSi(reach_m, unit) - 1e-9)} ${unit.symbol}`;
}

/** A length of time in the two largest units that say anything: 3 h 13 min, 12 min 40 s, 117 s. Always rounded up. */
export function duration(value_s: number): string {
  if (!Number.isFinite(value_s)) return "never";
  if (value_s < 0) return `−${duration(-value_s)}`;
  if (value_s === 0) return "0 s";
  if (value_s < 10) return `${Number(value_s.toPrecision(2))} s`;
  const seconds = Math.ceil(value_s - 1e-6);
  if (seconds < 180) return `${seconds} s`;
  if (seconds < 3600) {
    const rest = seconds % 60;
    return rest === 0 ? `${seconds / 60} min` : `${Math.floor(seconds / 60)} min ${rest} s`;
  }
  const minutes = Math.ceil(seconds / 60);
  if (minutes < 48 * 60) {
    return minutes % 60 === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
  }
  const hours = Math.ceil(minutes / 60);
  return hours % 24 === 0 ? `${hours / 24} d` : `${digits(Math.floor(hours / 24))} d ${hours % 24} h`;
}
