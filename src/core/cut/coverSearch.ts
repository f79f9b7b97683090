/** On one way: at least `atLeast` of these units must be hit. A unit is hit by any of its devices. */
export type WayConstraint = Readonly<{ units: readonly (readonly number[])[]; atLeast: number }>;

export type Cover = Readonly<{
  /** The cheapest set that satisfies every constraint; null when the budget ran out first. */
  devices: ReadonlySet<number> | null;
  /** No satisfying set is cheaper. */
  bound: number;
}>;

/**
 * The cheapest set of devices that hits every way often enough, by depth-first branch and bound.
 *
 * The bound under a partial choice is the sum, over constraints that share no device, of their cheapest missing units.
 * Branching takes the constraint with the fewest devices left and its devices in turn, each time striking out those
 * tried before, so no set is looked at twice. `budget` counts search nodes down and is shared by the caller's calls.
 *
 * Cost: exponential at worst; meant for the few plans that one flow cannot prove.
 */
export function cheapestCover(
  constraints: readonly WayConstraint[],
  costOf: (device: number) => number,
  budget: { nodes: number },
): Cover {
  const size = 1 + Math.max(0, ...constraints.map(({ units }) => Math.max(...units.map((unit) => Math.max(...unit)))));
  const isIn = new Uint8Array(size);
  const isOut = new Uint8Array(size);
  const chosen: number[] = [];
  /** In which count of the bound a device was last used. */
  const usedIn = new Int32Array(size);
  let bounds = 0;
  let best: Set<number> | null = null;
  let bestCost = Infinity;
  let exhausted = false;
  let paid = 0;
  const rootBound = lowerBound();

  search();
  return exhausted ? { devices: null, bound: rootBound } : { devices: best, bound: bestCost };

  function search(): void {
    if (budget.nodes-- <= 0) exhausted = true;
    if (exhausted || paid + lowerBound() >= bestCost) return;
    const open = mostTight();
    if (open === null) {
      best = new Set(chosen);
      bestCost = paid;
      return;
    }
    const candidates = open.units
      .filter((unit) => !isHit(unit))
      .flat()
      .filter((device) => isOut[device] === 0)
      .sort((a, b) => costOf(a) - costOf(b) || a - b);
    const struck: number[] = [];
    for (const device of candidates) {
      isIn[device] = 1;
      chosen.push(device);
      paid += costOf(device);
      search();
      paid -= costOf(device);
      chosen.pop();
      isIn[device] = 0;
      isOut[device] = 1;
      struck.push(device);
    }
    for (const device of struck) isOut[device] = 0;
  }

  function isHit(unit: readonly number[]): boolean {
    for (const device of unit) if (isIn[device] === 1) return true;
    return false;
  }

  /** The price of the cheapest device that may still hit a unit; Infinity where none may. */
  function cheapestOf(unit: readonly number[]): number {
    let price = Infinity;
    for (const device of unit) if (isOut[device] === 0) price = Math.min(price, costOf(device));
    return price;
  }

  function mostTight(): WayConstraint | null {
    let tightest: WayConstraint | null = null;
    let fewest = Infinity;
    for (const constraint of constraints) {
      let missing = constraint.atLeast;
      let left = 0;
      for (const unit of constraint.units) {
        if (isHit(unit)) missing--;
        else if (cheapestOf(unit) < Infinity) left++;
      }
      if (missing <= 0 || left - missing >= fewest) continue;
      fewest = left - missing;
      tightest = constraint;
    }
    return tightest;
  }

  /** The sum, over constraints that share no device still to be chosen, of their cheapest missing units. */
  function lowerBound(): number {
    bounds++;
    let bound = 0;
    const prices: number[] = [];
    for (const { units, atLeast } of constraints) {
      let missing = atLeast;
      let isShared = false;
      prices.length = 0;
      for (const unit of units) {
        if (isHit(unit)) {
          missing--;
          continue;
        }
        const price = cheapestOf(unit);
        if (price === Infinity) continue;
        prices.push(price);
        for (const device of unit) if (isOut[device] === 0 && usedIn[device] === bounds) isShared = true;
      }
      if (missing <= 0) continue;
      if (prices.length < missing) return Infinity;
      if (isShared) continue;
      prices.sort((a, b) => a - b);
      for (let i = 0; i < missing; i++) bound += prices[i]!;
      for (const unit of units) {
        if (isHit(unit)) continue;
        for (const device of unit) if (isOut[device] === 0) usedIn[device] = bounds;
      }
    }
    return bound;
  }
}

/**
 * The same demands in fewer constraints: without those that another one brings with it, as a way that begins farther off
 * and comes past the same units does. Cost: for each constraint, a look at those kept that share a unit with it.
 */
export function strongest(constraints: readonly WayConstraint[]): WayConstraint[] {
  const kept: WayConstraint[] = [];
  const byFirst = new Map<string, { keys: readonly string[]; atLeast: number }[]>();
  // Those of fewer units first: of two that say the same, the first stays.
  const sorted = [...constraints].sort((a, b) => a.units.length - b.units.length || b.atLeast - a.atLeast);
  for (const constraint of sorted) {
    const keys = constraint.units.map((unit) => [...unit].sort((a, b) => a - b).join());
    const own = new Set(keys);
    const isImplied = keys.some((key) =>
      byFirst.get(key)?.some((one) => one.atLeast >= constraint.atLeast && one.keys.every((other) => own.has(other))),
    );
    if (isImplied) continue;
    kept.push(constraint);
    const first = keys[0];
    if (first === undefined) continue;
    byFirst.set(first, [...(byFirst.get(first) ?? []), { keys, atLeast: constraint.atLeast }]);
  }
  return kept;
}
