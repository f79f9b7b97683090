import type { StateGraph } from "../trace/stateGraph";
import type { SwapFault } from "../refusal/swapFault";
import { harmsBetween, type LiveJob } from "./guardRelease";

/**
 * May a point under live work be swapped for another: the new one locked first, then the old one lifted? Null when no
 * live face loses a barrier it counts on at any moment of it; else why not.
 *
 * Locking one more device never takes a barrier away, but it may stop a drain: the moment when both hang is judged, and the
 * moment after the lift; and after it the isolation's own locks alone, for it may not come to lean on those of others.
 *
 * Cost: harmsBetween, three times.
 */
export function proveSwap(
  graph: StateGraph,
  live: readonly LiveJob[],
  swap: Readonly<{ jobs: readonly string[]; from: string; to: string }>,
): SwapFault | null {
  const deviceOf = (tag: string) => graph.plant.items[graph.itemByTag.get(tag) ?? -1]?.device;
  const [from, to] = [deviceOf(swap.from), deviceOf(swap.to)];
  if (from === undefined) return { code: "unknown device", device: swap.from };
  if (to === undefined) return { code: "unknown device", device: swap.to };
  if (!to.credit || to.heldBy.length > 0) return { code: "not a barrier", device: swap.to };
  const asGood = !from.positive || (to.positive && from.stops.every((carrier) => to.stops.includes(carrier)));
  if (!asGood || (from.lockable && !to.lockable)) return { code: "not as good", from: swap.from, to: swap.to };
  const needing = live.find(({ job }) => job.mustPass.includes(swap.to));
  if (needing) return { code: "needed passing", device: swap.to, job: needing.number };
  const isSwapped = ({ number }: LiveJob) => swap.jobs.includes(number);
  const holdsBoth = live.map((one) => (isSwapped(one) ? [...one.holds, swap.to] : one.holds));
  const holdsNew = live.map((one, i) =>
    isSwapped(one) ? holdsBoth[i]!.filter((device) => device !== swap.from) : one.holds,
  );
  for (const then of [holdsBoth, holdsNew]) {
    const harms = harmsBetween(graph, live, then);
    if (harms.length > 0) return { code: "harm", harms };
  }
  // What others lock keeps a face dark too, until they lift it: a permit stands on the locks of its own isolation.
  const own = live.flatMap((one, i) => (isSwapped(one) ? [{ one, then: holdsNew[i]! }] : []));
  const alone = harmsBetween(
    graph,
    own.map(({ one }) => one),
    own.map(({ then }) => then),
  );
  return alone.length > 0 ? { code: "harm", harms: alone } : null;
}
