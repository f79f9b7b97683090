import type { Asks } from "../../core/isolation/stepAsks";
import { readNumber } from "../../core/units/readNumber";

type ToLimit = ((value: number) => number) | undefined;

/**
 * The fields of a step's form as what the act takes. Numbers are sent as numbers, in the unit of the limit; what is no
 * number is sent as it was typed, to be refused with the name of its field.
 */
export function readReport(
  fields: FormData,
  asks: Asks,
  to: Readonly<{ reading: ToLimit; pressure: ToLimit }>,
): Record<string, unknown> {
  const text = (name: string) => {
    const value = fields.get(name);
    return typeof value === "string" && value.trim() !== "" ? value.trim() : null;
  };
  const number = (name: string, toLimit: ToLimit = undefined) => {
    const value = text(name);
    if (value === null) return null;
    const read = readNumber(value);
    return read.ok ? (toLimit ? toLimit(read.value) : read.value) : value;
  };
  const report: Record<string, unknown> = {};
  if (asks.plate) report.plate = text("plate");
  if (asks.lock) report.lock = text("lock");
  if (asks.pairs.length > 0) {
    const read = asks.pairs.map((pair) => [pair, number(`readings ${pair}`)] as const);
    report.readings = Object.fromEntries(read.filter(([, value]) => value !== null));
    for (const name of ["tester", "provingUnit", "knownSource", "gloves"]) report[name] = text(name);
    report.knownSource_V = number("knownSource_V");
    for (const name of ["provedBefore", "provedAfter"]) report[name] = fields.get(name) === "on";
  }
  if (asks.reading !== null) {
    report.reading = number("reading", to.reading);
    report.instrument = text("instrument");
  }
  if (asks.ways.length > 0) {
    report.tried = fields.getAll("tried").map(String);
    report.started = fields.has("started");
  }
  if (asks.earths !== null) {
    const earths: Record<string, string> = {};
    for (let i = 0; fields.has(`earth ${i}`); i++) {
      const earth = text(`earth ${i}`);
      if (earth !== null) earths[earth.toUpperCase()] = text(`earth place ${i}`) ?? "";
    }
    report.earths = earths;
  }
  if (asks.locksCounted) report.locksCounted = number("locksCounted");
  if (asks.peopleCounted) report.peopleCounted = number("peopleCounted");
  if (asks.leakTest) {
    report.pressure_bar = number("pressure_bar", to.pressure);
    report.held_min = number("held_min");
    report.lost_bar = number("lost_bar", to.pressure);
    report.instrument = text("instrument");
  }
  if (asks.words !== null || asks.opening_m !== null) report.words = text("words");
  return report;
}
