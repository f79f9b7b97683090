import type { Area, Item, Plant } from "../../plant/plant";

type Spot = Readonly<{ x_m: number; y_m: number }>;

/** Side of the squares that items are sorted into, in metres: about the reach of sparks. */
const SQUARE_m = 16;

/** Items by where they stand: those with a place of their own by square, the others by area. Indices into the register. */
type Sorted = Readonly<{
  bySquare: ReadonlyMap<string, readonly number[]>;
  byArea: ReadonlyMap<string, readonly number[]>;
}>;
const sorted = new WeakMap<Plant, Sorted>();

const squareOf = (at_m: number) => Math.floor(at_m / SQUARE_m);

/** A register never changes; many permits ask about the same. Cost: linear once. */
function sortedOf(plant: Plant): Sorted {
  const known = sorted.get(plant);
  if (known) return known;
  const bySquare = new Map<string, number[]>();
  const byArea = new Map<string, number[]>();
  const put = (map: Map<string, number[]>, key: string, index: number) => {
    const there = map.get(key);
    if (there) there.push(index);
    else map.set(key, [index]);
  };
  plant.items.forEach(({ x_m, y_m, area }, index) => {
    if (x_m !== undefined && y_m !== undefined) put(bySquare, `${squareOf(x_m)} ${squareOf(y_m)}`, index);
    else if (area !== undefined) put(byArea, area, index);
  });
  const made = { bySquare, byArea };
  sorted.set(plant, made);
  return made;
}

/** An item near a place, and how near it may be: one without a place of its own may stand anywhere in its area. */
export type Near = Readonly<{ item: Item; distance_m: number }>;

/** Items that may stand within reach, in the order of the register. Cost: what stands in reach, once the plant is sorted. */
export function itemsNear(plant: Plant, at: Spot, reach_m: number): Near[] {
  const { bySquare, byArea } = sortedOf(plant);
  const found: [number, number][] = [];
  for (let x = squareOf(at.x_m - reach_m); x <= squareOf(at.x_m + reach_m); x++) {
    for (let y = squareOf(at.y_m - reach_m); y <= squareOf(at.y_m + reach_m); y++) {
      for (const index of bySquare.get(`${x} ${y}`) ?? []) {
        const item = plant.items[index]!;
        const distance_m = Math.hypot(item.x_m! - at.x_m, item.y_m! - at.y_m);
        if (distance_m <= reach_m) found.push([index, distance_m]);
      }
    }
  }
  for (const area of new Map(plant.areas.map((area) => [area.name, area])).values()) {
    const distance_m = rectDistance_m(area, at);
    if (distance_m > reach_m) continue;
    for (const index of byArea.get(area.name) ?? []) found.push([index, distance_m]);
  }
  return found.sort(([a], [b]) => a - b).map(([index, distance_m]) => ({ item: plant.items[index]!, distance_m }));
}

/** From a point to the nearest point of an area's ground. */
export function rectDistance_m(area: Area, at: Spot): number {
  const dx = Math.max(area.x_m - at.x_m, 0, at.x_m - (area.x_m + area.width_m));
  const dy = Math.max(area.y_m - at.y_m, 0, at.y_m - (area.y_m + area.depth_m));
  return Math.hypot(dx, dy);
}
