import { createHash, randomUUID } from "node:crypto";
import { desc, eq } from "drizzle-orm";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { Item, Plant } from "../../core/plant/plant";
import { buildStateGraph, type StateGraph } from "../../core/trace/stateGraph";
import type { Tx } from "../db/database";
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
  const plant = JSON.parse(text) as Plant;
  const current = { revision, plant, graph: buildStateGraph(plant) };
  plants.set(contentHash, current);
  if (plants.size > 4) plants.delete(plants.keys().next().value!);
  return current;
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

/** Stores a checked plant as the next revision and brings the register up to date. Ids of known tags stay. */
export function savePlant(
  tx: Tx,
  plant: Plant,
  by: string,
  now_ms: number,
  fileNames: readonly string[],
): { revision: number } {
  const text = canonicalJson(JSON.parse(JSON.stringify(plant)));
  const last = tx.select().from(plantRevisions).orderBy(desc(plantRevisions.revision)).limit(1).get();
  const revision = (last?.revision ?? 0) + 1;
  tx.insert(plantRevisions)
    .values({
      revision,
      importedAt: now_ms,
      importedBy: by,
      fileNames: fileNames.join(", "),
      itemCount: plant.items.length,
      linkCount: plant.links.length,
      contentHash: createHash("sha256").update(text).digest("hex"),
      plant: text,
    })
    .run();
  tx.update(items).set({ present: false }).run();
  for (const item of plant.items) {
    const row = {
      tag: item.tag,
      name: item.name ?? "",
      kind: item.kind,
      area: item.area ?? "",
      part: partsPlayed(item).join(" "),
      item: JSON.stringify(item),
      present: true,
      revision,
    };
    tx.insert(items)
      .values({ id: randomUUID(), ...row })
      .onConflictDoUpdate({ target: items.tag, set: row })
      .run();
  }
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
