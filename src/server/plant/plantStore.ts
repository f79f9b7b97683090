import { and, count, desc, eq, sql } from "drizzle-orm";
import { inOneGo } from "../../core/inOneGo";
import type { Item, Plant } from "../../core/plant/plant";
import { stateGraphSteps, type StateGraph } from "../../core/trace/stateGraph";
import { storedPlantSteps } from "../../workers/registerParts";
import type { PlantKey } from "../../workers/plantFrom";
import type { StagedRegister } from "../../workers/stageRegister";
import type { Db, Tx } from "../db/database";
import { plantRevisions, plantTexts } from "../db/schema";
import { question } from "../db/question";
import { whileUnchanged } from "../db/whileUnchanged";
import { inSlices } from "../runtime/inSlices";

export type CurrentPlant = Readonly<{ revision: number; plant: Plant; graph: StateGraph }>;

/** The state graphs of a few revisions, for building one for each screen would be waste. */
const cache = globalThis as { heavyLanternPlants?: Map<string, Register> };
const KEPT = 4;

function kept(): Map<string, Register> {
  return (cache.heavyLanternPlants ??= new Map());
}

function keep(hash: string, register: Register): Register {
  kept().set(hash, register);
  if (kept().size > KEPT) kept().delete(kept().keys().next().value!);
  return register;
}

const KEY = { revision: plantRevisions.revision, contentHash: plantRevisions.contentHash };

/** The plant of today, or null when none was imported yet. Cost: one query where it was asked for before. */
export const currentPlant = whileUnchanged((tx): CurrentPlant | null => {
  const latest = latestKey(tx).get();
  return latest ? plantOf(tx, latest) : null;
});

const latestKey = question((tx) =>
  tx.select(KEY).from(plantRevisions).orderBy(desc(plantRevisions.revision)).limit(1).prepare(),
);
const keyAt = question((tx) =>
  tx
    .select(KEY)
    .from(plantRevisions)
    .where(eq(plantRevisions.revision, sql.placeholder("revision")))
    .prepare(),
);

export function plantAt(tx: Tx, revision: number): CurrentPlant {
  const row = keyAt(tx).get({ revision });
  if (row === undefined) throw new Error(`plant revision ${revision} is not in the database`);
  return plantOf(tx, row);
}

/** The register itself is large: it is read only when nobody asked for this one before. */
function plantOf(tx: Tx, { revision, contentHash }: { revision: number; contentHash: string }): CurrentPlant {
  const known = kept().get(contentHash);
  return { ...(known ?? keep(contentHash, inOneGo(readSteps(tx, contentHash)))), revision };
}

/** Reads a register that is about to become today's, bit by bit: when it does, it is at hand. */
export async function readAhead(db: Db, hash: string): Promise<void> {
  if (!kept().has(hash)) keep(hash, await inSlices(readSteps(db, hash)));
}

type Register = Readonly<{ plant: Plant; graph: StateGraph }>;

function* readSteps(tx: Tx, hash: string): Generator<void, Register> {
  const plant = yield* storedPlantSteps(partsOf(tx, hash), hash);
  return { plant, graph: yield* stateGraphSteps(plant) };
}

function* partsOf(tx: Tx, hash: string): Generator<string> {
  for (let part = 0; ; part++) {
    const where = and(eq(plantTexts.hash, hash), eq(plantTexts.part, part));
    const row = tx.select({ text: plantTexts.text }).from(plantTexts).where(where).get();
    if (row === undefined) return;
    yield row.text;
  }
}

/** What a thread needs to read a register by itself: the database's file, the revision, and the hash of what it holds. */
export function plantKey(tx: Tx, file: string, revision: number): PlantKey {
  const row = tx.select(KEY).from(plantRevisions).where(eq(plantRevisions.revision, revision)).get();
  if (row === undefined) throw new Error(`plant revision ${revision} is not in the database`);
  return { file, hash: row.contentHash };
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

/** Makes a register that was staged the next revision: one small row. Null where a part of it is not there. */
export function savePlant(
  tx: Tx,
  staged: StagedRegister,
  by: string,
  now_ms: number,
): Readonly<{ revision: number }> | null {
  const there = tx.select({ n: count() }).from(plantTexts).where(eq(plantTexts.hash, staged.hash)).get();
  if (there?.n !== staged.parts) return null;
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
      fileNames: staged.files.map(({ name }) => name).join(", "),
      itemCount: staged.items,
      linkCount: staged.links,
      contentHash: staged.hash,
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
