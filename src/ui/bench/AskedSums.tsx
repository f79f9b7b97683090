import { Link } from "../text/Link";
import { addressOf } from "../../core/calc/address";
import { calculate } from "../../core/calc/calculator";
import { calculatorNamed } from "../../core/calc/calculators/calculators";
import type { AskedSum } from "../../core/permit/kinds/sums";
import type { UnitSystem } from "../../core/units/units";
import { said } from "./CalculationView";

/** The sums that this work asks, each with its figure where the permit says enough for it, and the way to the bench. */
export function AskedSums({
  sums,
  to,
  kept,
  units,
}: {
  sums: readonly AskedSum[];
  /** The permit's number, under which a figure is kept. */
  to: string;
  /** Calculators of which a figure is kept with it already. */
  kept: ReadonlySet<string>;
  units: UnitSystem;
}) {
  if (sums.length === 0) return null;
  return (
    <section aria-labelledby="sums">
      <h2 id="sums" className="border-base-300 border-b pb-1 text-lg font-semibold">
        Sums for this work
      </h2>
      <ul>
        {sums.map(({ calculator, inputs, why }) => {
          const which = calculatorNamed(calculator)!;
          const done = calculate(which, inputs, units);
          const main = done.ok
            ? done.calculation.results.find(({ key }) => key === done.calculation.governs)
            : undefined;
          return (
            <li
              key={calculator}
              className="border-base-300 grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-6 border-b py-2"
            >
              <span>
                <Link
                  href={`/bench/${calculator}?${addressOf(which.fields, inputs)}&to=${to}`}
                  className="link font-medium"
                >
                  {which.title}
                </Link>
                <span className="block text-sm opacity-85">{why}</span>
              </span>
              <span className="num text-right">
                {main ? (
                  <strong>{said(main, units)}</strong>
                ) : kept.has(calculator) ? (
                  <span className="text-sm">kept below</span>
                ) : (
                  <span className="text-sm opacity-85">to be worked out</span>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
