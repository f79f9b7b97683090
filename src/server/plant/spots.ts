import type { Spot } from "../../core/board/tracks";
import type { PermitDetails } from "../../core/permit/kinds/details";
import { areaAt, placeOf } from "../../core/permit/around/hotWorkZone";
import { itemAt, type CurrentPlant } from "./plantStore";

const NOWHERE: Spot = { x_m: 0, y_m: 0, level_m: 0, area: "", isKnown: false };

/** Where a place of the register is; in its area's middle where nobody wrote down more. */
export function spotsOf(plant: CurrentPlant | null): (place: string) => Spot {
  const known = new Map<string, Spot>();
  return (place) => {
    const found = known.get(place) ?? spotOf(plant, place);
    known.set(place, found);
    return found;
  };
}

function spotOf(plant: CurrentPlant | null, place: string): Spot {
  const item = plant && itemAt(plant, place);
  if (!plant || !item) return NOWHERE;
  const { areas } = plant.plant;
  const at = placeOf(item, areas);
  if (at === null) return { ...NOWHERE, area: item.area ?? "" };
  return { ...at, area: item.area ?? areaAt(areas, at)?.name ?? "", isKnown: true };
}

/** Where a permit's work is: a permit that says so knows better than the register where its item stands. */
export function spotOfWork(
  plant: CurrentPlant | null,
  spot: (place: string) => Spot,
  details: PermitDetails,
  places: readonly string[],
): Spot {
  const spots = places.map(spot);
  const byRegister = spots.find(({ isKnown }) => isKnown) ?? spots[0] ?? NOWHERE;
  if (!("x_m" in details)) return byRegister;
  const { x_m, y_m } = details;
  const level_m = "level_m" in details ? details.level_m : byRegister.level_m;
  const area = (plant && areaAt(plant.plant.areas, { x_m, y_m, level_m })?.name) ?? byRegister.area;
  return { x_m, y_m, level_m, area, isKnown: true };
}

/** The area of the first place of which the register says one; empty where it says none. */
export function areaOfPlaces(plant: CurrentPlant | null, places: readonly string[]): string {
  const spots = places.map(spotsOf(plant));
  return (spots.find(({ isKnown }) => isKnown) ?? spots[0] ?? NOWHERE).area;
}
