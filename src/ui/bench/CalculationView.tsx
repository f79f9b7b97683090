import type { Calculation, Result } from "../../core/calc/calculation";
import type { Area } from "../../core/plant/plant";
import { figure } from "../../core/units/format";
import type { UnitSystem } from "../../core/units/units";
import { BarsChart } from "../chart/BarsChart";
import { CurveChart } from "../chart/CurveChart";
import { DepthPicture } from "../chart/DepthPicture";
import { ReachPicture } from "../chart/ReachPicture";

type Site = Readonly<{
  areas: readonly Area[];
  at: Readonly<{ x_m: number; y_m: number; tag: string }> | null;
}>;

/** A result in the person's unit, or what is said instead of a figure. */
export function said(result: Result, units: UnitSystem): string {
  return result.value === null ? (result.instead ?? "no figure") : figure(result.value, result.quantity, units);
}

/** The deciding figure large, the others beside it, then what to mind. */
export function Figures({ calculation, units }: { calculation: Calculation; units: UnitSystem }) {
  const main = calculation.results.find((result) => result.key === calculation.governs)!;
  const others = calculation.results.filter((result) => result !== main);
  return (
    <div>
      <p className="text-base opacity-85">{main.words}</p>
      <p className="num text-4xl font-semibold tracking-tight" data-result={main.key}>
        {said(main, units)}
      </p>
      {calculation.because && <p className="mt-1 max-w-prose">{calculation.because}</p>}
      {others.length > 0 && (
        <dl className="mt-4 grid max-w-lg grid-cols-[1fr_auto] gap-y-1">
          {others.map((result) => (
            <div key={result.key} className="contents">
              <dt className="border-base-300 border-t pt-1">{result.words}</dt>
              <dd className="num border-base-300 border-t pt-1 pl-6 text-right" data-result={result.key}>
                {said(result, units)}
              </dd>
            </div>
          ))}
        </dl>
      )}
      {calculation.warnings.length > 0 && (
        <ul className="mt-4 max-w-prose space-y-1.5">
          {calculation.warnings.map((warning) => (
            <li key={warning} className="border-accent border-l-4 px-3 py-0.5">
              {warning}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

export function Drawing({ calculation, units, site }: { calculation: Calculation; units: UnitSystem; site: Site }) {
  const { picture } = calculation;
  switch (picture?.kind) {
    case undefined:
      return null;
    case "curve":
      return <CurveChart picture={picture} units={units} />;
    case "bars":
      return <BarsChart picture={picture} units={units} />;
    case "reach":
      return <ReachPicture rings={picture.rings} areas={site.areas} at={site.at} units={units} />;
    case "depths":
      return <DepthPicture picture={picture} units={units} />;
  }
}

/** Where a figure comes from: formula, source, and what it holds for. */
export function HowItComes({ calculation, open = true }: { calculation: Calculation; open?: boolean }) {
  return (
    <details open={open} className="max-w-prose">
      <summary className="cursor-pointer font-medium">How this comes about</summary>
      <dl className="mt-2 grid grid-cols-[6.5rem_1fr] gap-x-4 gap-y-1.5">
        <dt className="opacity-85">Formula</dt>
        <dd>{calculation.formula}</dd>
        <dt className="opacity-85">Source</dt>
        <dd>{calculation.source}</dd>
        <dt className="opacity-85">Holds for</dt>
        <dd>{calculation.validity}</dd>
      </dl>
    </details>
  );
}
