import type { StateGraph } from "../trace/stateGraph";
import type { SwapFault } from "../refusal/swapFault";
import { guardRelease, type LiveJob } from "./guardRelease";

/**
 * May a point under live work be swapped for another: the new one locked first, then the old one lifted? Null when no
 * live face loses a barrier it counts on at any moment of it; else why not.
 *
 * Locking one more device never takes a barrier away, so only the moment after the lift must be shown. A positive device
 * is swapped only for a positive one that stops the same, for grades are not counted by depth.
 *
 * Cost: guardRelease.
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
  const withNew = live.map((one) =>
    swap.jobs.includes(one.number) ? { ...one, holds: [...one.holds, swap.to] } : one,
  );
  const harms = guardRelease(
    graph,
    withNew,
    swap.jobs.map((job) => ({ job, device: swap.from })),
  );
  return harms.length === 0 ? null : { code: "harm", harms };
}
