/** Plants with at most so many devices are searched to the end: 4096 sets. */
export const SEARCHED_WHOLE = 12;

/**
 * The cheapest set of devices that leaves nothing unheld that could be held, of all there are; else the one that leaves
 * least. For plants with few devices, where nothing that holds may be missed.
 *
 * Cost: a judgement for each set until one holds, cheapest first.
 */
export function searchAll(
  creditable: ReadonlySet<number>,
  p: Readonly<{
    pinned: ReadonlySet<number>;
    costOf: (item: number) => number;
    unheldWith: (isolated: ReadonlySet<number>) => number;
    start: Readonly<{ isolated: ReadonlySet<number>; unheld: number }>;
  }>,
): ReadonlySet<number> {
  const free = [...creditable].filter((item) => !p.pinned.has(item));
  const sets = Array.from({ length: 2 ** free.length }, (_, bits) => {
    const items = free.filter((_, i) => (bits >> i) % 2 === 1);
    return { items, cost: items.reduce((sum, item) => sum + p.costOf(item), 0) };
  }).sort((a, b) => a.cost - b.cost || a.items.length - b.items.length);
  let best = p.start;
  for (const { items } of sets) {
    const isolated = new Set([...p.pinned, ...items]);
    const unheld = p.unheldWith(isolated);
    if (unheld < best.unheld) best = { isolated, unheld };
    if (best.unheld === 0) break;
  }
  return best.isolated;
}
