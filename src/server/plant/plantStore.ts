import { randomUUID } from "node:crypto";
import { desc, eq, sql } from "drizzle-orm";
import type { Item, Plant } from "../../core/plant/plant";
import { buildStateGraph, type StateGraph } from "../../core/trace/stateGraph";
import { storedPlant } from "../../workers/storedPlant";
import type { PlantKey } from "../../workers/plantFrom";
import type { ReadyPlant } from "../../workers/tasks";
import type { Db, Tx } from "../db/database";
import { items, plantRevisions } from "../db/schema";
import { whileUnchanged } from "../db/whileUnchanged";

export type CurrentPlant = Readonly<{ revision: number; plant: Plant; graph: StateGraph }>;

/** The state graphs of a few revisions, for building one for each screen would be waste. */
const cache = globalThis as { heavyLanternPlants?: Map<string, CurrentPlant> };

const KEY = { revision: plantRevisions.revision, contentHash: plantRevisions.contentHash };

/** The plant of today, or null when none was imported yet. Cost: one query where it was asked for before. */
export const currentPlant = whileUnchanged((tx): CurrentPlant | null => {
  const latest = tx.select(KEY).from(plantRevisions).orderBy(desc(plantRevisions.revision)).limit(1).get();
  return latest ? plantOf(tx, latest) : null;
});

export function plantAt(tx: Tx, revision: number): CurrentPlant {
  const row = tx.select(KEY).from(plantRevisions).where(eq(plantRevisions.revision, revision)).get();
  if (row === undefined) throw new Error(`plant revision ${revision} is not in the database`);
  return plantOf(tx, row);
}

/** The register itself is large: it is read only when nobody asked for this one before. */
function plantOf(tx: Tx, { revision, contentHash }: { revision: number; contentHash: string }): CurrentPlant {
  const plants = (cache.heavyLanternPlants ??= new Map());
  const known = plants.get(contentHash);
  if (known) return { ...known, revision };
  const where = eq(plantRevisions.revision, revision);
  const text = tx.select({ plant: plantRevisions.plant }).from(plantRevisions).where(where).get()!.plant;
  const plant = storedPlant(text, contentHash);
  const current = { revision, plant, graph: buildStateGraph(plant) };
  plants.set(contentHash, current);
  if (plants.size > 4) plants.delete(plants.keys().next().value!);
  return current;
}

/** What a thread needs to read a register by itself: the database's file, the revision, and the hash of what it holds. */
export function plantKey(tx: Tx, file: string, revision: number): PlantKey {
  const row = tx.select(KEY).from(plantRevisions).where(eq(plantRevisions.revision, revision)).get();
  if (row === undefined) throw new Error(`plant revision ${revision} is not in the database`);
  return { file, revision, hash: row.contentHash };
}

/** Registers by revision, each looked for once; today's is at hand. */
export function plantsAt(tx: Tx, today: CurrentPlant): (revision: number) => CurrentPlant {
  const known = new Map([[today.revision, today]]);
  return (revision) => {
    const found = known.get(revision) ?? plantAt(tx, revision);
    known.set(revision, found);
    return found;
  };
}

/** The item at a place: by its tag, or by tag.part. Null where the register has none. Cost: constant. */
export function itemAt({ plant, graph }: CurrentPlant, place: string): Item | null {
  const found = graph.places.resolveFace(place);
  const first = found.ok ? found.places[0] : undefined;
  return first === undefined ? null : (plant.items[graph.places.itemOf[first]!] ?? null);
}

/** Tags entered in one go while a register comes in: some milliseconds, between which everybody else is answered. */
const SLICE = 2000;

/** Gives every tag its lasting id, a slice at a time. Until the register itself is stored nothing shows of it. */
export async function enterTags(db: Db, tags: readonly string[]): Promise<void> {
  for (let from = 0; from < tags.length; from += SLICE) {
    const slice = tags.slice(from, from + SLICE).map((tag) => ({ id: randomUUID(), tag }));
    db.transaction((tx) => insertTags(tx, slice), { behavior: "immediate" });
    await new Promise(setImmediate);
  }
}

function insertTags(tx: Tx, rows: readonly Readonly<{ id: string; tag: string }>[]): void {
  tx.run(
    sql`INSERT OR IGNORE INTO ${items} (id, tag)
        SELECT value ->> 'id', value ->> 'tag' FROM json_each(${JSON.stringify(rows)})`,
  );
}

/** Stores a register that was read and found good as the next revision: one row, so that it is there whole or not at all. */
export function savePlant(
  tx: Tx,
  ready: ReadyPlant,
  by: string,
  now_ms: number,
  fileNames: readonly string[],
): { revision: number } {
  const last = tx
    .select({ revision: plantRevisions.revision })
    .from(plantRevisions)
    .orderBy(desc(plantRevisions.revision))
    .limit(1)
    .get();
  const revision = (last?.revision ?? 0) + 1;
  tx.insert(plantRevisions)
    .values({
      revision,
      importedAt: now_ms,
      importedBy: by,
      fileNames: fileNames.join(", "),
      itemCount: ready.tags.length,
      linkCount: ready.links,
      contentHash: ready.hash,
      plant: ready.text,
    })
    .run();
  return { revision };
}

/** What an item is to the engine. */
export function partsPlayed(item: Item): string[] {
  return [
    ...(item.sources.some((source) => source.feeding) ? ["source"] : []),
    ...(item.sources.some((source) => !source.feeding) ? ["stored"] : []),
    ...(item.device ? [item.device.credit ? "device" : "no-credit"] : []),
    ...(item.bleed ? ["bleed"] : []),
  ];
}
