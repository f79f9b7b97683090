import { toSi, unitOf, type Quantity } from "../units/units";
import type { Field, Fields } from "./fields";

/** What the command line reads where the bench asks another unit. What both ask alike is not here. */
const SI: Readonly<Partial<Record<string, string>>> = {
  mm: "m",
  L: "m³",
  "m³/h": "m³/s",
  "L/min": "m³/s",
  "bar abs": "Pa, absolute",
  bar: "Pa, gauge",
  MPa: "Pa",
  min: "s",
  kJ: "J",
  "kN/m": "N/m",
  "mm²": "m²",
  "kg/h": "kg/s",
  "mg/m³": "kg/m³",
  "mPa·s": "Pa·s",
  "°": "rad",
  kPa: "Pa",
  "cal/cm²": "J/m²",
  "mbar·L/s": "Pa·m³/s",
  kW: "W",
  "g/mol": "kg/mol",
  "%": "as a fraction of 1",
  ppm: "as a fraction of 1",
  mA: "A",
  µF: "F",
  "1/bar": "1/Pa",
  "bar/K": "Pa/K",
};
/** A figure of a size that people meet; 5 of whatever is not here. */
const LIKE: Readonly<Partial<Record<string, number>>> = { "%": 21, ppm: 10, mm: 25, min: 30, "m³/h": 1700, "°": 45 };

/** Which unit a figure is meant in on the command line, with an example: 21 % is 0.21. Empty where it has none. */
export function unitMeant(quantity: Quantity): string {
  const { symbol, scale, offset = 0 } = unitOf(quantity, "metric");
  if (symbol === "") return "";
  if (quantity === "kelvin") return `in K: 20 °C is ${toSi(20, { symbol, scale, offset })}`;
  const si = SI[symbol];
  if (si === undefined) return `in ${symbol}`;
  const like = LIKE[symbol] ?? 5;
  const how = si.startsWith("as ") ? si : `in ${si}`;
  return `${how}: ${like} ${symbol} is ${Number(toSi(like, { symbol, scale, offset }).toPrecision(4))}`;
}

/** The unit meant for the input that a fault names, as `diameter_m` or `parts.2.vol`; empty for what is no figure. */
export function meantFor(fields: Fields, key: string): string {
  const [name = "", , column = ""] = key.split(".");
  const field: Field | undefined = fields[name];
  if (field === undefined || field.type === "choice") return "";
  const own = field.type === "rows" ? field.columns[column] : field;
  return own === undefined ? "" : unitMeant(own.quantity);
}
