import { Link } from "../text/Link";
import { addressOf } from "../../core/calc/address";
import type { Calculation } from "../../core/calc/calculation";
import { calculatorNamed } from "../../core/calc/calculators/calculators";
import type { UnitSystem } from "../../core/units/units";
import { dayAndClock } from "../text/when";
import { HowItComes, said } from "./CalculationView";

type Attached = Readonly<{
  id: string;
  calculator: string;
  inputs: Readonly<Record<string, unknown>>;
  calculation: Calculation;
  note: string;
  by: string;
  at_ms: number;
}>;

/** Figures that people kept with a job or permit, as they were, with a way back to the bench. */
export function AttachedFigures({
  figures,
  units,
  timeZone,
}: {
  figures: readonly Attached[];
  units: UnitSystem;
  timeZone: string;
}) {
  return (
    <section aria-label="Attached figures">
      <h2 className="mb-1 font-semibold">Figures kept here</h2>
      {figures.length === 0 ? (
        <p>
          None yet. Work one out on the{" "}
          <Link href="/bench" className="link">
            bench
          </Link>{" "}
          and attach it.
        </p>
      ) : (
        <ul className="border-base-300 max-w-4xl border-t">
          {figures.map((one) => {
            const which = calculatorNamed(one.calculator);
            const main = one.calculation.results.find((result) => result.key === one.calculation.governs);
            return (
              <li key={one.id} className="border-base-300 space-y-1 border-b py-3">
                <p className="flex flex-wrap items-baseline gap-x-4">
                  <span className="font-medium">{which?.title ?? one.calculator}</span>
                  {main && (
                    <span>
                      {main.words} <strong className="num">{said(main, units)}</strong>
                    </span>
                  )}
                  {which && (
                    <Link href={`/bench/${which.name}?${addressOf(which.fields, one.inputs)}`} className="link">
                      Open with these figures
                    </Link>
                  )}
                </p>
                {one.note && <p>{one.note}</p>}
                <p className="text-sm opacity-85">
                  {one.by}, {dayAndClock(one.at_ms, timeZone)}
                </p>
                <HowItComes calculation={one.calculation} open={false} />
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}
