/** Oxygen of air, in percent by volume, as the formulas are published. */
const AIR_PERCENT = 21;

/**
 * Limits for taking a vessel out of service and into it without passing through what burns, as fractions by volume.
 *
 * `outOfService`: fuel must be below this before air comes in. `intoService`: oxygen must be below this before fuel comes in.
 * Both are null where the lower limit times the moles of oxygen a mole of fuel needs is all the oxygen of air: the formulas end
 * there. Crowl and Louvar, Chemical Process Safety, purging and flammability, from memory.
 *
 * `tabulated` is a limiting oxygen concentration from a table: where it is lower than what is computed, it wins.
 */
export function serviceLimits(
  p: Readonly<{ lfl: number; oxygenMoles: number; tabulated?: number }>,
): Readonly<{ outOfService: number; intoService: number; byTable: boolean }> | null {
  const lfl = p.lfl * 100;
  const needed = p.oxygenMoles * lfl;
  if (needed >= AIR_PERCENT || lfl >= 100) return null;
  const computed = needed / (1 - lfl / 100) / 100;
  const byTable = p.tabulated !== undefined && p.tabulated < computed;
  return {
    outOfService: lfl / (1 - needed / AIR_PERCENT) / 100,
    intoService: byTable ? p.tabulated! : computed,
    byTable,
  };
}

/** Inert gas to sweep a well-mixed vessel from one share to another, in m³ at its pressure; null where it never gets there. */
export function inertToSweep_m3(
  p: Readonly<{ volume_m3: number; from: number; to: number; inInert: number; mixing: number }>,
): number | null {
  if (p.to >= p.from) return 0;
  if (p.to <= p.inInert) return null;
  return p.mixing * p.volume_m3 * Math.log((p.from - p.inInert) / (p.to - p.inInert));
}

/** Cylinders that hold so much gas once let down to the pressure outside; the last bar stays in each. */
export function cylindersFor(
  p: Readonly<{ gas_m3: number; cylinder_m3: number; filled_Pa: number; ambient_Pa: number }>,
): number {
  return Math.ceil(p.gas_m3 / (p.cylinder_m3 * (p.filled_Pa / p.ambient_Pa - 1)));
}
