import { keeps } from "./zoneRules";
import type { Area, Item, Plant } from "../../plant/plant";

type Spot = Readonly<{ x_m: number; y_m: number }>;

/** Side of the squares that items are sorted into, in metres: about the reach of sparks. */
const SQUARE_m = 16;

/** Items by where they stand: those with a place of their own by square, the others by area. Indices into the register. */
type Sorted = Readonly<{
  bySquare: ReadonlyMap<string, readonly number[]>;
  byArea: ReadonlyMap<string, readonly number[]>;
  /** Of which nobody wrote down where they are: neither place nor area nor level. */
  loose: readonly number[];
  /** The widest of all items, from its middle to its wall. */
  widest_m: number;
}>;
/** No area has an empty name. */
const NO_AREA = "";
const sorted = new WeakMap<Plant, Sorted>();

const squareOf = (at_m: number) => Math.floor(at_m / SQUARE_m);

/** A register never changes; many permits ask about the same. Cost: linear once. */
function sortedOf(plant: Plant): Sorted {
  const known = sorted.get(plant);
  if (known) return known;
  const areas = new Set(plant.areas.map(({ name }) => name));
  const bySquare = new Map<string, number[]>();
  const byArea = new Map<string, number[]>();
  const put = (map: Map<string, number[]>, key: string, index: number) => {
    const there = map.get(key);
    if (there) there.push(index);
    else map.set(key, [index]);
  };
  const loose: number[] = [];
  plant.items.forEach(({ x_m, y_m, level_m, area }, index) => {
    if (x_m !== undefined && y_m !== undefined) put(bySquare, `${squareOf(x_m)} ${squareOf(y_m)}`, index);
    else if (area === undefined && level_m === undefined) loose.push(index);
    else put(byArea, area !== undefined && areas.has(area) ? area : NO_AREA, index);
  });
  const widest_m = plant.items.reduce((widest, item) => Math.max(widest, halfWidth_m(item)), 0);
  const made = { bySquare, byArea, loose, widest_m };
  sorted.set(plant, made);
  return made;
}

/** An item near a place, and how near its wall may be: one without a place of its own may stand anywhere in its area. */
export type Near = Readonly<{ item: Item; distance_m: number; isPlaced: boolean }>;

/** How far a wall may stand from the middle that the register gives. Missing figures are taken large. Common practice. */
export function halfWidth_m({ kind, vessel, contents }: Item): number {
  if (vessel !== undefined) {
    const { diameter_m, length_m = 0, shape } = vessel;
    return (shape === "horizontal" ? Math.max(diameter_m, length_m) : diameter_m) / 2;
  }
  if (!WIDE.test(kind)) return 0;
  const volume_m3 = contents?.volume_m3;
  // Upright, twice as high as wide.
  return volume_m3 === undefined ? UNKNOWN_HALF_m : Math.cbrt((2 * volume_m3) / Math.PI) / 2;
}
const WIDE = /tank|vessel|silo|reactor|autoclave|column|separator/i;
const UNKNOWN_HALF_m = 3;

/** Items of which nobody wrote down where they are: any of them may stand within any reach. In the order of the register. */
export function looseItems(plant: Plant): Item[] {
  return sortedOf(plant).loose.map((index) => plant.items[index]!);
}

/**
 * Items whose wall may stand within reach, in the order of the register. Of the loose ones, which are in every reach, only
 * those that are asked for. Cost: what stands in reach, once it is sorted.
 */
export function itemsNear(
  plant: Plant,
  at: Spot,
  reach_m: number,
  isWanted: ((item: Item) => boolean) | null = null,
): Near[] {
  const { bySquare, byArea, loose, widest_m } = sortedOf(plant);
  const found: [number, number, boolean][] = [];
  const look_m = reach_m + widest_m;
  for (let x = squareOf(at.x_m - look_m); x <= squareOf(at.x_m + look_m); x++) {
    for (let y = squareOf(at.y_m - look_m); y <= squareOf(at.y_m + look_m); y++) {
      for (const index of bySquare.get(`${x} ${y}`) ?? []) {
        const item = plant.items[index]!;
        const half_m = keeps("wall") ? halfWidth_m(item) : 0;
        const distance_m = Math.max(0, Math.hypot(item.x_m! - at.x_m, item.y_m! - at.y_m) - half_m);
        if (distance_m <= reach_m) found.push([index, distance_m, true]);
      }
    }
  }
  for (const area of new Map(plant.areas.map((area) => [area.name, area])).values()) {
    const distance_m = rectDistance_m(area, at);
    if (distance_m > reach_m) continue;
    for (const index of byArea.get(area.name) ?? []) found.push([index, distance_m, false]);
  }
  // What has neither a place nor an area may stand anywhere.
  for (const index of byArea.get(NO_AREA) ?? []) found.push([index, 0, false]);
  for (const index of loose) {
    if (isWanted === null || isWanted(plant.items[index]!)) found.push([index, 0, false]);
  }
  return found
    .sort(([a], [b]) => a - b)
    .map(([index, distance_m, isPlaced]) => ({ item: plant.items[index]!, distance_m, isPlaced }));
}

/** From a point to the nearest point of an area's ground. */
export function rectDistance_m(area: Area, at: Spot): number {
  const dx = Math.max(area.x_m - at.x_m, 0, at.x_m - (area.x_m + area.width_m));
  const dy = Math.max(area.y_m - at.y_m, 0, at.y_m - (area.y_m + area.depth_m));
  return Math.hypot(dx, dy);
}
