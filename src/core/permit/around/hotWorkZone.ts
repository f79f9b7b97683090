import type { Area, Item, Plant } from "../../plant/plant";
import { tagOfPlace } from "../../plant/resolvePlace";
import { HOT_WORK, sparkReach_m } from "../../fire/hotWork";
import { keeps } from "./zoneRules";
import { itemsNear, looseItems, rectDistance_m } from "./itemsNear";

/** Something within reach of sparks that must be dealt with before the flame is lit. */
export type ZoneItem = Readonly<{
  /** Stable for the same thing, so that what was decided of it stays decided. */
  id: string;
  what: ZoneWhat;
  /** The tag, or the area's name. */
  tag: string;
  words: string;
  distance_m: number;
  level_m: number;
  demand: string;
}>;

export const ZONE_WHATS = [
  "under the flame",
  "holds what burns",
  "holds oxygen",
  "may burn",
  "drain or open end",
  "leads elsewhere",
  "other side of a wall",
  "opening below",
  "no place known",
] as const;
export type ZoneWhat = (typeof ZONE_WHATS)[number];

/** Could something of this kind hold a liquid, a gas or dust? Where nobody wrote down what, it is taken to. */
export function holdsSomething(item: Pick<Item, "kind">): boolean {
  return HOLDERS.test(item.kind);
}

export type OpenEnd = Readonly<{ tag: string; permit: string }>;

type At = Readonly<{ x_m: number; y_m: number; level_m: number }>;

/** Floors this near in height count as one: grating, pits, low platforms. */
const SAME_FLOOR_m = 2;
const DRAINS = /drain|sump|gully|sewer|pit/i;
const VENTS = /vent|relief|chimney|stack|breather/i;
/** Sparks travel through these, and light what is at their other end. */
const LEADS = /conveyor|duct|elevator|screw|chute|feeder/i;
/** Names of what is flammable though nobody flagged it. Common practice, no source. */
const FLAMMABLE =
  /hydrogen(?! sulph)|petrol|gasoline|naphtha|solvent|hexane|alcohol|methanol|ethanol|acetone|acetylene|methane|propane|butane|natural gas|town gas|lpg/i;
/** And of what burns once it is lit. */
const BURNS =
  /oil|grease|fat|wax|earth|dust|coal|sawdust|sulphur|paper|carton|cardboard|wood|pallet|straw|rubber|insulation/i;
const OXYGEN = /oxygen/i;
/** Kinds that hold something; without a word of what, it is taken to burn. */
const HOLDERS = /tank|vessel|reactor|autoclave|drum|silo|bin|filter|header|column|separator|sump|pit|accumulator/i;

const GAS_FREE =
  "Gas-free by a test, inert, full of water, or screened with its vents, drains and flanges tested and a detector standing there. A lock alone does not do";

/**
 * What is within reach of sparks from a place, measured to its wall: on the floor of the work all around, walls or not;
 * below it, farther the deeper, unless its floor is known to be tight; above it what hangs or vents there. What is not
 * written down counts as the worse: an item without a level is on every floor, contents nobody named burn; what has no
 * place is one line for its area. Sorted by distance, then tag. `own` is what is worked on: what holds something there is
 * under the flame itself.
 *
 * Reach 35 ft (10.7 m) sideways, both sides of walls, openings below: 29 CFR 1910.252(a)(2) and NFPA 51B, from memory.
 * Cost: what is within reach; once a register linear in items and links.
 */
export function hotWorkZone(
  plant: Plant,
  at: At,
  p: Readonly<{ openEnds: readonly OpenEnd[]; own?: readonly string[]; reach_m?: number }>,
): ZoneItem[] {
  const reach_m = p.reach_m ?? HOT_WORK.clear_m;
  const own = new Set(p.own ?? []);
  const home = areaAt(plant.areas, at);
  const { areaOf, besideBleed, tags, lowest_m } = lookUpOf(plant);
  const isOpenTo = (area: string | undefined) => home?.opensTo?.includes(area ?? "") === true;
  const isTight = home?.tightFloor === true;
  const found: ZoneItem[] = [];
  const items = new Map<string, Seen>();
  const unplaced = new Map<string, Seen[]>();
  const throws = (drop_m: number) => (keeps("farther") ? Math.max(reach_m, sparkReach_m(drop_m)) : reach_m);
  const deepest_m = isTight && (home?.opensTo ?? []).length === 0 ? reach_m : throws(at.level_m - lowest_m);
  // What stands nowhere known is the same for every flame: it is looked through once a register.
  const isWanted = keeps("unplaced") ? ({ tag }: Item) => own.has(tag) : null;
  for (const { item, distance_m, isPlaced } of itemsNear(plant, at, Math.max(reach_m, deepest_m), isWanted)) {
    const level_m = item.level_m ?? areaOf.get(item.area ?? "")?.level_m;
    const drop_m = level_m === undefined ? 0 : at.level_m - level_m;
    const where = drop_m > SAME_FLOOR_m ? "below" : drop_m < -SAME_FLOOR_m ? "above" : "here";
    const far_m = where === "below" ? throws(drop_m) : reach_m;
    if (distance_m > far_m) continue;
    if (where === "below" && (isTight || !keeps("below")) && !isOpenTo(item.area)) continue;
    // Above, what hangs or vents there; the rest of that floor is out of reach.
    if (where === "above" && !(keeps("above") && hangsOrVents(item))) continue;
    const seen = { item, distance_m, level_m: level_m ?? at.level_m, where } as const;
    if (isPlaced || own.has(item.tag) || !keeps("unplaced")) items.set(item.tag, seen);
    else if (matters(item)) {
      const area = item.area ?? NO_AREA;
      const there = unplaced.get(area);
      if (there) there.push(seen);
      else unplaced.set(area, [seen]);
    }
  }

  const add = (tag: string, what: ZoneWhat, words: string, demand: string, more: Partial<ZoneItem> = {}) => {
    const where = items.get(tag);
    found.push({
      id: `zone ${what} ${tag}`,
      what,
      tag,
      words,
      distance_m: where?.distance_m ?? 0,
      level_m: where?.level_m ?? at.level_m,
      demand,
      ...more,
    });
  };
  for (const [tag, seen] of items)
    for (const [what, words, demand] of lookedAt(seen, own.has(tag))) add(tag, what, words, demand);
  const loose = keeps("unplaced") ? lookUpOf(plant).loose.filter((tag) => !own.has(tag)) : [];
  if (loose.length > 0 && !unplaced.has(NO_AREA)) unplaced.set(NO_AREA, []);
  for (const [area, all] of unplaced) {
    const more = area === NO_AREA ? loose : [];
    const count = all.length + more.length;
    // Of the loose ones no more than can be shown: they are sorted already.
    const named = [...all.map(({ item }) => item.tag), ...more.slice(0, NAMED)].sort().slice(0, NAMED);
    add(
      area,
      "no place known",
      `${area}: ${count} that nobody has placed: ${named.join(", ")}${count > NAMED ? " and more" : ""}`,
      "Walk them: what stands within reach is dealt with as if it burned, and its place written down",
      {
        distance_m: all.reduce((least, { distance_m }) => Math.min(least, distance_m), more.length > 0 ? 0 : Infinity),
      },
    );
  }
  const flammable = new Set(
    found.filter(({ what }) => what === "holds what burns" || what === "under the flame").map(({ tag }) => tag),
  );
  for (const [end, { item }] of items) {
    if (!item.bleed) continue;
    for (const other of besideBleed.get(end) ?? []) {
      const tag = tagOfPlace(other, (name) => tags.has(name));
      if (!flammable.has(tag) && !isFlammable(plant.items[lookUpOf(plant).indexOf.get(tag) ?? -1])) continue;
      add(end, "drain or open end", `Vent or drain of ${other}`, "Shut and capped, or led away");
    }
  }
  for (const end of p.openEnds) {
    if (!items.has(end.tag)) continue;
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
  for (const area of plant.areas) {
    if (area === home) continue;
    const distance_m = rectDistance_m(area, at);
    const drop_m = at.level_m - area.level_m;
    if (drop_m > SAME_FLOOR_m) {
      const falls = isOpenTo(area.name) || (!isTight && keeps("below"));
      if (!falls || distance_m > throws(drop_m)) continue;
      const words = isOpenTo(area.name)
        ? `${area.name}, through openings`
        : `${area.name}, below: nobody has written down that the floor is tight`;
      add(area.name, "opening below", words, "Openings covered, or cleared and watched below", {
        distance_m,
        level_m: area.level_m,
      });
    } else if (keeps("walls") && distance_m <= reach_m && Math.abs(drop_m) <= SAME_FLOOR_m) {
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

type Seen = Readonly<{ item: Item; distance_m: number; level_m: number; where: "here" | "below" | "above" }>;

/** What an item in the zone is to a flame: everything that it may be. */
function lookedAt({ item, where }: Seen, isOwn: boolean): [ZoneWhat, string, string][] {
  const found: [ZoneWhat, string, string][] = [];
  const name = item.name ?? item.kind;
  const place = where === "here" ? "" : `, ${where}`;
  const fluid = item.contents?.fluid;
  if (isOwn && holdsSomething(item) && keeps("under the flame")) {
    found.push([
      "under the flame",
      `${name}: ${fluid ?? "nobody wrote down what is in it"}`,
      "Emptied, cleaned and gas-free inside by a test at its points, or inert or full of water to the seam; its vents open",
    ]);
    return found;
  }
  if (isFlammable(item)) found.push(["holds what burns", `${name}: ${fluid}${place}`, GAS_FREE]);
  else if (item.contents === undefined && holdsSomething(item)) {
    found.push([
      "holds what burns",
      `${name}: nobody wrote down what is in it${place}`,
      `Find out; until then: ${GAS_FREE}`,
    ]);
  } else if (BURNS.test(fluid ?? "") || BURNS.test(name)) {
    found.push([
      "may burn",
      `${name}${fluid === undefined ? "" : `: ${fluid}`}${place}`,
      "Closed, covered, or the floor around it clean and wet",
    ]);
  }
  if (keeps("oxygen") && (OXYGEN.test(fluid ?? "") || OXYGEN.test(name))) {
    found.push(["holds oxygen", `${name}${place}`, "Shut and moved away, or screened: in oxygen everything burns"]);
  }
  if (keeps("ends") && (DRAINS.test(item.kind) || DRAINS.test(name))) {
    found.push(["drain or open end", `${name}${place}`, "Covered and sealed, kept wet"]);
  }
  if (keeps("elsewhere") && (LEADS.test(item.kind) || LEADS.test(name))) {
    found.push(["leads elsewhere", `${name}${place}`, "Stopped and closed or screened: sparks travel through it"]);
  }
  return found;
}

/** What burns by its flag, or by its name though nobody flagged it. */
function isFlammable(item: Item | undefined): boolean {
  const { hazards = [], fluid = "" } = item?.contents ?? {};
  return hazards.includes("flammable") || hazards.includes("self-heating") || (keeps("names") && FLAMMABLE.test(fluid));
}

function hangsOrVents(item: Item): boolean {
  return item.bleed !== undefined || VENTS.test(item.kind) || VENTS.test(item.name ?? "") || LEADS.test(item.kind);
}

/** Can it hold, vent or be what burns? */
function matters(item: Item): boolean {
  return lookedAt({ item, distance_m: 0, level_m: 0, where: "here" }, false).length > 0 || hangsOrVents(item);
}

const NO_AREA = "no area";
/** Tags in one line; how many there are it says besides. */
const NAMED = 8;

type LookUp = Readonly<{
  /** Tags of what may burn and stands nowhere known, sorted. */
  loose: readonly string[];
  areaOf: ReadonlyMap<string, Area>;
  /** What each vent or drain is linked to. */
  besideBleed: ReadonlyMap<string, readonly string[]>;
  tags: ReadonlySet<string>;
  indexOf: ReadonlyMap<string, number>;
  /** The lowest floor or item. */
  lowest_m: number;
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
  const made = {
    loose: looseItems(plant)
      .filter(matters)
      .map(({ tag }) => tag)
      .sort(),
    areaOf: areasByName(plant.areas),
    besideBleed,
    tags,
    indexOf: new Map(plant.items.map(({ tag }, index) => [tag, index])),
    lowest_m: [...plant.areas, ...plant.items].reduce(
      (least, { level_m }) => Math.min(least, level_m ?? least),
      Infinity,
    ),
  };
  lookUps.set(plant, made);
  return made;
}

/** The area whose ground the point lies on; of several, the one whose floor is nearest. */
export function areaAt(areas: readonly Area[], at: At): Area | undefined {
  return areas
    .filter((area) => rectDistance_m(area, at) === 0)
    .sort((a, b) => Math.abs(a.level_m - at.level_m) - Math.abs(b.level_m - at.level_m))[0];
}

/** Areas by name, made once for a list of them: it never changes, and every item of a register asks. */
const named = new WeakMap<readonly Area[], ReadonlyMap<string, Area>>();

function areasByName(areas: readonly Area[]): ReadonlyMap<string, Area> {
  const known = named.get(areas);
  if (known) return known;
  // Of two of one name the first counts.
  const made = new Map([...areas].reverse().map((area) => [area.name, area]));
  named.set(areas, made);
  return made;
}

/** Where an item stands: its own figures, else the middle of its area. Cost: constant. */
export function placeOf(item: Item, areas: readonly Area[]): At | null {
  const area = item.area === undefined ? undefined : areasByName(areas).get(item.area);
  const level_m = item.level_m ?? area?.level_m ?? 0;
  if (item.x_m !== undefined && item.y_m !== undefined) return { x_m: item.x_m, y_m: item.y_m, level_m };
  if (area === undefined) return null;
  return { x_m: area.x_m + area.width_m / 2, y_m: area.y_m + area.depth_m / 2, level_m };
}
