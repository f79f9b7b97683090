import type { Carrier } from "../plant/carriers";
import type { StateGraph } from "../trace/stateGraph";
import { runningPlantOf, type Mover, type RunningPlant } from "./runningPlant";
import { reached } from "../trace/barrierDistance";
import { shutBy } from "./shut";
import { sourcesOf } from "../trace/sources";
import { carrierOf, verticesOfItem } from "../trace/stateGraph";

/** A consumer that runs today and would not with these devices isolated. */
export type Loss = Readonly<{
  tag: string;
  name: string;
  area: string;
  /** Who of the area is told; empty when the register does not say. */
  tell: string;
  /** Which of its needs go. */
  loses: readonly Carrier[];
  criticality: number;
  /** It is itself the work: its loss is meant. */
  isWork: boolean;
}>;

/** What is supplied, today and with the plan. */
export type Supply = Readonly<{
  /** Does the item run today, as far as anybody knows: lit in everything that it needs? */
  runs: (item: number) => boolean;
  /** Carriers of the item that are supplied today and not with the plan. */
  loses: (item: number, carriers: readonly Carrier[]) => Carrier[];
  /** Movers that the plan itself stops, by their drive. */
  stopped: ReadonlySet<number>;
  shutBefore: Uint8Array;
  shutAfter: Uint8Array;
}>;

/**
 * What is supplied before and after. A carrier that a consumer gets by normal ways today counts as lost when no normal way
 * is left, though energy may still come by another: a motor is not run by the pump that turns it. Where it comes by no
 * normal way that the register knows, any way counts, before and after. A mover whose drive is lost passes nothing on.
 *
 * Cost: a few searches over the plant; one more for each round of movers that stop.
 */
export function supplyOf(
  graph: StateGraph,
  isolated: ReadonlySet<number>,
  opens: ReadonlySet<number> = new Set(),
): Supply {
  const running = runningPlantOf(graph);
  const starts = sourcesOf(graph).feeding.map(({ vertex }) => vertex);
  const shutBefore = shutBy(graph, []);
  const shutAfter = shutBy(graph, isolated, opens);
  const anyBefore = reached(graph, starts, shutBefore, "out");
  const anyAfter = reached(graph, starts, shutAfter, "out");
  const before = reached(running.supply, starts, shutBefore, "out");
  const stopped = new Set<number>();
  let passing = shutAfter;
  let after = reached(running.supply, starts, passing, "out");
  const has = (marks: Uint8Array, item: number, carrier: Carrier) =>
    verticesOfItem(graph, item).some((vertex) => marks[vertex] === 1 && carrierOf(graph, vertex) === carrier);
  const isLost = (item: number, carrier: Carrier): boolean => {
    if (has(before, item, carrier)) return !has(after, item, carrier);
    return has(anyBefore, item, carrier) && !has(anyAfter, item, carrier);
  };
  for (let found = true; found;) {
    found = false;
    for (const mover of running.movers) {
      if (stopped.has(mover.item) || !mover.drive.some((carrier) => isLost(mover.item, carrier))) continue;
      stopped.add(mover.item);
      passing = stopping(passing, mover);
      found = true;
    }
    if (found) after = reached(running.supply, starts, passing, "out");
  }
  return {
    shutBefore,
    shutAfter,
    stopped,
    runs: (item) => needsOf(running, item).every((carrier) => has(anyBefore, item, carrier)),
    loses: (item, carriers) => carriers.filter((carrier) => isLost(item, carrier)),
  };
}

function stopping(shut: Uint8Array, mover: Mover): Uint8Array {
  const marks = shut.slice();
  for (const vertex of mover.flows) marks[vertex] = 1;
  return marks;
}

/** What it needs to run: as written, else what drives it. */
function needsOf(running: RunningPlant, item: number): readonly Carrier[] {
  const { needs } = running.graph.plant.items[item]!;
  return needs.length > 0 ? needs : (running.movers.find((mover) => mover.item === item)?.drive ?? []);
}

/**
 * Consumers with all their needs met as the devices stand today, and one of them lost once the set is isolated too.
 * Devices whose position is unknown count as passing before and after. Sorted by area, then tag.
 */
export function fedNoMore(graph: StateGraph, supply: Supply, work: ReadonlySet<number>): Loss[] {
  const tellOf = new Map(graph.plant.areas.map((area) => [area.name, area.tell]));
  const losses: Loss[] = [];
  graph.plant.items.forEach((item, index) => {
    if (item.needs.length === 0 || !supply.runs(index)) return;
    const loses = supply.loses(index, item.needs);
    if (loses.length === 0) return;
    losses.push({
      tag: item.tag,
      name: item.name ?? "",
      area: item.area ?? "",
      tell: tellOf.get(item.area ?? "") ?? "",
      loses,
      criticality: item.criticality ?? 1,
      isWork: work.has(index),
    });
  });
  return losses.sort((a, b) => (`${a.area}\u0000${a.tag}` < `${b.area}\u0000${b.tag}` ? -1 : 1));
}

/** The same, worked out for itself. */
export function lossOf(graph: StateGraph, isolated: ReadonlySet<number>, work: ReadonlySet<number>): Loss[] {
  return fedNoMore(graph, supplyOf(graph, isolated), work);
}
