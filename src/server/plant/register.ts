import { and, desc, eq, isNull, sql } from "drizzle-orm";
import { foundBy, inOrder, pageOf, type Page } from "../../core/listed";
import type { Area, Item, Link } from "../../core/plant/plant";
import { spotOf } from "../../core/schedule/timelineModel";
import { database, type Db } from "../db/database";
import { holds, isolations, items, people, plantRevisions, plantTexts } from "../db/schema";
import { liveJobs } from "../isolation/liveJobs";
import { currentPlant, itemAt, partsPlayed, plantAt, type CurrentPlant } from "./plantStore";

export const PAGE_SIZE = 60;

export type RegisterRow = Readonly<{ tag: string; name: string; kind: string; area: string; part: string }>;

export const PLANT_SORTS = ["tag", "name", "kind", "area"] as const;
export type PlantSort = (typeof PLANT_SORTS)[number];

/**
 * The register of today, searched by tag, name, kind or area, in every spelling; each word is somewhere in one of them.
 * Cost: linear in items, in memory, and the sorting of what is found.
 */
export function searchRegister(
  words: string,
  page: number,
  order: Readonly<{ sort: PlantSort; down: boolean }> = { sort: "tag", down: false },
): Page<RegisterRow> {
  const all = currentPlant(database())?.plant.items ?? [];
  const found = foundBy(all, words, ({ tag, name, kind, area }) => [tag, name, kind, area].join("\n"));
  const sorted = inOrder(found, (item) => item[order.sort] || null, order.down);
  const shown = pageOf(sorted, page, PAGE_SIZE);
  return {
    ...shown,
    rows: shown.rows.map((item) => ({
      tag: item.tag,
      name: item.name ?? "",
      kind: item.kind,
      area: item.area ?? "",
      part: partsPlayed(item).join(" "),
    })),
  };
}

export type ItemSheet = Readonly<{
  id: string;
  present: boolean;
  revision: number;
  item: Item;
  links: readonly Link[];
  heldBy: readonly Readonly<{ isolation: string; lock: string | null; by: string; at: number }>[];
}>;

/** One item's sheet: what the register says, what it is linked to, and who holds it now. */
export function itemSheet(tag: string): ItemSheet | null {
  const db = database();
  const row = db.select().from(items).where(eq(items.tag, tag)).get();
  const today = currentPlant(db);
  if (today === null) return null;
  if (row === undefined) {
    // The name of one of its parts leads to the item.
    const item = itemAt(today, tag)?.tag;
    return item === undefined || item === tag ? null : itemSheet(item);
  }
  const plant = today.graph.itemByTag.has(tag) ? today : lastWith(db, tag);
  const item = plant?.plant.items[plant.graph.itemByTag.get(tag) ?? -1];
  if (!plant || item === undefined) return null;
  const own = (place: string) => place === tag || item.parts.some((part) => place === `${tag}.${part}`);
  const links = today.plant.links.filter((link) => own(link.from) || own(link.to));
  const heldBy = db
    .select({ isolation: isolations.number, lock: holds.lock, by: people.name, at: holds.lockedAt })
    .from(holds)
    .innerJoin(isolations, eq(isolations.id, holds.isolationId))
    .innerJoin(people, eq(people.id, holds.lockedBy))
    .where(and(eq(holds.itemId, row.id), isNull(holds.liftedAt)))
    .all();
  return { id: row.id, present: plant === today, revision: plant.revision, item, links, heldBy };
}

/** The last register that had a tag which is gone today. Cost: linear in the text of those after it. */
function lastWith(db: Db, tag: string): CurrentPlant | null {
  const row = db
    .select({ revision: plantRevisions.revision })
    .from(plantRevisions)
    .innerJoin(plantTexts, eq(plantTexts.hash, plantRevisions.contentHash))
    .where(sql`instr(${plantTexts.text}, ${`"tag":${JSON.stringify(tag)}`}) > 0`)
    .orderBy(desc(plantRevisions.revision))
    .limit(1)
    .get();
  return row ? plantAt(db, row.revision) : null;
}

export function allPlaces(): string[] {
  const plant = currentPlant(database());
  return plant ? [...new Set([...plant.plant.items.map((item) => item.tag), ...plant.graph.places.names])].sort() : [];
}

export function revisions() {
  return database()
    .select({
      revision: plantRevisions.revision,
      at: plantRevisions.importedAt,
      by: people.name,
      files: plantRevisions.fileNames,
      items: plantRevisions.itemCount,
      links: plantRevisions.linkCount,
    })
    .from(plantRevisions)
    .innerJoin(people, eq(people.id, plantRevisions.importedBy))
    .orderBy(desc(plantRevisions.revision))
    .limit(10)
    .all();
}

/** Where a tag stands on the site plan; the middle of the site where the tag is not known or says nothing. */
export function spotOfTag(tag: string): { x_m: number; y_m: number; tag: string } | null {
  const plant = currentPlant(database());
  if (plant === null || plant.plant.areas.length === 0) return null;
  const spot = tag === "" ? null : spotOf(plant.graph, tag);
  if (spot) return { x_m: spot.x_m, y_m: spot.y_m, tag };
  const middle = (from: (area: Area) => number, size: (area: Area) => number) =>
    (Math.min(...plant.plant.areas.map(from)) + Math.max(...plant.plant.areas.map((area) => from(area) + size(area)))) /
    2;
  return {
    x_m: middle(
      (area) => area.x_m,
      (area) => area.width_m,
    ),
    y_m: middle(
      (area) => area.y_m,
      (area) => area.depth_m,
    ),
    tag: "middle of the site",
  };
}

/** The areas of today's register with how much stands in each, and the jobs whose points are locked there. */
export function siteBlocks() {
  const db = database();
  const plant = currentPlant(db);
  if (plant === null) return [];
  const live = liveJobs(db).filter(({ holds }) => holds.length > 0);
  return plant.plant.areas.map((area) => ({
    ...area,
    items: plant.plant.items.filter((item) => item.area === area.name).length,
    jobs: [
      ...new Set(
        live
          .filter(({ job }) => job.faces.some((face) => itemAt(plant, face.place)?.area === area.name))
          .map(({ number }) => number),
      ),
    ],
  }));
}
