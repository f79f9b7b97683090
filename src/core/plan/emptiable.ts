import type { Cavity } from "../judge/sections";
import type { Shortfall } from "../judge/routes";
import type { Item } from "../plant/plant";
import { tagOfPlace } from "../plant/resolvePlace";
import type { Job } from "../request/jobFile";
import type { StateGraph } from "../trace/stateGraph";

/** Kinds that one thinks of as full or empty. */
export const VESSELS: ReadonlySet<string> = new Set(["vessel", "tank", "silo", "sump", "exchanger"]);
/** Open above: what stands in them is pumped out, drain or none. */
const OPEN_ABOVE: ReadonlySet<string> = new Set(["sump"]);

/** Something of which a person thinks as full or empty. */
export function isVessel(item: Item): boolean {
  return VESSELS.has(item.kind) || item.vessel !== undefined;
}

/** The register says that nothing stands in it. */
export function isKnownEmpty({ contents, vessel }: Item): boolean {
  return contents?.volume_m3 === 0 || vessel?.level_m === 0;
}

/** Bleeds by which a place surely drains with these sections; where it lies in none, those that are linked to it. */
export function drainsOf(cavities: readonly Cavity[], graph: StateGraph, place: string): string[] {
  const own = cavities.filter(({ places }) => places.includes(place));
  if (own.length > 0) {
    return [...new Set(own.flatMap(({ bleeds, undrained }) => (undrained.includes(place) ? [] : bleeds)))].sort();
  }
  const near = graph.plant.links.flatMap(({ from, to }) => (from === place ? [to] : to === place ? [from] : []));
  return [...new Set(near)].filter((tag) => graph.plant.items[graph.itemByTag.get(tag) ?? -1]?.bleed?.safe).sort();
}

/** A closed vessel in which something stands that does not leave by itself, and by the register has no way out. */
export function hasNoWayOut(item: Item, drains: readonly string[]): boolean {
  const { contents } = item;
  return (
    isVessel(item) &&
    contents !== undefined &&
    contents.phase !== "gas" &&
    !isKnownEmpty(item) &&
    !OPEN_ABOVE.has(item.kind) &&
    drains.length === 0
  );
}

/** What stands in for a drain that is not there, as the profiles name it. */
export const WAYS_OUT = ["another bleed", "hot tap", "suction lorry", "first flange as full"] as const;

/**
 * Vessels that the work opens, enters or brings a flame to, and that the plant cannot empty: no bleed surely drains them.
 * They stand among the paths that fall short, and are accepted like them, with how the contents leave instead.
 * Cost: linear in the faces, and in the sections.
 */
export function vesselsShut(
  graph: StateGraph,
  job: Pick<Job, "faces" | "struck">,
  cavities: readonly Cavity[],
): Shortfall[] {
  const found = new Map<string, Shortfall>();
  for (const { place, how } of job.faces) {
    if (!how.some((one) => one === "open" || one === "enter" || one === "hot")) continue;
    const item = graph.plant.items[graph.itemByTag.get(tagOfPlace(place, (name) => graph.itemByTag.has(name))) ?? -1];
    if (item === undefined) continue;
    const drains = drainsOf(cavities, graph, place).filter((tag) => !job.struck.includes(tag));
    if (!hasNoWayOut(item, drains)) continue;
    found.set(place, {
      source: place,
      carrier: item.contents!.phase === "solid" ? "bulk" : "fluid",
      face: place,
      required: 1,
      available: 0,
      requiredGrade: null,
      grade: "none",
      because: [`nothing is known by which ${item.contents!.fluid} surely drains out of it`],
      proved: "impossible",
      noWayOut: true,
      measures: WAYS_OUT,
    });
  }
  return [...found.values()];
}
