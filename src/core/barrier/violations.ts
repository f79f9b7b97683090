import { placeOf } from "../trace/stateGraph";
import { barrierDepths, type Effort } from "./barrierDepth";
import { gateMarksOf, unitOf, type BarrierField, type Pair } from "./pairs";

/** A way with too few barriers, and what could be isolated on it. */
export type Violation = Readonly<{
  pair: Pair;
  depth: number;
  /** It may have more barriers than `depth`: nobody looked to the end. */
  isLeast: boolean;
  /** The devices on the way that could count for this source, by unit: a unit counts once. */
  units: ReadonlyMap<string, readonly number[]>;
}>;

/**
 * For each pair that the isolated set leaves short, one way that shows it: fewest barriers, then fewest other devices.
 * Empty when the set holds every requirement.
 *
 * Cost: barrierDepths for each face, over what lies behind the barriers asked for.
 */
export function violations(
  field: BarrierField,
  pairs: readonly Pair[],
  isolated: ReadonlySet<number>,
  effort: Effort = { left: Infinity },
): Violation[] {
  const { graph } = field;
  const found: Violation[] = [];
  const anyDevice = gateMarksOf(field);
  for (const face of field.faces) {
    const ofFace = pairs.filter((pair) => pair.face === face && pair.k > 0);
    if (ofFace.length === 0) continue;
    const asked = Math.max(...ofFace.map((pair) => pair.k));
    const sources = ofFace.map((pair) => pair.source);
    const depths = barrierDepths(field, face, sources, isolated, { stepCost: anyDevice, below: asked, effort });
    for (const pair of ofFace) {
      const reached = depths.get(pair.source);
      if (reached === undefined || reached.depth >= pair.k) continue;
      const units = new Map<string, Set<number>>();
      let vertex = reached.distance.next[pair.source.vertex]!;
      for (; vertex >= 0; vertex = reached.distance.next[vertex]!) {
        const item = graph.places.itemOf[placeOf(graph, vertex)]!;
        if (anyDevice[vertex] === 0 || item === pair.source.item) continue;
        const unit = unitOf(field, item);
        units.set(unit, (units.get(unit) ?? new Set()).add(item));
      }
      found.push({
        pair,
        depth: reached.depth,
        isLeast: reached.isLeast,
        units: new Map([...units].map(([unit, items]) => [unit, [...items]])),
      });
    }
  }
  return found;
}
