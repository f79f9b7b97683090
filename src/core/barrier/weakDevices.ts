import { flangeRating_Pa } from "../energy/flangeRating";
import type { Item } from "../plant/plant";
import { onceFor } from "../onceFor";
import { familyOf } from "../requirement/grades";
import { contentsGraph } from "../trace/contentsGraph";
import { sourcesOf } from "../trace/sources";
import { gateVertices, placeOf, type StateGraph } from "../trace/stateGraph";

/** A device whose flanges bear less than may come to it. */
export type Weak = Readonly<{
  flangeClass: string;
  rated_Pa: number;
  pressure_Pa: number;
  /** The source that may bring it. */
  from: string;
}>;

/**
 * Devices that hold nothing back, for by the register more may come to them than their class bears: a blind that bursts is no
 * barrier. What comes is the highest pressure of any source that may reach them, feeding or stored, whatever else is isolated, but no more than
 * a relief on the way lets pass; `lost` are limits that do not hold, see limitsLost. Pressures and classes that nobody wrote
 * down are asked about elsewhere.
 *
 * Cost: linear in the plant, once for each graph and lost limits; nothing where no device has a class.
 */
export function weakDevices(graph: StateGraph, lost: ReadonlySet<number> = new Set()): ReadonlyMap<number, Weak> {
  const known = weakOn(graph);
  const key = [...lost].sort((a, b) => a - b).join();
  const found = known.get(key) ?? weakWithout(graph, lost);
  known.set(key, found);
  return found;
}

const weakOn = onceFor((_: StateGraph) => new Map<string, ReadonlyMap<number, Weak>>());

function weakWithout(graph: StateGraph, lost: ReadonlySet<number>): ReadonlyMap<number, Weak> {
  const { items } = graph.plant;
  const classed = items.flatMap(({ device }, item) => {
    const rated_Pa = flangeRating_Pa(device?.flangeClass);
    const flows = device?.stops.some((carrier) => familyOf(carrier) === "flow") ?? false;
    return flows && rated_Pa !== null ? [{ item, rated_Pa, flangeClass: device!.flangeClass! }] : [];
  });
  const weak = new Map<number, Weak>();
  if (classed.length === 0) return weak;
  const { pressure_Pa: highest, bringer } = highestAt(graph, lost);
  for (const { item, rated_Pa, flangeClass } of classed) {
    for (const vertex of gateVertices(graph, item)) {
      const pressure_Pa = highest[vertex]!;
      if (pressure_Pa <= rated_Pa || pressure_Pa <= (weak.get(item)?.pressure_Pa ?? 0)) continue;
      weak.set(item, { flangeClass, rated_Pa, pressure_Pa, from: items[bringer[vertex]!]!.tag });
    }
  }
  return weak;
}

/** The highest that a source brings, of what somebody wrote down: its contents, or what is trapped in it. */
function pressureOf({ contents, sources }: Item): number | undefined {
  const trapped = sources.flatMap(({ stored }) => (stored?.form === "trapped pressure" ? [stored.pressure_Pa] : []));
  const known = [contents?.pressure_Pa, ...trapped].filter((one) => one !== undefined);
  return known.length === 0 ? undefined : Math.max(...known);
}

/**
 * For each vertex the highest pressure that may come to it with the contents of a source, and the source's item: along each way
 * no more than what limits it there. Nothing comes, or nobody wrote it down: -Infinity. By falling pressure, so that each vertex
 * is settled once.
 */
function highestAt(
  graph: StateGraph,
  lost: ReadonlySet<number>,
): Readonly<{ pressure_Pa: Float64Array; bringer: Int32Array }> {
  const { first, other } = contentsGraph(graph).out;
  const { items } = graph.plant;
  const { feeding, stored } = sourcesOf(graph);
  const limitOf = (item: number) => (lost.has(item) ? undefined : items[item]!.limit_Pa);
  const limitAt = (vertex: number) => limitOf(graph.places.itemOf[placeOf(graph, vertex)]!) ?? Infinity;
  const pressure_Pa = new Float64Array(graph.vertexCount).fill(-Infinity);
  const bringer = new Int32Array(graph.vertexCount).fill(-1);
  const byPressure = new Map<number, [vertex: number, from: number][]>();
  const put = (pressure: number, vertex: number, from: number) => {
    if (pressure <= pressure_Pa[vertex]!) return;
    pressure_Pa[vertex] = pressure;
    bringer[vertex] = from;
    const known = byPressure.get(pressure);
    if (known) known.push([vertex, from]);
    else byPressure.set(pressure, [[vertex, from]]);
  };
  for (const { vertex, item, carrier } of [...feeding, ...stored]) {
    const own = familyOf(carrier) === "flow" && vertex >= 0 ? pressureOf(items[item]!) : undefined;
    if (own !== undefined) put(Math.min(own, limitAt(vertex)), vertex, item);
  }
  // What stands anywhere is what some source brings or some limit lets pass.
  const levels = [...new Set([...byPressure.keys(), ...items.flatMap((_, item) => limitOf(item) ?? [])])];
  for (const level of levels.sort((a, b) => b - a)) {
    const queue = byPressure.get(level) ?? [];
    for (let head = 0; head < queue.length; head++) {
      const [vertex, from] = queue[head]!;
      if (pressure_Pa[vertex] !== level) continue;
      for (let arc = first[vertex]!; arc < first[vertex + 1]!; arc++) {
        const next = other[arc]!;
        put(Math.min(level, limitAt(next)), next, from);
      }
    }
  }
  return { pressure_Pa, bringer };
}
