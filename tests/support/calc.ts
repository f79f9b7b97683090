import { calculate } from "../../src/core/calc/calculator";
import { calculatorNamed } from "../../src/core/calc/calculators/calculators";

/** The results of a calculator by their keys; throws where it refuses. */
export function calc(name: string, input: Record<string, unknown>): Record<string, number | null> & { also: unknown } {
  const done = calculate(calculatorNamed(name)!, input);
  if (!done.ok) throw new Error(`${name}: ${done.key} ${done.message}`);
  const results = Object.fromEntries(done.calculation.results.map(({ key, value }) => [key, value]));
  return { ...results, also: done.calculation.also } as never;
}
/** Why it refuses; null where it does not. */
export const refused = (name: string, input: Record<string, unknown>) => {
  const done = calculate(calculatorNamed(name)!, input);
  return done.ok ? null : `${done.key} ${done.message}`;
};
