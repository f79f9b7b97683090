import { sumsOf } from "@/core/permit/kinds/sums";
import type { UnitSystem } from "@/core/units/units";
import { figuresFor } from "@/server/figures/dayView";
import type { PermitView } from "@/server/permit/permitView";
import { AskedSums } from "@/ui/bench/AskedSums";
import { AttachedFigures } from "@/ui/bench/AttachedFigures";

/** The sums that the work asks while it is to come or goes on, and the figures that people kept. */
export function Sums({ permit, units, timeZone }: { permit: PermitView; units: UnitSystem; timeZone: string }) {
  const figures = figuresFor({ permit: permit.number });
  return (
    <>
      {permit.state !== "closed" && permit.state !== "cancelled" && (
        <AskedSums
          sums={sumsOf(permit.details, permit.ruleProfile)}
          to={permit.number}
          kept={new Set(figures.map(({ calculator }) => calculator))}
          units={units}
        />
      )}
      {figures.length > 0 && <AttachedFigures figures={figures} units={units} timeZone={timeZone} />}
    </>
  );
}
