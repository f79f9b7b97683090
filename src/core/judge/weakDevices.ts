import { flangeRating_Pa } from "../energy/flangeRating";
import type { Item } from "../plant/plant";
import { onceFor } from "../onceFor";
import { familyOf } from "../requirement/grades";
import { contentsGraph } from "../trace/contentsGraph";
import { sourcesOf } from "../trace/sources";
import { gateVertices, type StateGraph } from "../trace/stateGraph";

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
 * barrier. What comes is the highest pressure of any source that may reach them, feeding or stored, whatever else is isolated. Pressures
 * and classes that nobody wrote down are asked about elsewhere.
 *
 * Cost: linear in the plant, once for each graph; nothing where no device has a class.
 */
export const weakDevices = onceFor((graph: StateGraph): ReadonlyMap<number, Weak> => {
  const { items } = graph.plant;
  const classed = items.flatMap(({ device }, item) => {
    const rated_Pa = flangeRating_Pa(device?.flangeClass);
    const flows = device?.stops.some((carrier) => familyOf(carrier) === "flow") ?? false;
    return flows && rated_Pa !== null ? [{ item, rated_Pa, flangeClass: device!.flangeClass! }] : [];
  });
  const weak = new Map<number, Weak>();
  if (classed.length === 0) return weak;
  const highest = highestAt(graph);
  for (const { item, rated_Pa, flangeClass } of classed) {
    for (const vertex of gateVertices(graph, item)) {
      const bringer = highest[vertex]!;
      const pressure_Pa = bringer < 0 ? undefined : pressureOf(items[bringer]!);
      if (pressure_Pa === undefined || pressure_Pa <= rated_Pa) continue;
      const known = weak.get(item);
      if (known && known.pressure_Pa >= pressure_Pa) continue;
      weak.set(item, { flangeClass, rated_Pa, pressure_Pa, from: items[bringer]!.tag });
    }
  }
  return weak;
});

/** The highest that a source brings, of what somebody wrote down: its contents, or what is trapped in it. */
function pressureOf({ contents, sources }: Item): number | undefined {
  const trapped = sources.flatMap(({ stored }) => (stored?.form === "trapped pressure" ? [stored.pressure_Pa] : []));
  const known = [contents?.pressure_Pa, ...trapped].filter((one) => one !== undefined);
  return known.length === 0 ? undefined : Math.max(...known);
}

/** For each vertex the item of the source with the highest pressure that may reach it by its contents; -1 where none is known. */
function highestAt(graph: StateGraph): Int32Array {
  const { first, other } = contentsGraph(graph).out;
  const { feeding, stored } = sourcesOf(graph);
  const most = (item: number) => pressureOf(graph.plant.items[item]!);
  const sources = [...feeding, ...stored]
    .filter(({ carrier, item, vertex }) => vertex >= 0 && familyOf(carrier) === "flow" && most(item) !== undefined)
    .sort((a, b) => most(b.item)! - most(a.item)!);
  const found = new Int32Array(graph.vertexCount).fill(-1);
  // The strongest first: what it reached, a weaker one need not reach again.
  for (const { vertex, item } of sources) {
    if (found[vertex] !== -1) continue;
    found[vertex] = item;
    const queue = [vertex];
    for (let head = 0; head < queue.length; head++) {
      const at = queue[head]!;
      for (let arc = first[at]!; arc < first[at + 1]!; arc++) {
        const next = other[arc]!;
        if (found[next] !== -1) continue;
        found[next] = item;
        queue.push(next);
      }
    }
  }
  return found;
}
