import type { PlantInput } from "../../../src/core/plant/plantSchema";

type Item = PlantInput["items"][number];

const SINKS = ["tank", "sump", "silo", "sewer", "flare", "stack", "atmosphere"];
const HOLDS = ["vessel", "tank", "silo", "sump"];
const MOVES = ["pump", "compressor", "fan", "feeder", "screw", "conveyor", "elevator"];
const NEVER_THROUGH = ["bleed", "relief valve", "instrument", "blind", "accumulator"];
const ASIDE = ["relief", "purge", "inert", "trip"];
const EMPTIES = ["drain", "vent", "overflow", "condensate"];

/**
 * What cannot deliver, runs dry or backs up, by walking every simple path of a small plant of one carrier in which all
 * machines run and none is driven. Written apart from the program's search: it knows no graph, only the two lists.
 */
export function lossesByPaths(plant: PlantInput, isolated: readonly string[]): string[] {
  const itemOf = new Map(plant.items.map((item) => [item.tag, item]));
  const isShut = (tag: string, withPlan: boolean) =>
    itemOf.get(tag)!.device?.stands === "stopping" ||
    (withPlan && isolated.includes(tag) && itemOf.get(tag)!.device !== undefined);
  const mayUse = (tag: string) => {
    const item = itemOf.get(tag)!;
    return !NEVER_THROUGH.includes(item.kind) && item.bleed === undefined && !ASIDE.includes(item.service ?? "");
  };
  const steps = new Map<string, string[]>();
  for (const link of plant.links) {
    if (link.temporary !== undefined || ASIDE.includes(link.service ?? "")) continue;
    if (!mayUse(link.from) || !mayUse(link.to)) continue;
    const add = (from: string, to: string) => steps.set(from, [...(steps.get(from) ?? []), to]);
    add(link.from, link.to);
    if (link.normal === "none" && link.oneWay !== true) add(link.to, link.from);
  }
  const isSink = (item: Item) => item.sink ?? SINKS.includes(item.kind);

  /** Every place that some simple path leads to, the start first. */
  function onward(start: string, withPlan: boolean): Set<string> {
    const found = new Set<string>();
    const walk = (at: string, passed: readonly string[]) => {
      if (isShut(at, withPlan)) return;
      found.add(at);
      for (const next of steps.get(at) ?? []) if (!passed.includes(next)) walk(next, [...passed, at]);
    };
    walk(start, []);
    return found;
  }
  const all = (withPlan: boolean) => new Map(plant.items.map(({ tag }) => [tag, onward(tag, withPlan)]));
  const today = all(false);
  const then = all(true);

  const toSink = (from: string, reach: typeof today) => [...reach.get(from)!].some((tag) => isSink(itemOf.get(tag)!));
  /** The places after which nothing more comes that does not come back; not where it starts. */
  const lastPlaces = (from: string): Set<string> => {
    const reach = today.get(from)!;
    const isLast = (tag: string) => [...today.get(tag)!].every((beyond) => today.get(beyond)!.has(tag));
    const last = [...reach].filter(
      (tag) => isLast(tag) && !today.get(tag)!.has(from) && itemOf.get(tag)!.sink !== false,
    );
    const others = last.filter((tag) => itemOf.get(tag)!.device === undefined);
    return new Set(others.length > 0 ? others : last);
  };
  const starts = plant.items.filter(({ kind, service }) => MOVES.includes(kind) || EMPTIES.includes(service ?? ""));
  const assumed = new Set(starts.filter(({ tag }) => !toSink(tag, today)).flatMap(({ tag }) => [...lastPlaces(tag)]));
  const wayOff = (from: string, reach: typeof today) => {
    const ends = reach.get(from)!;
    return toSink(from, today)
      ? toSink(from, reach)
      : [...ends].some((tag) => assumed.has(tag) || isSink(itemOf.get(tag)!));
  };
  /** Off, or round through something that holds, and back. */
  const delivers = (from: string, reach: typeof today) =>
    wayOff(from, reach) ||
    [...reach.get(from)!].some(
      (tag) => HOLDS.includes(itemOf.get(tag)!.kind) && tag !== from && reach.get(tag)!.has(from),
    );
  const wayIn = (to: string, reach: typeof today) =>
    plant.items.some(
      (item) =>
        (HOLDS.includes(item.kind) || (item.source ?? []).some(({ feeding }) => feeding !== false)) &&
        reach.get(item.tag)!.has(to),
    );
  const found: string[] = [];
  for (const { tag, kind } of plant.items) {
    if (!MOVES.includes(kind)) continue;
    if (delivers(tag, today) && !delivers(tag, then)) found.push(`cannot deliver ${tag}`);
    if (wayIn(tag, today) && !wayIn(tag, then)) found.push(`runs dry ${tag}`);
  }
  for (const { tag, service } of plant.items) {
    if (!EMPTIES.includes(service ?? "")) continue;
    if (!wayOff(tag, today) || wayOff(tag, then)) continue;
    const leads = ["tee", "junction", "pipe", "header", "check valve", "control valve"];
    const from = plant.items.filter(
      (item) =>
        item.tag !== tag && item.device === undefined && !leads.includes(item.kind) && then.get(item.tag)!.has(tag),
    );
    if (from.length > 0) found.push(`backs up ${tag}`);
  }
  return found.sort();
}
