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
  const isIn = new Set<number>();
  const isOut = new Set<number>();
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
      best = new Set(isIn);
      bestCost = paid;
      return;
    }
    const candidates = open.units
      .filter((unit) => !unit.some((device) => isIn.has(device)))
      .flat()
      .filter((device) => !isOut.has(device))
      .sort((a, b) => costOf(a) - costOf(b) || a - b);
    const struck: number[] = [];
    for (const device of candidates) {
      isIn.add(device);
      paid += costOf(device);
      search();
      paid -= costOf(device);
      isIn.delete(device);
      isOut.add(device);
      struck.push(device);
    }
    for (const device of struck) isOut.delete(device);
  }

  /** Units still to hit, with what can hit them; `missing` above the number of units means a dead end. */
  function state({ units, atLeast }: WayConstraint) {
    let hit = 0;
    const left: number[][] = [];
    for (const unit of units) {
      if (unit.some((device) => isIn.has(device))) hit++;
      else {
        const usable = unit.filter((device) => !isOut.has(device));
        if (usable.length > 0) left.push(usable);
      }
    }
    return { missing: atLeast - hit, left };
  }

  function mostTight(): WayConstraint | null {
    let tightest: WayConstraint | null = null;
    let fewest = Infinity;
    for (const constraint of constraints) {
      const { missing, left } = state(constraint);
      if (missing <= 0) continue;
      const slack = left.length - missing;
      if (slack < fewest) {
        fewest = slack;
        tightest = constraint;
      }
    }
    return tightest;
  }

  function lowerBound(): number {
    const used = new Set<number>();
    let bound = 0;
    for (const constraint of constraints) {
      const { missing, left } = state(constraint);
      if (missing <= 0) continue;
      if (left.length < missing) return Infinity;
      if (left.flat().some((device) => used.has(device))) continue;
      const prices = left.map((unit) => Math.min(...unit.map(costOf))).sort((a, b) => a - b);
      for (const price of prices.slice(0, missing)) bound += price;
      for (const device of left.flat()) used.add(device);
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
