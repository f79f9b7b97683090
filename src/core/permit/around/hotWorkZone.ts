import type { Area, Item, Plant } from "../../plant/plant";
import { tagOfPlace } from "../../plant/resolvePlace";
import { HOT_WORK } from "../../fire/hotWork";
import { itemsNear, rectDistance_m } from "./itemsNear";

/** Something within reach of sparks that must be dealt with before the flame is lit. */
export type ZoneItem = Readonly<{
  /** Stable for the same thing, so that what was decided of it stays decided. */
  id: string;
  what: "holds what burns" | "may burn" | "drain or open end" | "other side of a wall" | "opening below";
  /** The tag, or the area's name. */
  tag: string;
  words: string;
  distance_m: number;
  level_m: number;
  demand: string;
  /** The fact that settles it without anybody looking: what holds it is dark and proven. Null: somebody looks. */
  settled: string | null;
}>;

/** Could something of this kind hold a liquid, a gas or dust? Where nobody wrote down what, it is taken to. */
export function holdsSomething(item: Pick<Item, "kind">): boolean {
  return HOLDERS.test(item.kind);
}

export type OpenEnd = Readonly<{ tag: string; permit: string }>;

type At = Readonly<{ x_m: number; y_m: number; level_m: number }>;

/** Floors this near in height count as one: grating, pits, low platforms. */
const SAME_FLOOR_m = 2;
const DRAINS = /drain|sump|gully|sewer|pit/i;
/** Words of contents that burn though the register calls them harmless. Common practice, no source. */
const BURNS = /oil|grease|fat|wax|solvent|alcohol|earth|dust|coal|sawdust|sulphur/i;
/** Kinds that hold something; without a word of what, it is taken to burn. */
const HOLDERS = /tank|vessel|reactor|autoclave|drum|silo|bin|filter|header|column|separator|sump|pit|accumulator/i;

/**
 * What is within reach of sparks from a place: on its floor all around, walls or not, and through openings on what lies
 * below. What is not written down counts as the worse: an item without a level is on every floor, contents nobody
 * named burn. Sorted by distance, then tag.
 *
 * Reach 35 ft (10.7 m) sideways, both sides of walls, openings below: 29 CFR 1910.252(a)(2) and NFPA 51B, from memory.
 * Cost: what is within reach; once a register linear in items and links.
 */
export function hotWorkZone(
  plant: Plant,
  at: At,
  p: Readonly<{ openEnds: readonly OpenEnd[]; settled: (tag: string) => string | null; reach_m?: number }>,
): ZoneItem[] {
  const reach_m = p.reach_m ?? HOT_WORK.clear_m;
  const home = areaAt(plant.areas, at);
  const below = new Set(
    plant.areas
      .filter((area) => home?.opensTo?.includes(area.name) && area.level_m < at.level_m)
      .map((area) => area.name),
  );
  const found: ZoneItem[] = [];
  const items = new Map<string, Readonly<{ item: Item; distance_m: number; level_m: number; isBelow: boolean }>>();
  const { areaOf, besideBleed, tags } = lookUpOf(plant);
  for (const { item, distance_m } of itemsNear(plant, at, reach_m)) {
    const area = areaOf.get(item.area ?? "");
    const level_m = item.level_m ?? area?.level_m;
    const isBelow = below.has(item.area ?? "");
    const isOnFloor = level_m === undefined || Math.abs(level_m - at.level_m) <= SAME_FLOOR_m;
    if (isOnFloor || isBelow) items.set(item.tag, { item, distance_m, level_m: level_m ?? at.level_m, isBelow });
  }

  const add = (tag: string, what: ZoneItem["what"], words: string, demand: string, more: Partial<ZoneItem> = {}) => {
    const where = items.get(tag);
    found.push({
      id: `zone ${what} ${tag}`,
      what,
      tag,
      words,
      distance_m: where?.distance_m ?? 0,
      level_m: where?.level_m ?? at.level_m,
      demand,
      settled: null,
      ...more,
    });
  };
  for (const [tag, { item, isBelow }] of items) {
    const name = item.name ? `${item.name}` : item.kind;
    const where = isBelow ? ", below an opening" : "";
    const hazards = item.contents?.hazards ?? [];
    if (hazards.includes("flammable") || hazards.includes("self-heating")) {
      const words = `${name}: ${item.contents!.fluid}${where}`;
      add(tag, "holds what burns", words, "Isolated, or closed, capped and tested at its vents", {
        settled: p.settled(tag),
      });
    } else if (item.contents === undefined && holdsSomething(item)) {
      const words = `${name}: nobody wrote down what is in it${where}`;
      add(tag, "holds what burns", words, "Find out; until then as if it burned", { settled: p.settled(tag) });
    } else if (BURNS.test(item.contents?.fluid ?? "")) {
      add(
        tag,
        "may burn",
        `${name}: ${item.contents!.fluid}${where}`,
        "Closed, covered, or the floor around it clean and wet",
      );
    }
    if (DRAINS.test(item.kind) || DRAINS.test(item.name ?? "")) {
      add(tag, "drain or open end", `${name}${where}`, "Covered and sealed, kept wet");
    }
  }
  const flammable = new Set(found.filter(({ what }) => what === "holds what burns").map(({ tag }) => tag));
  for (const [end, { item }] of items) {
    if (!item.bleed) continue;
    for (const other of besideBleed.get(end) ?? []) {
      const tag = tagOfPlace(other, (name) => tags.has(name));
      if (!flammable.has(tag)) continue;
      add(end, "drain or open end", `Vent or drain of ${other}`, "Shut and capped, or led away", {
        settled: p.settled(tag),
      });
    }
  }
  for (const end of p.openEnds) {
    if (items.has(end.tag)) {
      add(
        end.tag,
        "drain or open end",
        `Opened under permit ${end.permit}`,
        "Blanked, capped or plugged before a flame",
        {
          id: `zone open end ${end.tag} ${end.permit}`,
        },
      );
    }
  }
  for (const area of plant.areas) {
    if (area === home) continue;
    const distance_m = rectDistance_m(area, at);
    if (below.has(area.name) && distance_m <= reach_m) {
      add(
        area.name,
        "opening below",
        `${area.name}, through openings`,
        "Openings covered, or cleared and watched below",
        {
          distance_m,
          level_m: area.level_m,
        },
      );
    } else if (distance_m <= reach_m && Math.abs(area.level_m - at.level_m) <= SAME_FLOOR_m) {
      add(
        area.name,
        "other side of a wall",
        `${area.name}, next to it`,
        "Looked at from the other side, cleared, watched",
        {
          distance_m,
          level_m: area.level_m,
        },
      );
    }
  }
  const once = new Map(found.map((one) => [one.id, one]));
  return [...once.values()].sort((a, b) => a.distance_m - b.distance_m || (a.tag < b.tag ? -1 : 1));
}

type LookUp = Readonly<{
  areaOf: ReadonlyMap<string, Area>;
  /** What each vent or drain is linked to. */
  besideBleed: ReadonlyMap<string, readonly string[]>;
  tags: ReadonlySet<string>;
}>;
const lookUps = new WeakMap<Plant, LookUp>();

/** A register never changes; many permits ask about the same. */
function lookUpOf(plant: Plant): LookUp {
  const known = lookUps.get(plant);
  if (known) return known;
  const tags = new Set(plant.items.map(({ tag }) => tag));
  const bleeds = new Set(plant.items.filter(({ bleed }) => bleed).map(({ tag }) => tag));
  const besideBleed = new Map<string, string[]>();
  for (const { from, to } of plant.links) {
    if (bleeds.has(from)) besideBleed.set(from, [...(besideBleed.get(from) ?? []), to]);
    if (bleeds.has(to)) besideBleed.set(to, [...(besideBleed.get(to) ?? []), from]);
  }
  const made = { areaOf: new Map(plant.areas.map((area) => [area.name, area])), besideBleed, tags };
  lookUps.set(plant, made);
  return made;
}

/** The area whose ground the point lies on; of several, the one whose floor is nearest. */
export function areaAt(areas: readonly Area[], at: At): Area | undefined {
  return areas
    .filter((area) => rectDistance_m(area, at) === 0)
    .sort((a, b) => Math.abs(a.level_m - at.level_m) - Math.abs(b.level_m - at.level_m))[0];
}

/** Where an item stands: its own figures, else the middle of its area. */
export function placeOf(item: Item, areas: readonly Area[]): At | null {
  const area = areas.find(({ name }) => name === item.area);
  const level_m = item.level_m ?? area?.level_m ?? 0;
  if (item.x_m !== undefined && item.y_m !== undefined) return { x_m: item.x_m, y_m: item.y_m, level_m };
  if (area === undefined) return null;
  return { x_m: area.x_m + area.width_m / 2, y_m: area.y_m + area.depth_m / 2, level_m };
}
